/**
 * Potentials of sections whose lines are given: the signed distance of every vertex from its section's own border, up
 * to a reach. Two sections' potentials tie on the line between them, so that the cut runs where the line was laid.
 */
import type { TriangleMesh } from "../../mesh/mesh.ts";
import { vertexNeighbours } from "../../mesh/vertexNeighbours.ts";
import { labelsBy, type SidedLine } from "../lines/network.ts";
import { distanceTo, SegmentIndex, shareNearest } from "../lines/segments.ts";

/** How far beside a line its side is told, in edges of the mesh. */
export const SIDE_REACH = 2.5;

/**
 * @param network lines on the mesh
 * @param sections how many there are
 * @param edgeMm typical edge of the mesh
 * @returns potentials[section][vertex], mm, at most the reach either way
 */
export function potentialsOf(
  mesh: TriangleMesh,
  network: readonly SidedLine[],
  sections: number,
  edgeMm: number,
): Float32Array[] {
  const reachMm = SIDE_REACH * edgeMm;
  const vertices = mesh.positions.length / 3;
  const segments = new SegmentIndex(network, reachMm);
  const label = labelsBy(mesh, segments, new Uint8Array(vertices), vertexNeighbours(mesh));
  const fields = Array.from({ length: sections }, (_, s) => {
    const field = new Float32Array(vertices).fill(-reachMm);
    for (let v = 0; v < vertices; v++) if (label[v] === s) field[v] = reachMm;
    return field;
  });
  const p = mesh.positions;
  const away = new Float64Array(sections);
  for (let v = 0; v < vertices; v++) {
    const [x, y, z] = [p[3 * v], p[3 * v + 1], p[3 * v + 2]];
    const about = segments.about(x, y, z);
    if (about.length === 0) continue;
    away.fill(reachMm);
    for (const segment of about) {
      const mm = distanceTo(segment, shareNearest(segment, x, y, z), x, y, z);
      const { left, right } = segment.line;
      if (mm < away[left]) away[left] = mm;
      if (mm < away[right]) away[right] = mm;
    }
    for (let s = 0; s < sections; s++) fields[s][v] = label[v] === s ? away[s] : -away[s];
  }
  return fields;
}
