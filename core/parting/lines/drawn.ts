/** The lines of a suggestion drawn on the jacket itself: its labels evened out, and kept to where both neighbours are free. */
import type { TriangleMesh } from "../../mesh/mesh.ts";
import type { Direction } from "../../space/directions.ts";
import { columnFrame, visitColumns } from "../../survey/columns.ts";
import { sectionPotentials } from "./sections.ts";

/**
 * @param label section of each vertex
 * @param clear 1 at the vertices in a zone to keep clear, null where there is none
 * @param stepMm typical edge of the mesh
 * @returns potentials[section][vertex]
 */
export function drawnPotentials(
  mesh: TriangleMesh,
  label: Uint8Array,
  clear: Uint8Array | null,
  pulls: readonly Direction[],
  stepMm: number,
  boardMm: number | null,
): Float32Array[] {
  const locked = pulls.map((pull) => lockedVertices(mesh, pull, stepMm, boardMm));
  return sectionPotentials(mesh, label, pulls, locked, clear, stepMm);
}

/** 1 at the vertices at either end of a column deeper than the mesh's own roughness. */
function lockedVertices(mesh: TriangleMesh, pull: Direction, stepMm: number, boardMm: number | null): Uint8Array {
  const out = new Uint8Array(mesh.positions.length / 3);
  const t = mesh.triangles;
  visitColumns(mesh, columnFrame(mesh, pull, stepMm), boardMm, (_line, from, to, first, last) => {
    if (to - from < stepMm) return;
    for (let c = 0; c < 3; c++) {
      if (first >= 0) out[t[3 * first + c]] = 1;
      out[t[3 * last + c]] = 1;
    }
  });
  return out;
}
