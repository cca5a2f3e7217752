/** What a shell is thought to weigh before its sections are worked out as solids, against those. */
import { describe, expect, it } from "vitest";
import { plainContext as ctx } from "../job/context.ts";
import { builtSections } from "../plan/builtSections.ts";
import { builtWalls } from "../plan/builtWalls.ts";
import { newPlan } from "../plan/document/document.ts";
import { PlanEngine } from "../plan/engine.ts";
import { geometryReport } from "../plan/results/report.ts";
import { shellSystems } from "../shell/index.ts";
import type { Direction } from "../space/directions.ts";
import { capsule, moved } from "../testing/shapes.ts";
import { TYPICAL_RATES } from "./rates.ts";
import { takeoff } from "./takeoff.ts";

const STEP_MM = 7;
const HALVES: Direction[] = [
  [1, 0, 0],
  [-1, 0, 0],
];

describe("what a shell is thought to weigh", () => {
  const engine = new PlanEngine(moved(capsule(90, 220, 48), 0, 0, 180));

  it.each(shellSystems.map(({ id, name }) => [name, id] as const))(
    "is what its solids do, of %s, within 3 %",
    async (_, system) => {
      const base = newPlan();
      const parting = { ...base.parting, pulls: HALVES };
      const document = { ...base, parting, shell: { ...base.shell, system } };
      const result = engine.run(document, TYPICAL_RATES, STEP_MM, ctx);
      const report = geometryReport(result, { readMs: 0, planMs: 0, totalMs: 0 });
      const { shellG, sectionMassesG } = takeoff(document, report.jacket, report, TYPICAL_RATES);
      const solids = await builtSections(result, document, builtWalls(result.walls, document), ctx);
      const massG = solids.reduce((sum, { massDryG }) => sum + massDryG, 0);
      expect(Math.abs(shellG / massG - 1)).toBeLessThan(0.03);
      solids.forEach(({ massDryG, pieces }, k) => {
        expect(pieces).toBe(1);
        expect(Math.abs(sectionMassesG[k] / massDryG - 1)).toBeLessThan(0.06);
      });
    },
  );
});
