import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { SILICONE_IDS } from "../materials/catalogue.ts";
import type { OwnEntry } from "../materials/entries/own.ts";
import { MIXING_LIMITS, SAFE_SHARE } from "../materials/mixing.ts";
import { withMaterial } from "../plan/document/choose.ts";
import { newPlan, type PlanDocument } from "../plan/document/document.ts";
import { shellLayers, shellSystems, typicalLayup } from "../shell/index.ts";
import { OWN_SILICONE } from "../testing/documentChanges.ts";
import { potRows } from "./pots.ts";
import { TYPICAL_RATES } from "./rates.ts";
import { takeoff } from "./takeoff.ts";
import type { JacketTotals, PartingTotals } from "./totals.ts";

const base = newPlan();
const jacket: JacketTotals = {
  siliconeG: 32_000,
  outerAreaMm2: 3.4e6,
  stopsMm3: 0,
  footClayMm3: 0,
  coats: [{ massG: 3000 }, { massG: 10_000 }, { massG: 10_000 }, { massG: 9000 }],
};
const parting: PartingTotals = {
  sections: [
    { number: 1, areaMm2: 1.9e6, lineMm: 6000 },
    { number: 2, areaMm2: 1.5e6, lineMm: 6000 },
  ],
  partingLengthMm: 6000,
  fillMm3: 400_000,
  clayMm3: 0,
  plugMm3: 0,
};
const planned = (change: Partial<PlanDocument>) => {
  const document = { ...base, ...change };
  const taken = takeoff(document, jacket, parting, TYPICAL_RATES);
  return { document, taken, rows: potRows(document, parting, taken) };
};

const anyPlan = fc
  .record({
    silicone: fc.constantFrom(...SILICONE_IDS),
    system: fc.constantFrom(...shellSystems.map(({ id }) => id)),
    temperatureC: fc.integer({ min: MIXING_LIMITS.temperatureC[0], max: MIXING_LIMITS.temperatureC[1] }),
    people: fc.integer({ min: 1, max: 4 }),
    vesselMl: fc.integer({ min: 500, max: 20_000 }),
    scaleMostG: fc.integer({ min: 500, max: 30_000 }),
  })
  .map(
    ({ silicone, system, ...mixing }): Partial<PlanDocument> => ({
      jacket: { ...base.jacket, silicone },
      shell: { ...base.shell, system },
      mixing: { ...base.mixing, ...mixing },
    }),
  );

describe("pots", () => {
  it("come to what is laid and what is lost, and never pass pot life, bucket or scale, whatever the plan", () => {
    fc.assert(
      fc.property(anyPlan, (change) => {
        const { document, taken, rows } = planned(change);
        const { people, pace, scaleMostG, vesselMl } = document.mixing;
        for (const { laidG, lossG, leftOverG, pots, mixture, potMin } of rows) {
          expect(pots.count * pots.eachG).toBeCloseTo(laidG + lossG + leftOverG, 6);
          expect(leftOverG).toBeLessThanOrEqual(0.02 * (laidG + lossG) + 1e-6);
          expect(pots.eachG).toBeLessThanOrEqual(scaleMostG + 1e-6);
          expect(pots.eachG / mixture.densityGPerCm3).toBeLessThan(vesselMl);
          if (potMin === null) continue;
          expect(pots.eachG / (people * pace * mixture.gPerMin)).toBeLessThanOrEqual(potMin * SAFE_SHARE + 1e-6);
        }
        const silicone = rows.filter(({ mixture }) => mixture.material === document.jacket.silicone);
        const mixed = silicone.reduce((sum, { laidG, lossG }) => sum + laidG + lossG, 0);
        const line = taken.materials.find(({ material }) => material === document.jacket.silicone);
        expect(mixed / 1000 / (line?.quantity ?? 0)).toBeCloseTo(1, 6);
      }),
      { numRuns: 60 },
    );
  });

  it("have a row for every coat, and for every layer of every section that is mixed", () => {
    for (const { id, layers } of shellSystems.map((system) => ({
      id: system.id,
      layers: shellLayers(typicalLayup(system.id)).length,
    }))) {
      const { rows } = planned({ shell: { ...base.shell, system: id } });
      expect(rows.filter(({ step }) => step.kind === "coat")).toHaveLength(4);
      expect(rows.filter(({ step }) => step.kind === "fills")).toHaveLength(1);
      // Bandage is dipped, not mixed.
      expect(rows.filter(({ step }) => step.kind === "layer")).toHaveLength(id === "plaster-bandage" ? 0 : 2 * layers);
    }
  });

  it("get smaller and more on a hot day, and polyester is told not to set in the cold", () => {
    const hot = planned({ mixing: { ...base.mixing, temperatureC: 28 } }).rows;
    planned({}).rows.forEach((row, k) => {
      expect(hot[k].pots.count).toBeGreaterThanOrEqual(row.pots.count);
      expect(row.whenHot.count).toBe(hot[k].pots.count);
    });
    const cold = { mixing: { ...base.mixing, temperatureC: 12 }, shell: { ...base.shell, system: "polyester-mat" } };
    const layers = planned(cold).rows.filter(({ step }) => step.kind === "layer");
    expect(layers.every(({ potMin }) => potMin === null)).toBe(true);
  });

  it("weigh the catalyst against the base alone, the thickener on top", () => {
    const [, second] = planned({}).rows.filter(({ step }) => step.kind === "coat");
    const of = (name: string) => second.card.find((part) => part.name === name)?.g ?? Number.NaN;
    expect(of("Catalyst") / of("Base")).toBeCloseTo(0.05, 2);
    expect(of("Base") + of("Catalyst")).toBeCloseTo(second.pots.eachG, -0.5);
    expect(of("Thickener") / of("Base")).toBeCloseTo(0.015, 2);
  });
});

describe("what is used up at the bench", () => {
  const counted = (change: Partial<PlanDocument>) => {
    const { taken, rows } = planned(change);
    const of = (material: string) => taken.materials.find((line) => line.material === material)?.quantity ?? 0;
    return { of, pots: rows.reduce((sum, { pots }) => sum + pots.count, 0), steps: rows.length };
  };

  it("follows pots, coats and layers, and the hands that lay them", () => {
    const one = counted({});
    expect(one.of("stir-sticks")).toBe(one.pots);
    expect(one.of("brushes")).toBe(one.steps);
    expect(one.of("nitrile-gloves")).toBeGreaterThanOrEqual(one.steps);
    const two = counted({ mixing: { ...base.mixing, people: 2 } });
    expect(two.of("brushes")).toBe(2 * two.steps);
  });

  it("has filters against what the shell gives off", () => {
    const shell = (system: string) => counted({ shell: { ...base.shell, system } });
    expect(shell("gypsum-jute").of("dust-filters")).toBeGreaterThan(0);
    expect(shell("gypsum-jute").of("vapour-filters")).toBe(0);
    expect(shell("polyester-mat").of("vapour-filters")).toBeGreaterThan(0);
    expect(shell("brush-polyurethane").of("vapour-filters")).toBeGreaterThan(0);
  });
});

describe("a remedy that is taken", () => {
  it("puts its sealer on the list for what it covers, and nothing while it is open or only accepted", () => {
    const sealing = (how: "met" | "accepted" | null) => {
      const answers = how ? [{ rule: "gypsum-water-clay", how, reason: "" }] : [];
      return planned({ touching: { answers } }).taken.materials.filter(({ use }) => use === "sealing");
    };
    expect(sealing(null)).toEqual([]);
    expect(sealing("accepted")).toEqual([]);
    const [line, ...others] = sealing("met");
    expect(others).toEqual([]);
    expect(line.material).toBe("petroleum-jelly");
    // 60 g for a square metre of the walls: 6 m of line, and as wide as bolts need it beside edges of 25 mm.
    expect(line.quantity).toBeCloseTo(6 * 0.05 * 0.06, 6);
  });

  it("is a step of the work, with how long it dries, before what it keeps apart", () => {
    const { taken } = planned({
      touching: {
        answers: [
          { rule: "gypsum-water-clay", how: "met", reason: "" },
          { rule: "silicone-board", how: "met", reason: "" },
        ],
      },
    });
    const plain = planned({}).taken;
    const own = taken.tasks.filter(({ id }) => id.startsWith("seal-"));
    const at = (id: string) => taken.tasks.findIndex((task) => task.id === id);
    expect(own.length).toBeGreaterThan(0);
    for (const { id, name, handsMin, waitMin } of own) {
      expect(name).toMatch(/^Seal the (walls|board): /);
      expect(handsMin).toBeGreaterThan(0);
      expect(waitMin).toBeGreaterThanOrEqual(0);
      expect(at(id)).toBeLessThan(at(id.endsWith("walls") ? "section-1" : "coat-1"));
    }
    const more = own.reduce((sum, { handsMin }) => sum + handsMin, 0);
    expect(taken.handsMin - plain.handsMin).toBeCloseTo(more, 9);
    expect(taken.handsWorking.inputs.find(({ name }) => name === "sealing")?.value).toBeCloseTo(more, 9);
    expect(taken.costParts.filter(({ kind }) => kind === "work").map(({ name }) => name)).toEqual(
      own.map(({ name }) => name),
    );
  });
});

describe("pots of other materials", () => {
  it("count the drops of another thickener, as much of it as that asks for, on the card and on the list", () => {
    const own: OwnEntry = {
      ...{ id: "own-thickener", name: "Old thickener", unit: "kg", group: "additives", family: "none" },
      ...{ figures: { per100: 3, dropsPerG: 20 }, mix: [], packs: [], hazards: [], supplier: "", note: "" },
    };
    const usual = planned({});
    const other = planned(withMaterial(base, "silicone-thickener", own.id, own));
    const kg = ({ taken }: typeof usual, id: string) =>
      taken.materials.find(({ material }) => material === id)?.quantity ?? Number.NaN;
    expect(kg(other, own.id)).toBeCloseTo(2 * kg(usual, "silicone-thickener"), 9);
    const small = potRows({ ...base, materials: { own: [own], instead: { "silicone-thickener": own.id } } }, parting, {
      coatsG: [40, 40, 40, 40],
      fillG: 0,
      keysG: 0,
    });
    const thickener = small[1].card.find(({ name }) => name === "Thickener");
    expect(thickener?.drops).toBe(Math.round((thickener?.g ?? 0) * 20));
  });

  it("are of every coat's own silicone, by its own ratio and pot life", () => {
    const coats = base.jacket.coats.map((coat, k) => (k === 2 ? { ...coat, silicone: OWN_SILICONE.id } : coat));
    const { rows, taken } = planned({
      jacket: { ...base.jacket, coats },
      materials: { own: [OWN_SILICONE], instead: {} },
    });
    const [, second, third] = rows.filter(({ step }) => step.kind === "coat");
    expect(second.mixture.material).toBe("tin-brushable-low");
    expect(third.mixture).toMatchObject({ material: OWN_SILICONE.id, name: "Blue silicone", potMin: 45 });
    const [base100, catalyst] = third.card;
    expect(catalyst.g / base100.g).toBeCloseTo(0.03, 2);
    // It is denser: the same space of it weighs more.
    expect(taken.coatsG[2] / taken.coatsG[1]).toBeCloseTo(1.3 / 1.1, 6);
  });
});
