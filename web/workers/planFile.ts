/** A plan written out for taking elsewhere, in open formats. */

import { linesAsData, writeDxf } from "../../core/export/lines.ts";
import { planGlb } from "../../core/export/planGlb.ts";
import { writeStl } from "../../core/export/stl.ts";
import type { PlanResult } from "../../core/plan/engine.ts";

export type PlanFile = "glb" | "dxf" | "json" | "stl";

export async function planFileOf(result: PlanResult, kind: PlanFile): Promise<Uint8Array | string> {
  const { parting } = result;
  if (kind === "dxf") return writeDxf(parting.lines);
  if (kind === "json") return JSON.stringify(linesAsData(parting.lines));
  if (kind === "stl") return writeStl(parting.filled);
  return planGlb(result);
}
