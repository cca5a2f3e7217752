/** The shell of a demo piece: what walls stand on, walls with patterns and fastenings, their PDF, and the solid sections. */
import { wallsPdf } from "../core/export/wallsPdf.ts";
import { chosen } from "../core/flange/settings.ts";
import type { JobContext } from "../core/job/context.ts";
import { repairScan } from "../core/mesh/repair.ts";
import { paperOf } from "../core/patterns/pages.ts";
import { builtSections } from "../core/plan/builtSections.ts";
import { builtWalls } from "../core/plan/builtWalls.ts";
import { newPlan } from "../core/plan/document/document.ts";
import { PlanEngine } from "../core/plan/engine.ts";
import { sectionsAsBuilt } from "../core/plan/sectionsAsBuilt.ts";
import { wallsStage } from "../core/plan/stages/walls.ts";
import { TYPICAL_RATES } from "../core/takeoff/rates.ts";
import { makeLamplighter } from "../demo/pieces/lamplighter.ts";
import type { PartingRow } from "./parting.ts";

const STEP_MM = 5;

export async function benchShell(ctx: JobContext, report: (row: PartingRow) => void): Promise<void> {
  const document = newPlan();
  const timed = async <T>(stage: string, size: string, work: () => T | Promise<T>): Promise<T> => {
    const started = performance.now();
    const value = await work();
    report({ stage, size, ms: performance.now() - started, ratio: null });
    return value;
  };
  const { mesh } = repairScan(makeLamplighter(), ctx);
  const result = new PlanEngine(mesh).run(document, TYPICAL_RATES, STEP_MM, ctx);
  const reads = { flangeMm: 25, shellMm: 20, flangesReachMm: 50, settled: true };
  const grounds = await timed("what walls stand on", `${Math.round(result.parting.partingLengthMm)} mm of line`, () =>
    wallsStage.make(reads, result as never, ctx),
  );
  const walls = await timed("walls, patterns, fastenings", `${grounds.length} walls`, () =>
    builtWalls(grounds, document),
  );
  const bolts = walls[0].fastenings.bolts.map(({ alongMm, offMm }, k) => ({
    alongMm: alongMm + (k === 1 ? 5 : 0),
    offMm,
  }));
  const moved = {
    ...document,
    shell: { ...document.shell, flanges: chosen(document.shell.flanges, "line", { bolts }) },
  };
  await timed("a bolt moved", `${bolts.length} bolts`, () => builtWalls(grounds, moved, ["line"]));
  await timed("patterns as PDF", "A4", () => wallsPdf(walls, "Bench", paperOf("a4")));
  const count = walls.reduce((sum, { fastenings }) => sum + fastenings.bolts.length + fastenings.dimples.length, 0);
  await timed("solid sections", `${count} bolts and keys`, () => builtSections(result, document, walls, ctx));
  await timed("solid sections that pass each other", `${count} bolts and keys`, () =>
    sectionsAsBuilt(result, document, walls, ctx),
  );
}
