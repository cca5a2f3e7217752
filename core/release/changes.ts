/**
 * What of the cells has changed from one measure of locks to the next, so that only lines through it are measured anew.
 * A line's stretches depend on the jacket along it and on whose cell its points are in. Near the jacket both can change
 * only about vertices that came, went or have another potential; far from it they are read off nodes, which are compared
 * one by one.
 */
import { nodePoint } from "../field/grid.ts";
import { NO_CLASS } from "../field/nearest.ts";
import type { ColumnFrame } from "../survey/columns.ts";
import { type Cells, FAR_MM, SamePlaces } from "./cells.ts";

/** A walk over the mesh to the nearest triangle crosses no more than this many steps of the nodes. */
const WALK_STEPS = 4;

/** @returns nodes of the cells' grid with a change about them, or null where two measures cannot be compared */
export function changedNodes(before: Cells, after: Cells): Uint32Array | null {
  const [a, b] = [before.data, after.data];
  const [old, grid] = [a.nearest.grid, b.nearest.grid];
  const alike =
    a.potentials.length === b.potentials.length &&
    old.stepMm === grid.stepMm &&
    old.originMm.every((x, k) => x === grid.originMm[k]) &&
    old.bricks.every((count, k) => count === grid.bricks[k]);
  if (!alike) return null;
  const marked = new Uint8Array(b.nearest.triangle.length);
  markVertices(before, after, marked);
  markVertices(after, before, marked);
  const found: number[] = [];
  for (let n = 0; n < marked.length; n++) {
    const same =
      marked[n] === 0 &&
      a.classes.node[n] === b.classes.node[n] &&
      a.nearest.nodeMm[n] === b.nearest.nodeMm[n] &&
      // Beside a line the node's class does not tell the section.
      (b.classes.node[n] !== NO_CLASS || b.nearest.nodeMm[n] <= FAR_MM || before.atNode(n) === after.atNode(n));
    if (!same) found.push(n);
  }
  return Uint32Array.from(found);
}

/** Marks the nodes near vertices of one jacket that are not on the other, or have another potential there. */
function markVertices(from: Cells, to: Cells, marked: Uint8Array): void {
  const { positions: p } = from.data.nearest.mesh;
  const { grid } = from.data.nearest;
  const same = from.data.nearest.mesh === to.data.nearest.mesh ? null : new SamePlaces(to.data.nearest.mesh);
  const [nx, ny, nz] = grid.bricks.map((count) => 8 * count);
  const seen = new Uint8Array(nx * ny * nz);
  const reach = Math.ceil(FAR_MM / grid.stepMm) + WALK_STEPS;
  const cubes: number[] = [];
  for (let v = 0; v < p.length / 3; v++) {
    const other = same ? same.at(p[3 * v], p[3 * v + 1], p[3 * v + 2]) : v;
    if (other >= 0 && samePotentials(from, v, to, other)) continue;
    const [i, j, k] = [0, 1, 2].map((a) => Math.round((p[3 * v + a] - grid.originMm[a]) / grid.stepMm));
    const cube = i + nx * (j + ny * k);
    if (seen[cube]) continue;
    seen[cube] = 1;
    cubes.push(i, j, k);
  }
  for (let c = 0; c < cubes.length; c += 3) {
    const [low, high] = [
      [0, 1, 2].map((a) => Math.max(0, cubes[c + a] - reach)),
      [0, 1, 2].map((a) => Math.min([nx, ny, nz][a] - 1, cubes[c + a] + reach)),
    ];
    for (let k = low[2]; k <= high[2]; k++) {
      for (let j = low[1]; j <= high[1]; j++) {
        for (let i = low[0]; i <= high[0]; i++) {
          const slot = grid.slotOf[(i >> 3) + grid.bricks[0] * ((j >> 3) + grid.bricks[1] * (k >> 3))];
          if (slot >= 0) marked[slot * 512 + (i & 7) + 8 * (j & 7) + 64 * (k & 7)] = 1;
        }
      }
    }
  }
}

function samePotentials(from: Cells, v: number, to: Cells, other: number): boolean {
  const [a, b] = [from.data.potentials, to.data.potentials];
  for (let s = 0; s < a.length; s++) if (a[s][v] !== b[s][other]) return false;
  return true;
}

/** 1 at the lines of a frame that pass a point with one of the nodes about it. */
export function linesThrough(nodes: Uint32Array, cells: Cells, frame: ColumnFrame): Uint8Array {
  const { grid } = cells.data.nearest;
  const { u, v, bundle } = frame;
  const { countU, countV, spacingMm } = bundle;
  const middle = new Uint8Array(countU * countV);
  const point = new Float64Array(3);
  for (const node of nodes) {
    nodePoint(grid, node, point, 0);
    const a = (u[0] * point[0] + u[1] * point[1] + u[2] * point[2] - bundle.originU) / spacingMm;
    const b = (v[0] * point[0] + v[1] * point[1] + v[2] * point[2] - bundle.originV) / spacingMm;
    const i = Math.min(countU - 1, Math.max(0, Math.round(a)));
    const j = Math.min(countV - 1, Math.max(0, Math.round(b)));
    middle[i + countU * j] = 1;
  }
  const rings = Math.ceil((Math.sqrt(3) * grid.stepMm) / spacingMm) + 1;
  const rows = widened(middle, countU * countV, 1, countU, rings);
  return widened(rows, countU * countV, countU, countV, rings);
}

/** Every mark spread so many places along rows of `length` places, `stride` apart. */
function widened(marks: Uint8Array, total: number, stride: number, length: number, rings: number): Uint8Array {
  const out = new Uint8Array(total);
  const runs = total / length;
  for (let run = 0; run < runs; run++) {
    const start = stride === 1 ? run * length : run;
    let last = -Infinity;
    for (let k = 0; k < length; k++) {
      if (marks[start + stride * k]) last = k;
      if (k - last <= rings) out[start + stride * k] = 1;
    }
    last = Infinity;
    for (let k = length - 1; k >= 0; k--) {
      if (marks[start + stride * k]) last = k;
      if (last - k <= rings) out[start + stride * k] = 1;
    }
  }
  return out;
}
