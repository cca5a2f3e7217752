/**
 * What of the cells has changed from one measure of locks to the next, so that only lines through it are measured anew.
 * A line's stretches depend on the jacket along it and on whose cell its points are in. Near the jacket both can change
 * only about vertices that came, went or have another potential; far from it they are read off nodes, which are compared
 * one by one.
 */
import { BRICK, nodeAt, nodePoint } from "../field/grid.ts";
import { NO_CLASS } from "../field/nearest.ts";
import type { ColumnFrame } from "../survey/columns.ts";
import { type Cells, FAR_MM, SamePlaces } from "./cells.ts";

/**
 * A point's nearest triangle is found by a walk from that of its node, over triangles that are all nearer to it than that
 * one: what changed farther from the node than that and these steps was not looked at. Half a cell's diagonal from the
 * point to the node, twice for going there and back, as much again for vertices taken for nodes, and an edge.
 */
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
  const marked = nearChanges(before, after);
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

/** 1 at the nodes so near a changed vertex that the answer at a point about them may be another. */
function nearChanges(before: Cells, after: Cells): Uint8Array {
  const { grid, nodeMm } = after.data.nearest;
  const marked = new Uint8Array(nodeMm.length);
  const changed = [...changedVertices(before, after), ...changedVertices(after, before)];
  if (changed.length === 0) return marked;
  const slackMm = WALK_STEPS * grid.stepMm;
  const nodes = grid.bricks.map((count) => BRICK * count);
  const reach = Math.ceil((FAR_MM + slackMm) / grid.stepMm);
  const { low, size } = boxAbout(changed, nodes, reach);
  const away = chamferDistances(changed, low, size);
  for (let k = 0; k < size[2]; k++) {
    for (let j = 0; j < size[1]; j++) {
      for (let i = 0; i < size[0]; i++) {
        const node = nodeAt(grid, low[0] + i, low[1] + j, low[2] + k);
        if (node < 0) continue;
        const mm = Math.min(FAR_MM, Math.max(nodeMm[node], before.data.nearest.nodeMm[node]));
        if (away.stepsAt(i, j, k) * grid.stepMm <= mm + slackMm) marked[node] = 1;
      }
    }
  }
  return marked;
}

/** Nodes (three numbers each) beside vertices of one jacket that are not on the other, or have another potential there. */
function changedVertices(from: Cells, to: Cells): number[] {
  const { positions: p } = from.data.nearest.mesh;
  const { originMm: o, stepMm: h } = from.data.nearest.grid;
  const same = from.data.nearest.mesh === to.data.nearest.mesh ? null : new SamePlaces(to.data.nearest.mesh);
  const found: number[] = [];
  for (let v = 0; v < p.length / 3; v++) {
    const other = same ? same.at(p[3 * v], p[3 * v + 1], p[3 * v + 2]) : v;
    if (other >= 0 && samePotentials(from, v, to, other)) continue;
    for (let a = 0; a < 3; a++) found.push(Math.round((p[3 * v + a] - o[a]) / h));
  }
  return found;
}

/** The box of nodes about some of them, so many wider all round, as far as there are nodes. */
function boxAbout(places: readonly number[], nodes: readonly number[], reach: number) {
  const low = [Infinity, Infinity, Infinity];
  const high = [-Infinity, -Infinity, -Infinity];
  for (let c = 0; c < places.length; c++) {
    low[c % 3] = Math.min(low[c % 3], places[c]);
    high[c % 3] = Math.max(high[c % 3], places[c]);
  }
  const first = low.map((value) => Math.max(0, value - reach));
  return { low: first, size: high.map((value, a) => Math.min(nodes[a] - 1, value + reach) - first[a] + 1) };
}

/** A chamfer distance is at most this many times the true one: towards the way where its three lengths add up worst. */
const CHAMFER_EXCESS = Math.hypot(1, Math.SQRT2 - 1, Math.sqrt(3) - Math.SQRT2);

/**
 * How far each node of a box is from the nearest of some places, in steps, never too great: a chamfer distance of two
 * passes over the neighbours at 1, the root of 2 and the root of 3 (Borgefors 1986), taken down by its greatest excess.
 * The box is given one layer more all round, so that no pass has to look where it ends.
 */
function chamferDistances(places: readonly number[], low: readonly number[], size: readonly number[]) {
  const [nx, ny, nz] = size.map((count) => count + 2);
  const rows = nx * ny;
  const away = new Float32Array(rows * nz).fill(Infinity);
  const indexAt = (i: number, j: number, k: number) => i + 1 + nx * (j + 1) + rows * (k + 1);
  for (let c = 0; c < places.length; c += 3) {
    away[indexAt(places[c] - low[0], places[c + 1] - low[1], places[c + 2] - low[2])] = 0;
  }
  // The thirteen neighbours before a node in the arrays' order.
  const offsets = NEIGHBOURS_BEFORE.map(([i, j, k]) => i + nx * j + rows * k);
  const lengths = NEIGHBOURS_BEFORE.map((way) => Math.hypot(...way));
  for (const way of [1, -1]) {
    for (let k = way > 0 ? 1 : nz - 2; k > 0 && k < nz - 1; k += way) {
      for (let j = way > 0 ? 1 : ny - 2; j > 0 && j < ny - 1; j += way) {
        let at = (way > 0 ? 1 : nx - 2) + nx * j + rows * k;
        for (let left = nx - 2; left > 0; left--, at += way) {
          let least = away[at];
          for (let c = 0; c < offsets.length; c++) {
            const through = away[at + way * offsets[c]] + lengths[c];
            if (through < least) least = through;
          }
          away[at] = least;
        }
      }
    }
  }
  return { stepsAt: (i: number, j: number, k: number) => away[indexAt(i, j, k)] / CHAMFER_EXCESS };
}

const NEIGHBOURS_BEFORE = [-1, 0, 1]
  .flatMap((k) => [-1, 0, 1].flatMap((j) => [-1, 0, 1].map((i) => [i, j, k] as const)))
  .slice(0, 13);

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
  return widened(widened(middle, 1, countU, rings), countU, countV, rings);
}

/** Every mark spread so many places both ways along rows of `length` places that lie `stride` apart. */
function widened(marks: Uint8Array, stride: number, length: number, rings: number): Uint8Array {
  const out = new Uint8Array(marks.length);
  const block = stride * length;
  for (let begin = 0; begin < marks.length; begin += block) {
    for (let row = begin; row < begin + stride; row++) {
      // Up to where the last mark met still reaches; then the same from the other end.
      for (let k = 0, left = 0, at = row; k < length; k++, at += stride) {
        if (marks[at]) left = rings + 1;
        if (left > 0) {
          out[at] = 1;
          left--;
        }
      }
      for (let k = length - 1, left = 0, at = row + stride * (length - 1); k >= 0; k--, at -= stride) {
        if (marks[at]) left = rings + 1;
        if (left > 0) {
          out[at] = 1;
          left--;
        }
      }
    }
  }
  return out;
}
