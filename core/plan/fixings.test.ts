import { beforeAll, describe, expect, it } from "vitest";
import { chosen } from "../flange/settings.ts";
import { plainContext as ctx } from "../job/context.ts";
import { ALONE } from "../job/team.ts";
import { shellDensities, shellSystems } from "../shell/index.ts";
import { boltLengthMm, type Fixings, insertBoltMm } from "../takeoff/fixings.ts";
import { TYPICAL_RATES } from "../takeoff/rates.ts";
import { moved, sphere } from "../testing/shapes.ts";
import { newPlan, type PlanDocument } from "./document/document.ts";
import { PlanEngine } from "./engine.ts";
import { fixingsOf } from "./fixings.ts";
import { bundleOf, type PlanBundle } from "./results/bundle.ts";
import { figuresOf } from "./results/figures.ts";

const document: PlanDocument = {
  ...newPlan(),
  parting: {
    ...newPlan().parting,
    pulls: [
      [1, 0, 0],
      [-1, 0, 0],
    ],
  },
};
let bundle: PlanBundle;
beforeAll(async () => {
  const ball = moved(sphere(200, 48), 0, 0, 180);
  const result = new PlanEngine(ball).run(document, TYPICAL_RATES, 7, ctx);
  bundle = await bundleOf(result, { readMs: 0, planMs: 0, totalMs: 0 }, ALONE);
});

const ids = () => bundle.lines.map((_, k) => `line-${k + 1}`);
const bought = (plan: PlanDocument, material: string) =>
  figuresOf(bundle.figures, plan, TYPICAL_RATES, undefined, fixingsOf(bundle, plan, ids())).takeoff.materials.find(
    (line) => line.material === material,
  );

describe("bolts and keys in the buying list", () => {
  it("are as many as stand on walls and jacket", () => {
    const { bolts, jacketKeys } = fixingsOf(bundle, document, ids());
    // Round a ball of 208 mm, one about every 110 mm on the middle of a flange.
    expect(bolts).toBeGreaterThan(9);
    expect(bolts).toBeLessThan(16);
    // On either half those places alone leave free that face its pull nearly straight.
    expect(jacketKeys).toBeGreaterThanOrEqual(2);
    expect(bought(document, "bolts")?.quantity).toBe(bolts);
  });

  it("have an insert each where they hold in those, and are as short as that asks for", () => {
    const { shell } = document;
    const flanges = { ...shell.flanges, bolts: { ...shell.flanges.bolts, hold: "inserts" as const } };
    const laidIn = { ...document, shell: { ...shell, flanges } };
    const { bolts } = fixingsOf(bundle, laidIn, ids());
    expect(bought(laidIn, "inserts")?.quantity).toBe(bolts);
    expect(bought(document, "inserts")).toBeUndefined();
    // Flanges of 25 mm: through one of them, a washer and no more than the insert of 12 mm in the other.
    expect(insertBoltMm(25, 6)).toBe(35);
    expect(insertBoltMm(25, 6)).toBeLessThan(boltLengthMm(25, 6));
  });

  it("leave out the walls that are strapped, and keys where none are wanted", () => {
    const { shell } = document;
    const flanges = ids().reduce((held, id) => chosen(held, id, { joint: "straps" }), shell.flanges);
    const jacketKeys = { ...shell.jacketKeys, kind: "none" as const };
    const without = { ...document, shell: { ...shell, flanges, jacketKeys } };
    const { bolts, jacketKeys: keys, strapsMm = [] } = fixingsOf(bundle, without, ids());
    expect([bolts, keys]).toEqual([0, 0]);
    // Round the ball, its jacket, its shell and flanges, with a buckle.
    expect(bought(without, "straps")?.quantity).toBe(strapsMm.length);
    expect(strapsMm.length).toBeGreaterThanOrEqual(2);
    for (const mm of strapsMm) {
      expect(mm).toBeGreaterThan(1000);
      expect(mm).toBeLessThan(2 * Math.PI * 260 + 400);
    }
    expect(bought(document, "straps")).toBeUndefined();
    expect(bought(without, "bolts")).toBeUndefined();
    const more =
      (bought(document, "tin-brushable-low")?.quantity ?? 0) - (bought(without, "tin-brushable-low")?.quantity ?? 0);
    // A button of 12 and 6.4 mm, 8 mm high, is 2.2 cm3: some 2.7 g with its waste.
    const { jacketKeys: count } = fixingsOf(bundle, document, ids());
    expect((1000 * more) / count).toBeGreaterThan(2.3);
    expect((1000 * more) / count).toBeLessThan(2.9);
  });

  it("are joined by the sections as solids: what they weigh and take is theirs, for every shell", () => {
    for (const { id } of shellSystems) {
      const plan = { ...document, shell: { ...document.shell, system: id } };
      const counted = fixingsOf(bundle, plan, ids());
      const laidMm3 = [6_000_000, 4_000_000];
      const of = (fixings: Fixings) => figuresOf(bundle.figures, plan, TYPICAL_RATES, undefined, fixings).takeoff;
      const [estimated, built] = [of(counted), of({ ...counted, laidMm3 })];
      const { dryGPerCm3 } = shellDensities(plan.shell);
      built.sectionMassesG.forEach((massG, k) => {
        const laidG = massG - built.sectionsLaid[k].coresG;
        expect(Math.abs(laidG / ((laidMm3[k] / 1000) * dryGPerCm3) - 1)).toBeLessThan(0.03);
      });
      // What is bought grows as the shell does.
      const kg = ({ materials }: typeof built) =>
        materials
          .filter(({ group, unit }) => group === "shell" && (unit === "kg" || unit === "pcs"))
          .reduce((sum, line) => sum + line.quantity, 0);
      const laidG = ({ shellG, sectionsLaid }: typeof built) =>
        sectionsLaid.reduce((sum, { coresG }) => sum - coresG, shellG);
      expect(kg(built) / kg(estimated)).toBeCloseTo(laidG(built) / laidG(estimated), 1);
      // Figures of another plan's solids are left alone.
      expect(of({ ...counted, laidMm3: [1] }).sectionMassesG).toEqual(estimated.sectionMassesG);
    }
  });

  it("are long enough for two flanges, washers and nut, and no longer than the next length sold", () => {
    expect(boltLengthMm(18, 6)).toBe(50);
    expect(boltLengthMm(10, 6)).toBe(35);
    for (const flangeMm of [6, 9, 14, 22]) {
      const spareMm = boltLengthMm(flangeMm, 8) - (2 * flangeMm + 2 * 1.6 + 0.8 * 8);
      expect(spareMm).toBeGreaterThanOrEqual(3);
      expect(spareMm).toBeLessThan(8);
    }
  });
});
