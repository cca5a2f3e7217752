import { mkdir, writeFile } from "node:fs/promises";
import { join } from "node:path";
import { SECTION_PIGMENTS } from "../../core/display/palette.ts";
import { linesAsData, writeDxf } from "../../core/export/lines.ts";
import { sheetsPdf } from "../../core/export/pdf.ts";
import { planGlb, sectionsGlb } from "../../core/export/planGlb.ts";
import { sheetDxf, sheetSvg } from "../../core/export/sheets.ts";
import { writeStl } from "../../core/export/stl.ts";
import { write3mf } from "../../core/export/threemf.ts";
import { drawingsPdf, wallsPdf } from "../../core/export/wallsPdf.ts";
import { footprintDrawing } from "../../core/foot/footprint.ts";
import type { JacketKey } from "../../core/keys/jacketKeys.ts";
import { wayMark } from "../../core/keys/whichWay.ts";
import { meshBox } from "../../core/mesh/mesh.ts";
import { paperOf } from "../../core/patterns/pages.ts";
import { sheetOf } from "../../core/patterns/sheet.ts";
import { builtFootprint } from "../../core/plan/builtFoot.ts";
import { keysCsv } from "../../core/plan/builtKeys.ts";
import type { BuiltSection } from "../../core/plan/builtSections.ts";
import { type BuiltWall, drillMapCsv } from "../../core/plan/builtWalls.ts";
import type { PlanDocument } from "../../core/plan/document/document.ts";
import type { PlanResult } from "../../core/plan/engine.ts";
import type { PlanReport } from "../../core/plan/planReport.ts";
import type { PlanIds } from "../../core/plan/results/figures.ts";
import { sectionSheets } from "../../core/plan/sectionSheets.ts";

/** Patterns are printed on this where nothing else is asked for. */
const PAPER = "a4";

export interface PlanExport {
  readonly result: PlanResult;
  readonly document: PlanDocument;
  readonly walls: readonly BuiltWall[];
  readonly solids: readonly BuiltSection[];
  readonly keys: readonly JacketKey[];
  readonly report: PlanReport;
  readonly ids: PlanIds;
  /** Name of the sculpture. */
  readonly pieceName: string;
}

/** Writes the plan's files into a folder, made if it is not there. */
export async function exportPlan(plan: PlanExport, directory: string): Promise<void> {
  const { result, document, walls, solids, keys, pieceName } = plan;
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
  await writeFile(join(directory, "drill-maps.csv"), drillMapCsv(walls, document.shell.flanges.bolts));
  const box = meshBox(result.piece.mesh);
  const way = wayMark(result.ways, keys, box);
  await writeFile(join(directory, "keys.csv"), keysCsv(keys, box, way?.kind === "odd key" ? way.key : null));
  const folder = join(directory, "walls");
  await mkdir(folder, { recursive: true });
  const title = { pieceName, walls: walls.length };
  for (const { pattern, marks } of walls) {
    const sheet = sheetOf(pattern, title, marks);
    await writeFile(join(folder, `wall-${pattern.number}.svg`), sheetSvg(sheet));
    await writeFile(join(folder, `wall-${pattern.number}.dxf`), sheetDxf(sheet));
  }
  await exportSolids(solids, join(directory, "sections"));
  await exportSheets(plan, join(directory, "sections"));
  await exportFootprint(plan, join(directory, "board"));
  const { bytes } = await wallsPdf(walls, pieceName, paperOf(PAPER));
  await writeFile(join(folder, `walls-${PAPER}.pdf`), bytes);
}

/** What stands on the board, to lay under the work and to drill by. */
async function exportFootprint({ result, document, walls, pieceName }: PlanExport, folder: string): Promise<void> {
  const footprint = builtFootprint({ piece: result.piece.mesh, jacket: result.parting.filled }, document, walls);
  if (!footprint) return;
  const words = { piece: "piece", jacket: "jacket", rim: "rim", foot: "foot", pourHole: "pour hole" };
  const title = `${pieceName}: footprint on the board`;
  const shapes = walls.map(({ wall }) => wall);
  const drawing = footprintDrawing(footprint, shapes, 0, document.shell.flanges.bolts.diameterMm, { ...words, title });
  await mkdir(folder, { recursive: true });
  await writeFile(join(folder, "footprint.svg"), sheetSvg(drawing));
  await writeFile(join(folder, "footprint.dxf"), sheetDxf(drawing));
  const { bytes } = await drawingsPdf([{ drawing, name: title, areaMm2: 0 }], title, paperOf(PAPER));
  await writeFile(join(folder, `footprint-${PAPER}.pdf`), bytes);
}

async function exportSheets(
  { result, document, walls, solids, keys, pieceName, report, ids }: PlanExport,
  folder: string,
): Promise<void> {
  const drawings = sectionSheets({
    ...{ pieceName, document, report, walls, keys, solids, ids: ids.sections },
    massesG: report.sections.map(({ shellMassG }) => shellMassG),
    skins: result.parting.sections.map(({ skin }) => skin),
  });
  const bytes = await sheetsPdf(`${pieceName}: sections`, drawings, paperOf(PAPER));
  await writeFile(join(folder, `section-sheets-${PAPER}.pdf`), bytes);
}

async function exportSolids(solids: readonly BuiltSection[], folder: string): Promise<void> {
  await mkdir(folder, { recursive: true });
  const parts = solids.map(({ number, mesh }) => ({
    name: `section-${number}`,
    mesh,
    css: SECTION_PIGMENTS[(number - 1) % SECTION_PIGMENTS.length].css,
  }));
  for (const { name, mesh } of parts) await writeFile(join(folder, `${name}.stl`), writeStl(mesh));
  await writeFile(join(folder, "sections.3mf"), write3mf(parts));
  await writeFile(join(folder, "sections.glb"), await sectionsGlb(solids));
}
