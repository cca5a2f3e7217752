import { describe, expect, it } from "vitest";
import { shellLayers, shellThicknesses } from "../../shell/index.ts";
import { layupFor } from "../../shell/layup.ts";
import { OWN_SILICONE } from "../../testing/documentChanges.ts";
import { withLayup, withMaterial, withSilicone } from "./choose.ts";
import { layTerms, newPlan } from "./document.ts";

const plan = newPlan();
const waterOf = (document: typeof plan) => document.shell.figures.waterPer100;

describe("one material in the place of another", () => {
  it("is what the layers take, with its own figures, and is given up again", () => {
    const harder = withMaterial(plan, "casting-plaster", "white-hard-gypsum");
    expect(waterOf(harder)).toBe(45);
    const [splash] = shellLayers(harder.shell, layTerms(harder));
    expect(splash.takes[0]).toMatchObject({ material: "white-hard-gypsum", usual: "casting-plaster" });
    expect(splash.pot?.mixture).toMatchObject({ name: "White hard gypsum", potMin: 15 });
    // The same thickness of a harder gypsum takes more powder.
    const [usual] = shellLayers(plan.shell, layTerms(plan));
    expect(splash.takes[0].perM2).toBeGreaterThan(usual.takes[0].perM2);
    expect(withMaterial(harder, "casting-plaster", "casting-plaster")).toEqual(plan);
  });

  it("keeps an own material with the plan, and only as long as something is of it", () => {
    const blue = withSilicone(plan, null, "own-blue-silicone", OWN_SILICONE);
    expect(blue.materials.own).toEqual([OWN_SILICONE]);
    const [first] = plan.jacket.coats;
    const inOneCoat = withSilicone(
      withSilicone(blue, first.id, "own-blue-silicone", OWN_SILICONE),
      null,
      "tin-brushable",
    );
    expect(inOneCoat.jacket.coats[0].silicone).toBe("own-blue-silicone");
    expect(inOneCoat.materials.own).toHaveLength(1);
    expect(withSilicone(inOneCoat, first.id, null).materials.own).toEqual([]);
  });
});

describe("a section that is laid up otherwise", () => {
  it("has its own layers, and forgets them when it is as the rest, or is there no more", () => {
    const cap = { system: "epoxy-cloth", figures: { layers: 8 }, order: [] };
    const capped = withLayup(plan, "section-7", cap, ["section-6", "section-7"]);
    expect(layupFor(capped.shell, "section-7")).toMatchObject(cap);
    expect(shellThicknesses(layupFor(capped.shell, "section-6")).shellMm).toBe(20);
    expect(withLayup(capped, "section-7", null, ["section-7"]).shell.sections).toEqual([]);
    const later = withLayup(capped, "section-9", cap, ["section-8", "section-9"]);
    expect(later.shell.sections.map(({ section }) => section)).toEqual(["section-9"]);
  });

  it("has its layers in the order that was decided, and a new one after the one that it follows", () => {
    const names = (order: string[], layers: number) =>
      shellLayers({ system: "gypsum-jute", figures: { juteLayers: layers }, order }).map(({ id }) => id);
    expect(names(["jute-1", "splash", "jute-2"], 2)).toEqual(["jute-1", "splash", "jute-2"]);
    expect(names(["jute-1", "splash", "jute-2"], 3)).toEqual(["jute-1", "splash", "jute-2", "jute-3"]);
    expect(names(["jute-2", "jute-1", "splash"], 1)).toEqual(["jute-1", "splash"]);
    expect(names(["gone", "jute-2"], 2)).toEqual(["splash", "jute-1", "jute-2"]);
  });
});
