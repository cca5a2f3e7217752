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
});
