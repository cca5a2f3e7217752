import { mkdir, writeFile } from "node:fs/promises";
import { join } from "node:path";
import { linesAsData, writeDxf } from "../../core/export/lines.ts";
import { planGlb } from "../../core/export/planGlb.ts";
import { sheetDxf, sheetSvg } from "../../core/export/sheets.ts";
import { writeStl } from "../../core/export/stl.ts";
import type { PlanResult } from "../../core/plan/engine.ts";
import type { PlanWalls } from "../../core/plan/wallPatterns.ts";
import { sheetOf } from "../../core/walls/sheet.ts";

/** Writes the plan's files into a folder, made if it is not there. */
export async function exportPlan(
  result: PlanResult,
  { patterns }: PlanWalls,
  pieceName: string,
  directory: string,
): Promise<void> {
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
  const walls = join(directory, "walls");
  await mkdir(walls, { recursive: true });
  for (const pattern of patterns) {
    const sheet = sheetOf(pattern, pieceName);
    await writeFile(join(walls, `wall-${pattern.number}.svg`), sheetSvg(sheet));
    await writeFile(join(walls, `wall-${pattern.number}.dxf`), sheetDxf(sheet));
  }
}
