import { mkdir, writeFile } from "node:fs/promises";
import { join } from "node:path";
import { linesAsData, writeDxf } from "../../core/export/lines.ts";
import { planGlb } from "../../core/export/planGlb.ts";
import { writeStl } from "../../core/export/stl.ts";
import type { PlanResult } from "../../core/plan/engine.ts";

/** Writes the plan's files into a folder, made if it is not there. */
export async function exportPlan(result: PlanResult, directory: string): Promise<void> {
  await mkdir(directory, { recursive: true });
  const { jacket, parting } = result;
  await writeFile(join(directory, "jacket.stl"), writeStl(jacket.mesh));
  await writeFile(join(directory, "jacket-filled.stl"), writeStl(parting.filled));
  for (const section of parting.sections) {
    await writeFile(join(directory, `section-${section.number}.stl`), writeStl(section.skin));
  }
  await writeFile(join(directory, "plan.glb"), await planGlb(result, result.piece.mesh));
  await writeFile(join(directory, "parting.json"), JSON.stringify(linesAsData(parting.lines)));
  await writeFile(join(directory, "parting.dxf"), writeDxf(parting.lines));
}
