import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { EMPTY_STORE, type Store } from "../materials/stock.ts";
import { newPlan } from "../plan/document/document.ts";
import { shellSystems } from "../shell/index.ts";
import { buyingMinor, buyingRows } from "./buying.ts";
import { compareJackets, compareSilicones, pouredBlock } from "./compareJackets.ts";
import { compareShells, SHELL_FIGURES } from "./compareShells.ts";
import { type Rates, TYPICAL_RATES } from "./rates.ts";
import { takeoff } from "./takeoff.ts";
import type { JacketTotals, PartingTotals } from "./totals.ts";

const document = newPlan();
const jacket: JacketTotals = {
  ...{ siliconeG: 32_000, outerAreaMm2: 3.4e6, stopsMm3: 0, footClayMm3: 0 },
  coats: [{ massG: 3000 }, { massG: 10_000 }, { massG: 10_000 }, { massG: 9000 }],
};
const parting: PartingTotals = {
  sections: [
    { number: 1, areaMm2: 1.9e6, lineMm: 6000 },
    { number: 2, areaMm2: 1.5e6, lineMm: 6000 },
  ],
  ...{ partingLengthMm: 6000, fillMm3: 400_000, clayMm3: 0, plugMm3: 0 },
};
const TODAY = "2026-11-30";
const { materials } = takeoff(document, jacket, parting, TYPICAL_RATES);
const rowOf = (store: Store, material: string) => {
  const row = buyingRows(materials, store, TODAY).find((each) => each.material === material);
  if (!row) throw new Error(`No ${material} is needed.`);
  return row;
};

describe("what is bought for a plan", () => {
  it("is its need less what is in stock, in packs that cover the rest; all uses of a material together", () => {
    const need = rowOf(EMPTY_STORE, "tin-brushable-low").need;
    const store: Store = {
      ...EMPTY_STORE,
      lots: [
        { id: "a", material: "tin-brushable-low", amount: 10, openedOn: null, expiresOn: "2027-05-01", place: "" },
        { id: "b", material: "tin-brushable-low", amount: 99, openedOn: null, expiresOn: "2026-05-01", place: "" },
        { id: "c", material: "tin-brushable-low", amount: 0, openedOn: null, expiresOn: null, place: "" },
      ],
    };
    const row = rowOf(store, "tin-brushable-low");
    expect(row.taken.map(({ lot }) => lot.id)).toEqual(["a"]);
    expect(row.missing).toBeCloseTo(need - 10, 9);
    expect(row.bought?.amount).toBeGreaterThanOrEqual(row.missing);
    expect(row.leftOver).toBeCloseTo((row.bought?.amount ?? 0) - row.missing, 9);
    expect(rowOf(EMPTY_STORE, "release-agent").lines.length).toBeGreaterThanOrEqual(1);
    expect(rowOf(EMPTY_STORE, "mixing-water").missing).toBe(0);
  });

  it("goes by the workshop's own packs and prices, down to nothing", () => {
    const packs = [{ amount: 25, priceMinor: 0 }];
    const shipped = packs;
    const store = { ...EMPTY_STORE, edits: { "casting-plaster": { packs, supplier: "the yard", shipped } } };
    const row = rowOf(store, "casting-plaster");
    expect(row.supplier).toBe("the yard");
    expect(row.bought?.priceMinor).toBe(0);
    expect(row.bought?.amount).toBe(25 * Math.ceil(row.need / 25));
  });
});

describe("money", () => {
  const cost = (change: Partial<typeof document>, packs: Rates["packs"] = {}) =>
    takeoff({ ...document, ...change }, jacket, parting, { ...TYPICAL_RATES, packs });
  const all = (of: readonly number[]) => of.reduce((sum, value) => sum + value, 0);

  it("is what every material costs by the unit, and the hours; part by part it is the same", () => {
    for (const { id } of shellSystems) {
      const { costMinor, costParts, materials, units, handsMin, finishMin } = cost({
        shell: { ...document.shell, system: id },
      });
      const bought = all(materials.map(({ material, quantity }) => quantity * units[material]));
      // What is bought in whole packs is no less, and what it leaves over is the difference.
      const rows = buyingRows(materials, EMPTY_STORE, TODAY).filter(({ material }) => material !== "mixing-water");
      const left = all(rows.map(({ material, leftOver }) => leftOver * units[material]));
      expect(buyingMinor(rows)).toBeCloseTo(bought + left, 3);
      const hands = ((handsMin + finishMin) / 60) * TYPICAL_RATES.hourMinor;
      expect(Math.abs(costMinor - bought - hands)).toBeLessThan(1);
      expect(all(costParts.map(({ materialsMinor }) => materialsMinor))).toBeCloseTo(bought, 3);
      expect(all(costParts.map(({ handsMinor }) => handsMinor))).toBeCloseTo(hands, 3);
    }
  });

  it("goes by what the workshop pays, where it has said so", () => {
    const usual = cost({});
    const jute = usual.materials.find(({ material }) => material === "jute-scrim");
    const dearer = cost({}, { "jute-scrim": [{ amount: 1, priceMinor: 5000 }] });
    expect(dearer.units["jute-scrim"]).toBe(5000);
    expect(dearer.costMinor - usual.costMinor).toBeCloseTo(
      (5000 - usual.units["jute-scrim"]) * (jute?.quantity ?? 0),
      -1,
    );
    const part = ({ costParts }: typeof usual, kind: string) =>
      all(costParts.filter((each) => each.kind === kind).map(({ materialsMinor }) => materialsMinor));
    expect(part(dearer, "section")).toBeGreaterThan(part(usual, "section"));
    expect(part(dearer, "coat")).toBeCloseTo(part(usual, "coat"), 6);
    expect(cost({}, { "jute-scrim": [] }).units["jute-scrim"]).toBe(0);
  });

  it("takes a unit at what it costs in the packs that would be bought, not in one that nobody needs", () => {
    const { units } = cost({});
    const plaster = rowOf(EMPTY_STORE, "casting-plaster");
    expect(units["casting-plaster"]).toBe((plaster.bought?.priceMinor ?? 0) / (plaster.bought?.amount ?? 1));
    expect(units["casting-plaster"]).toBeGreaterThan(60_000 / 1000);
    expect(units["mixing-water"]).toBe(0);
  });

  it("goes into the section that is laid up dearer, and the coat that is of something dearer", () => {
    const sections = [{ section: "section-9", system: "epoxy-cloth", figures: {}, order: [] }];
    const known = { ...parting, sections: parting.sections.map((each, k) => ({ ...each, id: `section-${8 + k}` })) };
    const of = (shell: typeof document.shell) =>
      takeoff({ ...document, shell }, jacket, known, TYPICAL_RATES).costParts.filter(({ kind }) => kind === "section");
    const [usual, capped] = [of(document.shell), of({ ...document.shell, sections })];
    // Less plaster is bought in smaller packs, which are a little dearer.
    expect(Math.abs(capped[0].materialsMinor / usual[0].materialsMinor - 1)).toBeLessThan(0.15);
    expect(capped[1].materialsMinor).toBeGreaterThan(3 * usual[1].materialsMinor);
    const coats = document.jacket.coats.map((coat, k) => (k === 1 ? { ...coat, silicone: "tin-soft" as const } : coat));
    const soft = cost({ jacket: { ...document.jacket, coats } });
    expect(soft.materials.filter(({ material }) => material.startsWith("tin-"))).toHaveLength(2);
    expect(all(soft.coatsG) + soft.fillG).toBeCloseTo(soft.siliconeG, 6);
  });
});

describe("shell systems side by side", () => {
  const totals = { jacket, parting, rates: TYPICAL_RATES, today: TODAY };

  it("all give a finished shell on the same plan, the plan's own as the plan has it", () => {
    const all = compareShells(document, totals);
    expect(all.map(({ id }) => id)).toEqual(shellSystems.map(({ id }) => id));
    for (const shell of all) {
      for (const value of Object.values(shell).filter((each) => typeof each === "number")) {
        expect(Number.isFinite(value)).toBe(true);
        expect(value).toBeGreaterThan(0);
      }
      expect(shell.totalG).toBeGreaterThanOrEqual(shell.heaviestG);
    }
    const own = all.find(({ id }) => id === document.shell.system);
    const taken = takeoff(document, jacket, parting, TYPICAL_RATES);
    expect(own?.totalG).toBeCloseTo(taken.shellG, 6);
    expect(own?.materialsMinor).toBe(buyingMinor(buyingRows(taken.materials, EMPTY_STORE, TODAY)));
    // Gypsum is by far the heaviest, bandage the weakest.
    const heaviest = all.reduce((most, shell) => (shell.totalG > most.totalG ? shell : most));
    expect(heaviest.id).toMatch(/^gypsum/);
    expect(Math.min(...all.map(({ spanMm }) => spanMm))).toBe(all.find(({ id }) => id === "plaster-bandage")?.spanMm);
  });

  it("are in line with what the trade lays: thickness and weight of a square metre", () => {
    const of = (id: string) => compareShells(document, totals).find((shell) => shell.id === id);
    const within = (value: number | undefined, low: number, high: number) => {
      expect(value).toBeGreaterThanOrEqual(low);
      expect(value).toBeLessThanOrEqual(high);
    };
    within(of("gypsum-jute")?.thicknessMm, 15, 25);
    within(of("gypsum-glass")?.thicknessMm, 12, 25);
    within(of("plaster-bandage")?.thicknessMm, 3, 8);
    within(of("polyester-mat")?.thicknessMm, 3, 6);
    within(of("epoxy-cloth")?.thicknessMm, 2, 4);
    within(of("brush-polyurethane")?.thicknessMm, 6, 10);
    within(of("fibre-paste")?.thicknessMm, 6, 8);
  });

  it("and silicones, with what a poured block would take", () => {
    const all = compareSilicones(document, totals);
    const [tin, , , , , platinum] = all;
    expect(platinum.massG / tin.massG).toBeCloseTo(1.14 / 1.1, 6);
    expect(platinum.waitMin).toBeLessThan(tin.waitMin);
    const { massG, working } = pouredBlock([400, 400, 900], 60e6, 1.1);
    expect(massG / 1000).toBeCloseTo(((450 * 450 * 925 - 60e6) / 1e6) * 1.1, 6);
    const [, box, piece, density] = working.inputs.map(({ value }) => value);
    expect((box - piece) * density * 1000).toBeCloseTo(massG, 3);
  });

  it("open to figures that come to what is shown, whatever the shell", () => {
    for (const shell of compareShells(document, totals)) {
      const workings = shell.workings();
      expect(Object.keys(workings).sort()).toEqual([...SHELL_FIGURES].sort());
      const values = (key: keyof typeof workings) => workings[key].inputs.map(({ value }) => value);
      const all = (key: keyof typeof workings) => values(key).reduce((sum, value) => sum + value, 0);
      expect(all("thickness")).toBeCloseTo(shell.thicknessMm, 9);
      expect(1000 * all("total")).toBeCloseTo(shell.totalG, 6);
      // An area at so many kilograms, as its unit says to four digits.
      const heaviestKg = workings.heaviest.inputs.reduce(
        (sum, { value, unit }) => sum + value * Number(/at ([\d.]+) kg/.exec(unit)?.[1]),
        0,
      );
      expect((1000 * heaviestKg) / shell.heaviestG).toBeCloseTo(1, 3);
      expect(60 * all("ready")).toBeCloseTo(shell.handsMin, 6);
      expect(100 * all("materials")).toBeCloseTo(shell.materialsMinor, 4);
      const [hands, finishing, hour] = values("wages");
      expect(Math.abs((hands + finishing) * hour * 100 - shell.handsMinor)).toBeLessThanOrEqual(0.5);
      const [t, density, bending, modulus] = values("spans");
      const q = 3 * density * 9.81 * t + 1000;
      const byBending = Math.sqrt((4 * t ** 2 * bending * 1e6) / (3 * q));
      const bySag = Math.cbrt((32 * modulus * 1e6 * t ** 3) / (5 * 50 * q));
      expect(Math.min(byBending, bySag)).toBeCloseTo(shell.spanMm, 6);
    }
  });

  it("silicones and jackets open, too", () => {
    const at28 = { ...document, mixing: { ...document.mixing, temperatureC: 28 } };
    for (const silicone of compareSilicones(at28, totals)) {
      const { mass, pot, wait, shrink, price } = silicone.workings();
      expect(shrink.inputs[1].value).toBeCloseTo(10 * silicone.shrinkPercent, 9);
      const all = ({ inputs }: typeof mass) => inputs.reduce((sum, { value }) => sum + value, 0);
      expect(1000 * all(mass)).toBeCloseTo(silicone.massG, 6);
      expect(pot.inputs[0].value * 2 ** -0.8).toBeCloseTo(silicone.potMin, 9);
      expect((wait.inputs[0].value + wait.inputs[1].value) * 2 ** -0.8).toBeCloseTo(silicone.waitMin, 9);
      expect(100 * all(price)).toBeCloseTo(silicone.priceMinor, 4);
    }
    const jackets = compareJackets(document, 32_000, [3e6, 3.4e6], 3.5, TYPICAL_RATES);
    for (const each of jackets) {
      const [own, t, whole, inside, outside] = each.workings().mass.inputs.map(({ value }) => value);
      const volume = (mm: number) => mm * (inside + ((outside - inside) * mm) / (2 * whole));
      expect((1000 * own * volume(t)) / volume(whole)).toBeCloseTo(each.siliconeG, 6);
      const [kg, perKg] = each.workings().price.inputs.map(({ value }) => value);
      expect(100 * kg * perKg).toBeCloseTo(each.priceMinor, 4);
    }
    expect(jackets.map(({ giveMm }) => giveMm)).toEqual([0.8, 1.2, 1.5, 1.5, 1.5]);
  });
});

describe("figures that nobody means", () => {
  const anyFigure = fc.oneof(fc.constantFrom(0, -5, 500, 1e9), fc.double({ min: 0, max: 100, noNaN: true }));

  it("are kept within what can be laid: every system still weighs, costs and is bought sensibly", () => {
    const made = fc.record({
      system: fc.constantFrom(...shellSystems),
      values: fc.array(anyFigure, { minLength: 10, maxLength: 10 }),
      temperatureC: fc.constantFrom(5, 12, 20, 40),
      priceMinor: fc.constantFrom(0, 1, 5000),
    });
    fc.assert(
      fc.property(made, ({ system, values, temperatureC, priceMinor }) => {
        const figures = Object.fromEntries(system.parameters.map(({ key }, k) => [key, values[k % values.length]]));
        const plan = {
          ...document,
          mixing: { ...document.mixing, temperatureC },
          shell: { ...document.shell, system: system.id, figures },
        };
        const taken = takeoff(plan, jacket, parting, {
          ...TYPICAL_RATES,
          packs: { "casting-plaster": [{ amount: 1, priceMinor }] },
        });
        expect(taken.thicknessMm).toBeGreaterThan(0);
        expect(Number.isFinite(taken.costMinor)).toBe(true);
        for (const massG of taken.sectionMassesG) expect(massG).toBeGreaterThan(0);
        for (const row of buyingRows(taken.materials, EMPTY_STORE, TODAY)) {
          expect(row.need).toBeGreaterThanOrEqual(0);
          if (row.bought) expect(row.bought.amount).toBeGreaterThanOrEqual(row.missing - 1e-6);
        }
      }),
      { numRuns: 150 },
    );
  });
});
