/** The patch of a section that is parted off as a plug about a lock: in one piece, round, and without holes. */
import type { Neighbours } from "./graph.ts";
import { leaveHeaviest } from "./regions.ts";

/** A plug reaches so many edges of the mesh beyond the lock it takes. */
const PLUG_RINGS = 2;

export interface LabelledMesh {
  /** Section of each vertex; changed in place. */
  readonly label: Uint8Array;
  readonly near: Neighbours;
  readonly areasMm2: Float32Array;
  /** Typical edge. */
  readonly edgeMm: number;
}

/**
 * Labels the plug about locked vertices of a section.
 * @param locked vertices of the section that the lock is over
 * @param own the section
 * @param fresh the plug
 */
export function plugPatch(mesh: LabelledMesh, locked: readonly number[], own: number, fresh: number): void {
  const { label, near, areasMm2 } = mesh;
  for (const v of locked) label[v] = fresh;
  grow(label, near, fresh, own, PLUG_RINGS);
  // One plug at a time, where most is locked; what it would cut off of the section goes with it.
  const weights = new Float32Array(label.length);
  for (const v of locked) weights[v] = areasMm2[v];
  leaveHeaviest(label, near, weights, fresh, own);
  roundOff(mesh, fresh, own);
  leaveHeaviest(label, near, areasMm2, own, fresh);
}

/** Gives a label so many rings more of the vertices of another. */
function grow(label: Uint8Array, near: Neighbours, own: number, other: number, rings: number): void {
  for (let ring = 0; ring < rings; ring++) {
    const edge = [...label.keys()].filter((v) => label[v] === other && besides(label, near, v, own));
    for (const v of edge) label[v] = own;
  }
}

function besides(label: Uint8Array, near: Neighbours, v: number, wanted: number): boolean {
  for (let k = near.start[v]; k < near.start[v + 1]; k++) if (label[near.list[k]] === wanted) return true;
  return false;
}

/** Fills the bays of a region that are narrower than it is: it grows by its own radius and shrinks back (a closing). */
function roundOff({ label, near, areasMm2, edgeMm }: LabelledMesh, own: number, other: number): void {
  const areaMm2 = label.reduce((sum, s, v) => sum + (s === own ? areasMm2[v] : 0), 0);
  const rings = Math.round(Math.sqrt(areaMm2 / Math.PI) / edgeMm);
  const before = label.slice();
  grow(label, near, own, other, rings);
  for (let ring = 0; ring < rings; ring++) {
    const edge = [...label.keys()].filter((v) => label[v] === own && before[v] !== own && !within(label, near, v, own));
    for (const v of edge) label[v] = before[v];
  }
}

/** Are all about a vertex of its own label? */
function within(label: Uint8Array, near: Neighbours, v: number, own: number): boolean {
  for (let k = near.start[v]; k < near.start[v + 1]; k++) if (label[near.list[k]] !== own) return false;
  return true;
}
