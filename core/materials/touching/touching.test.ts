import { describe, expect, it } from "vitest";
import { type Contact, MEETINGS, type Meeting, TOUCHING_RULES, touchingIn } from "./index.ts";

const at = (meetings: readonly Meeting[] | undefined): Meeting => meetings?.[0] ?? "surface";

describe("what must not touch what", () => {
  it("is told in at least forty rules, each under its own name", () => {
    expect(TOUCHING_RULES.length).toBeGreaterThanOrEqual(40);
    expect(new Set(TOUCHING_RULES.map(({ id }) => id)).size).toBe(TOUCHING_RULES.length);
  });

  it.each(TOUCHING_RULES.map((rule) => [rule.id, rule] as const))(
    "%s: fires on its pair and not on its neighbour",
    (id, rule) => {
      const [[a], [b]] = rule.pair;
      const warm = rule.below !== undefined ? rule.below - 1 : rule.above !== undefined ? rule.above + 1 : 20;
      const fires = (contacts: readonly Contact[], temperatureC = warm) =>
        touchingIn(contacts, temperatureC).some((found) => found.rule.id === id);
      const contact = { a, b, at: at(rule.at) };
      expect(fires([contact])).toBe(true);
      expect(fires([{ ...contact, a: b, b: a }])).toBe(true);
      // The same two where they do no harm, one of them alone, and the same at another temperature.
      const elsewhere = (Object.keys(MEETINGS) as Meeting[]).find((meeting) => rule.at && !rule.at.includes(meeting));
      if (elsewhere) expect(fires([{ ...contact, at: elsewhere }])).toBe(false);
      expect(fires([{ ...contact, b: "none" }])).toBe(false);
      if (rule.below !== undefined) expect(fires([contact], rule.below)).toBe(false);
      if (rule.above !== undefined) expect(fires([contact], rule.above)).toBe(false);
    },
  );

  it("is told once for every place, with what happens, why, and what helps", () => {
    const twice: Contact[] = [
      { a: "platinum-silicone", b: "sulphur-clay", at: "surface" },
      { a: "sulphur-clay", b: "platinum-silicone", at: "surface" },
    ];
    expect(touchingIn(twice, 20)).toHaveLength(1);
    for (const { what, why, remedy } of TOUCHING_RULES)
      for (const text of [what, why, remedy]) expect(text).toMatch(/^[A-Z].*\.$/);
  });
});
