/**
 * The parting lines as a network on a mesh: every line knows the section on its left and on its right, seen from
 * outside. Labels of the vertices give a network, and a network that has been moved gives labels back.
 */
import type { NearestField } from "../../field/nearest.ts";
import { floodFrom, type NeighbourRows } from "../../mesh/flood.ts";
import { filledBy } from "../../mesh/lists.ts";
import type { TriangleMesh } from "../../mesh/mesh.ts";
import { vertexNormals } from "../../mesh/normals.ts";
import type { Neighbours } from "../graph/graph.ts";
import { cutSections, type PartingLine } from "./cut.ts";
import { SegmentIndex, type SidedLine, sideOf } from "./segments.ts";

export type { SidedLine } from "./segments.ts";

/** Rounds of averaging that take the mesh's own steps out of a line. */
const EVENING_ROUNDS = 6;

/** The lines between the labels of a mesh's vertices. */
export function networkOf(mesh: TriangleMesh, label: Uint8Array, near: Neighbours, nearest: NearestField): SidedLine[] {
  const sections = 1 + label.reduce((most, own) => Math.max(most, own), 0);
  const { lines } = cutSections(mesh, evened(label, sections, near));
  const { normals } = vertexNormals(mesh);
  return lines.map((line) => {
    const [left, right] = sidesOf(line, mesh, normals, label, nearest);
    return { points: Float64Array.from(line.points), closed: line.closed, left, right };
  });
}

/** Indicators of the labels, evened out a little. */
function evened(label: Uint8Array, sections: number, near: Neighbours): Float32Array[] {
  return Array.from({ length: sections }, (_, s) => {
    let field = filledBy(new Float32Array(label.length), (v) => (label[v] === s ? 1 : 0));
    for (let round = 0; round < EVENING_ROUNDS; round++) {
      const next = new Float32Array(field.length);
      for (let v = 0; v < field.length; v++) {
        let sum = 0;
        for (let k = near.start[v]; k < near.start[v + 1]; k++) sum += field[near.list[k]];
        next[v] = 0.5 * field[v] + (0.5 * sum) / Math.max(1, near.start[v + 1] - near.start[v]);
      }
      field = next;
    }
    return field;
  });
}

/** Which of a line's two sections lies on its left: by the vote of the vertices beside it. */
export function sidesOf(
  line: PartingLine,
  mesh: TriangleMesh,
  normals: Float32Array,
  label: Uint8Array,
  nearest: NearestField,
): readonly [number, number] {
  const [a, b] = line.sections;
  const { positions: p, triangles: t } = mesh;
  const middle = new Float64Array(3);
  let votes = 0;
  const q = line.points;
  const own: SidedLine = { points: Float64Array.from(q), closed: line.closed, left: a, right: b };
  for (let k = 0; k + 5 < q.length; k += 3) {
    const triangle = nearest.nearest(
      middle,
      (q[k] + q[k + 3]) / 2,
      (q[k + 1] + q[k + 4]) / 2,
      (q[k + 2] + q[k + 5]) / 2,
    );
    for (let c = 0; c < 3; c++) {
      const v = t[3 * triangle + c];
      if (label[v] !== a && label[v] !== b) continue;
      const side = sideOf({ line: own, from: k, to: k + 3, share: 0.5 }, normals, 3 * v, p, 3 * v);
      votes += label[v] === a ? Math.sign(side) : -Math.sign(side);
    }
  }
  return votes >= 0 ? [a, b] : [b, a];
}

/**
 * The section of every vertex by the lines about it: vertices beside a line take its side, the others that of the
 * vertices round them.
 * @param before labels kept where no line comes near
 * @param reachMm how far beside a line its side is told: more than an edge of the mesh
 */
export function labelsFrom(
  mesh: TriangleMesh,
  network: readonly SidedLine[],
  before: Uint8Array,
  near: NeighbourRows,
  reachMm: number,
): Uint8Array {
  return labelsBy(mesh, new SegmentIndex(network, reachMm), before, near);
}

/** The same by an index of the lines' segments. */
export function labelsBy(
  mesh: TriangleMesh,
  segments: SegmentIndex,
  before: Uint8Array,
  near: NeighbourRows,
): Uint8Array {
  const { normals } = vertexNormals(mesh);
  const p = mesh.positions;
  const label = before.slice();
  const told = new Uint8Array(label.length);
  for (let v = 0; v < label.length; v++) {
    const found = segments.nearest(p[3 * v], p[3 * v + 1], p[3 * v + 2]);
    if (!found) continue;
    const { line } = found;
    label[v] = sideOf(found, normals, 3 * v, p, 3 * v) >= 0 ? line.left : line.right;
    told[v] = 1;
  }
  floodFrom(told, near, (v, from) => {
    label[v] = label[from];
  });
  return label;
}

/** Length of a network, mm; each segment times the weight at its middle, where one is given. */
export function networkLengthMm(
  network: readonly SidedLine[],
  weightAt: (x: number, y: number, z: number) => number = () => 1,
): number {
  let sum = 0;
  for (const { points: p, closed } of network) {
    const count = p.length / 3;
    for (let k = 0; k + (closed ? 0 : 1) < count; k++) {
      const [a, b] = [3 * k, 3 * ((k + 1) % count)];
      const weight = weightAt((p[a] + p[b]) / 2, (p[a + 1] + p[b + 1]) / 2, (p[a + 2] + p[b + 2]) / 2);
      sum += weight * Math.hypot(p[b] - p[a], p[b + 1] - p[a + 1], p[b + 2] - p[a + 2]);
    }
  }
  return sum;
}
