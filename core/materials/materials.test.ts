import { describe, expect, it } from "vitest";
import { shellSystems, shellTakeoff, shellThicknesses, typicalLayup } from "../shell/index.ts";
import { gypsumYield } from "./gypsum.ts";
import { laminateLayer } from "./laminate.ts";
import { siliconeBuying } from "./silicone.ts";

describe("gypsum by absolute volume", () => {
  it.each([
    [70, 0.934, 1.588, 1.108],
    [40, 1.298, 1.817, 1.54],
  ])("%i g of water per 100: %f kg/l of powder, wet %f, dry %f", (water, powder, wet, dry) => {
    const mix = gypsumYield(water);
    expect(mix.powderKgPerLitre).toBeCloseTo(powder, 3);
    expect(mix.wetKgPerLitre).toBeCloseTo(wet, 3);
    expect(mix.dryKgPerLitre).toBeCloseTo(dry, 3);
  });
  it("refuses a mix that is none", () => {
    expect(() => gypsumYield(0)).toThrow(RangeError);
    expect(() => gypsumYield(Number.NaN)).toThrow(RangeError);
  });
});

it("a layer of 450 g mat at 30 % glass takes 1050 g of resin and is 1.05 mm", () => {
  const layer = laminateLayer(450, 0.3, 1.2);
  expect(layer.resinGPerM2).toBeCloseTo(1050, 6);
  expect(layer.thicknessMm).toBeCloseTo(1.05, 2);
});

it("silicone is bought with waste, the catalyst weighed against the base alone", () => {
  const [kit, thickener] = siliconeBuying([{ id: "tin-brushable-low", massG: 10_000, thickenedG: 8000, keysG: 0 }]);
  expect(kit.quantity).toBeCloseTo(11, 6);
  const of = (name: string) => kit.working.inputs.find((input) => input.name === name)?.value ?? Number.NaN;
  expect(of("of it base") + of("of it catalyst")).toBeCloseTo(11, 6);
  expect(of("of it catalyst") / of("of it base")).toBeCloseTo(0.05, 6);
  // 1.5 to 100 of the base that is thickened.
  expect(thickener.quantity).toBeCloseTo(((8 * 1.1) / 1.05) * 0.015, 6);
});

describe("shell systems", () => {
  const span = { areasMm2: [1e6, 5e5], flangeAreasMm2: [135_000, 135_000] };
  for (const system of shellSystems) {
    it(`${system.name}: twice the skin, twice the shell; every line shows its working`, () => {
      const layup = typicalLayup(system.id);
      const once = shellTakeoff([layup, layup], span);
      const twice = shellTakeoff([layup, layup], {
        areasMm2: span.areasMm2.map((a) => 2 * a),
        flangeAreasMm2: span.flangeAreasMm2.map((l) => 2 * l),
      });
      once.lines.forEach((line, k) => {
        expect(twice.lines[k].quantity).toBeCloseTo(2 * line.quantity, 6);
        expect(line.working.inputs.length).toBeGreaterThan(0);
      });
      expect(once.sectionMassesG[0]).toBeGreaterThan(once.sectionMassesG[1]);
      expect(shellThicknesses(layup).shellMm).toBeGreaterThan(2);
    });
  }
  it("plaster: a square metre of 20 mm without flanges is 20 l, dry 22.2 kg and its jute", () => {
    const { sectionMassesG } = shellTakeoff(
      [{ system: "gypsum-jute", figures: { juteLayers: 2, overlap: 1, juteGPerM2: 300 }, order: [] }],
      { areasMm2: [1e6], flangeAreasMm2: [0] },
    );
    expect(sectionMassesG[0]).toBeCloseTo(20 * 1108 + 600, -2);
  });
  it("keeps figures within their limits and refuses an unknown system", () => {
    const { shellMm } = shellThicknesses({ ...typicalLayup("gypsum-jute"), figures: { thicknessMm: 5000 } });
    expect(shellMm).toBe(60);
    expect(() => shellTakeoff([typicalLayup("papier-mache")], span)).toThrow(/no shell system/);
  });
});
