import { describe, expect, it } from "vitest";
import { plainCoat } from "../../jacket/coat.ts";
import { CHANGES, LAID_PLAN, PLAN } from "../../testing/documentChanges.ts";
import { formatArea, formatLength } from "../../units/index.ts";
import { builtAlike, differences } from "./differences.ts";

const words = { length: (mm: number) => formatLength(mm), area: (mm2: number) => formatArea(mm2) };
const told = (after: Partial<typeof PLAN>) => differences(PLAN, { ...PLAN, ...after }, words);

/** What changes nothing that is built. */
const UNTOLD = ["parting.suggestedAt", "identity.next", "identity.sections", "identity.lines", "identity.fills"];

describe("the differences of two plans", () => {
  const every = Object.entries(CHANGES).flatMap(([part, fields]) =>
    Object.entries(fields).map(([field, change]) => ({ name: `${part}.${field}`, change })),
  );

  it.each(every)("$name", ({ name, change }) => {
    const isTold = told(change).length > 0;
    expect(isTold).toBe(!UNTOLD.includes(name));
    expect(builtAlike(PLAN, { ...PLAN, ...change })).toBe(!isTold);
  });

  it("are none where only the order of fields differs, as after a way over the wire", () => {
    const turned = (value: unknown): unknown =>
      Array.isArray(value)
        ? value.map(turned)
        : typeof value === "object" && value !== null
          ? Object.fromEntries(
              Object.entries(value)
                .reverse()
                .map(([key, inner]) => [key, turned(inner)]),
            )
          : value;
    const back = turned(LAID_PLAN) as typeof LAID_PLAN;
    expect(JSON.stringify(back)).not.toBe(JSON.stringify(LAID_PLAN));
    expect(differences(LAID_PLAN, back, words)).toEqual([]);
    expect(builtAlike(LAID_PLAN, back)).toBe(true);
  });

  it("are none of a plan with itself", () => {
    expect(differences(LAID_PLAN, LAID_PLAN, words)).toEqual([]);
  });

  it("know a coat by its id, wherever it stands", () => {
    const [first, second, ...rest] = PLAN.jacket.coats;
    const thinner = { ...second, thicknessMm: 2 };
    expect(told({ jacket: { ...PLAN.jacket, coats: [first, thinner, ...rest] } })).toEqual([
      "Jacket: 7.5\u2009mm instead of 8.0\u2009mm",
      "Coat 2: 2.0\u2009mm instead of 2.5\u2009mm",
    ]);
    expect(told({ jacket: { ...PLAN.jacket, coats: [second, first, ...rest] } })).toEqual([
      "Coat 1 stands as coat: 1 instead of 2",
      "Coat 2 stands as coat: 2 instead of 1",
    ]);
    const fresh = plainCoat({ id: "coat-9", thicknessMm: 1, thickened: false, pigment: "#ffffff" });
    expect(told({ jacket: { ...PLAN.jacket, coats: [first, second, rest[0], fresh] } })).toEqual([
      "Jacket: 6.8\u2009mm instead of 8.0\u2009mm",
      "Coat 4 is new: 1.0\u2009mm",
      "A coat of 2.2\u2009mm is gone",
    ]);
  });

  it("tell where lines come from, and that they were moved", () => {
    expect(told({ parting: LAID_PLAN.parting })).toEqual(["Lines: laid by hand, 2 sections instead of suggested"]);
    const { layout } = LAID_PLAN.parting;
    if (!layout) throw new Error("There are lines.");
    const lines = layout.lines.map((line) => ({ ...line, points: line.points.map((x) => x + 1) }));
    const moved = { ...LAID_PLAN, parting: { ...LAID_PLAN.parting, layout: { ...layout, lines } } };
    expect(differences(LAID_PLAN, moved, words)).toEqual(["Lines or pulls were moved"]);
  });
});
