import { describe, expect, it } from "vitest";
import { newPlan, type PlanDocument } from "../plan/document/document.ts";
import { familiesNamed, touchingOf } from "./contacts.ts";

const base = newPlan();
const ids = (change: Partial<PlanDocument>) => touchingOf({ ...base, ...change }).map(({ rule }) => rule.id);

describe("what of a plan must not touch", () => {
  it("knows a piece by the words it is called by", () => {
    expect(familiesNamed("water clay")).toEqual(["water-clay"]);
    expect(familiesNamed("sulphur clay")).toEqual(["sulphur-clay"]);
    expect(familiesNamed("Oil clay, leather hard")).toEqual(["oil-clay"]);
    expect(familiesNamed("painted plaster").sort()).toEqual(["gypsum", "paint"]);
    expect(familiesNamed("something else")).toEqual([]);
  });

  it("follows the silicone, the piece, the shell, its poles and the bench's warmth", () => {
    const sulphur = { brief: { ...base.brief, surface: "sulphur clay" } };
    const platinum = { jacket: { ...base.jacket, silicone: "platinum-brushable" as const } };
    expect(ids(sulphur)).not.toContain("platinum-sulphur-clay");
    expect(ids({ ...sulphur, ...platinum })).toContain("platinum-sulphur-clay");
    const shell = (system: string, pole: PlanDocument["shell"]["ribs"]["pole"] = "stainless") => ({
      shell: { ...base.shell, system, ribs: { ...base.shell.ribs, pole } },
    });
    expect(ids(shell("gypsum-jute"))).not.toContain("gypsum-steel");
    expect(ids(shell("gypsum-jute", "steel"))).toContain("gypsum-steel");
    expect(ids(shell("polyester-mat"))).toContain("polyester-clay");
    expect(ids(shell("polyester-mat"))).not.toContain("polyester-cold");
    expect(ids({ ...shell("polyester-mat"), mixing: { ...base.mixing, temperatureC: 12 } })).toContain(
      "polyester-cold",
    );
    expect(ids(shell("brush-polyurethane"))).toContain("polyurethane-polyurethane");
  });

  it("looks at every coat where it lies: the first on the piece, neighbours on each other, the last under the shell", () => {
    const coats = (own: number, silicone: "platinum-brushable" | null) => ({
      jacket: { ...base.jacket, coats: base.jacket.coats.map((coat, k) => (k === own ? { ...coat, silicone } : coat)) },
      brief: { ...base.brief, surface: "sulphur clay" },
    });
    expect(ids(coats(0, "platinum-brushable"))).toContain("platinum-sulphur-clay");
    expect(ids(coats(2, "platinum-brushable"))).not.toContain("platinum-sulphur-clay");
    // Platinum on tin, in whatever coat, and none where all are alike.
    const met = (own: number, silicone: "platinum-brushable" | null) =>
      touchingOf({ ...base, ...coats(own, silicone) }).filter(({ at }) => at === "jacket").length;
    expect(met(2, "platinum-brushable")).toBeGreaterThan(0);
    expect(met(2, null)).toBe(0);
  });

  it("looks at every lay-up that is in use, and at none whose section is no more", () => {
    const capped = (known: boolean): Partial<PlanDocument> => ({
      shell: { ...base.shell, sections: [{ section: "section-5", system: "polyester-mat", figures: {}, order: [] }] },
      identity: {
        ...base.identity,
        sections: known ? [{ id: "section-5", origin: 0, places: [0, 0, 0] }] : [],
      },
    });
    expect(ids(capped(true))).toContain("polyester-clay");
    expect(ids(capped(false))).not.toContain("polyester-clay");
  });
});
