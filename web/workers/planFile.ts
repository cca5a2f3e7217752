/** A plan written out for taking elsewhere, in open formats. */

import { linearRgb, SECTION_PIGMENTS } from "../../core/display/palette.ts";
import { type NamedPart, writeGlb } from "../../core/export/glb.ts";
import { linesAsData, writeDxf } from "../../core/export/lines.ts";
import { writeStl } from "../../core/export/stl.ts";
import type { PlanResult } from "../../core/plan/engine.ts";

export type PlanFile = "glb" | "dxf" | "json" | "stl";

export function planFileOf({ jacket, sections }: PlanResult, kind: PlanFile): Uint8Array | string {
  if (kind === "dxf") return writeDxf(sections.lines);
  if (kind === "json") return JSON.stringify(linesAsData(sections.lines));
  if (kind === "stl") return writeStl(sections.filled);
  const parts = sections.sections.map(
    (section): NamedPart => ({
      name: `section-${section.number}`,
      mesh: section.skin,
      colour: [...linearRgb(SECTION_PIGMENTS[(section.number - 1) % SECTION_PIGMENTS.length].css), 1],
    }),
  );
  return writeGlb([{ name: "jacket", mesh: jacket.mesh, colour: [0.45, 0.6, 0.75, 0.35] }, ...parts]);
}
