import { mkdir, writeFile } from "node:fs/promises";
import { join } from "node:path";
import { linearRgb, SECTION_PIGMENTS } from "../../core/display/palette.ts";
import { type NamedPart, writeGlb } from "../../core/export/glb.ts";
import { linesAsData, writeDxf } from "../../core/export/lines.ts";
import { writeStl } from "../../core/export/stl.ts";
import type { PlanResult } from "../../core/plan/engine.ts";

/** Writes the plan's files into a folder, made if it is not there. */
export async function exportPlan(result: PlanResult, directory: string): Promise<void> {
  await mkdir(directory, { recursive: true });
  const { piece, jacket, sections } = result;
  const parts: NamedPart[] = [
    { name: "piece", mesh: piece.mesh, colour: [0.86, 0.83, 0.76, 1] },
    { name: "jacket", mesh: jacket.mesh, colour: [0.45, 0.6, 0.75, 0.35] },
    ...sections.sections.map((section): NamedPart => {
      const pigment = SECTION_PIGMENTS[(section.number - 1) % SECTION_PIGMENTS.length];
      return { name: `section-${section.number}`, mesh: section.skin, colour: [...linearRgb(pigment.css), 1] };
    }),
  ];
  await writeFile(join(directory, "jacket.stl"), writeStl(jacket.mesh));
  await writeFile(join(directory, "jacket-filled.stl"), writeStl(sections.filled));
  for (const section of sections.sections) {
    await writeFile(join(directory, `section-${section.number}.stl`), writeStl(section.skin));
  }
  await writeFile(join(directory, "plan.glb"), writeGlb(parts));
  await writeFile(join(directory, "parting.json"), JSON.stringify(linesAsData(sections.lines)));
  await writeFile(join(directory, "parting.dxf"), writeDxf(sections.lines));
}
