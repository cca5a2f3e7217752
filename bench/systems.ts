/** Every shell system on demo pieces: what a shell is thought to weigh against what its sections as solids do. */
import type { JobContext } from "../core/job/context.ts";
import { repairScan } from "../core/mesh/repair.ts";
import { builtSections } from "../core/plan/builtSections.ts";
import { builtWalls } from "../core/plan/builtWalls.ts";
import { newPlan } from "../core/plan/document/document.ts";
import { PlanEngine } from "../core/plan/engine.ts";
import { geometryReport } from "../core/plan/results/report.ts";
import { shellSystems } from "../core/shell/index.ts";
import { TYPICAL_RATES } from "../core/takeoff/rates.ts";
import { takeoff } from "../core/takeoff/takeoff.ts";
import { makeLamplighter } from "../demo/pieces/lamplighter.ts";
import { makeRelief } from "../demo/pieces/relief.ts";
import { makeWalrus } from "../demo/pieces/walrus.ts";
import type { PartingRow } from "./parting.ts";

const STEP_MM = 8;
const PIECES = { lamplighter: makeLamplighter, walrus: makeWalrus, relief: makeRelief };

export async function benchSystems(ctx: JobContext, report: (row: PartingRow) => void): Promise<void> {
  for (const [name, make] of Object.entries(PIECES)) {
    const engine = new PlanEngine(repairScan(make(), ctx).mesh);
    for (const { id } of shellSystems) {
      const base = newPlan();
      const document = { ...base, shell: { ...base.shell, system: id } };
      const result = engine.run(document, TYPICAL_RATES, STEP_MM, ctx);
      const geometry = geometryReport(result, { readMs: 0, planMs: 0, totalMs: 0 });
      const { shellG } = takeoff(document, geometry.jacket, geometry, TYPICAL_RATES);
      const started = ctx.nowMs();
      const solids = await builtSections(result, document, builtWalls(result.walls, document), ctx);
      const ms = ctx.nowMs() - started;
      const massG = solids.reduce((sum, { massDryG }) => sum + massDryG, 0);
      const off = `${(massG / 1000).toFixed(1)} kg; before, ${((100 * shellG) / massG).toFixed(1)} % of that`;
      report({ stage: `solids: ${name}, ${id}`, size: off, ms, ratio: null });
    }
  }
}
