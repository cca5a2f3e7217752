/** The lines of a suggestion drawn on the jacket itself: its labels evened out, and kept to where both neighbours are free. */
import type { TriangleMesh } from "../mesh/mesh.ts";
import { columnFrame, visitColumns } from "../survey/columns.ts";
import type { Direction } from "../survey/directions.ts";
import { sectionPotentials } from "./sections.ts";

/**
 * @param labelAt the section of a place on the mesh, mm
 * @param stepMm typical edge of the mesh
 * @returns potentials[section][vertex]
 */
export function drawnPotentials(
  mesh: TriangleMesh,
  labelAt: (x: number, y: number, z: number) => number,
  pulls: readonly Direction[],
  stepMm: number,
  boardMm: number | null,
): Float32Array[] {
  const p = mesh.positions;
  const label = Uint8Array.from({ length: p.length / 3 }, (_, v) => labelAt(p[3 * v], p[3 * v + 1], p[3 * v + 2]));
  const locked = pulls.map((pull) => lockedVertices(mesh, pull, stepMm, boardMm));
  return sectionPotentials(mesh, label, pulls, locked, stepMm);
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
