/**
 * The filled jacket: the jacket's field with every filled column swept into it. At a node beside a filled column the
 * body swept back along the pull has the value min over the way to the jacket of the jacket's own field, which keeps
 * the faces of the fill as smooth as the jacket they hang from.
 */
import { BRICK, BRICK_NODES, type BrickGrid, gridFromActive, nodeCount, nodePoint, sampleAt } from "../field/grid.ts";
import { columnPoint } from "../survey/columns.ts";
import type { SectionLock } from "./locks.ts";

/** Filled stretches by line, in compressed rows, with what a node beside them needs. */
class FillIndex {
  private readonly start: Uint32Array;
  private readonly from: Float64Array;
  private readonly to: Float64Array;

  constructor(private readonly lock: SectionLock) {
    const { countU, countV } = lock.frame.bundle;
    this.start = new Uint32Array(countU * countV + 1);
    for (const { line } of lock.columns) this.start[line + 1]++;
    for (let line = 0; line < countU * countV; line++) this.start[line + 1] += this.start[line];
    this.from = new Float64Array(lock.columns.length);
    this.to = new Float64Array(lock.columns.length);
    const cursor = this.start.slice();
    for (const { line, fromMm, toMm } of lock.columns) {
      this.from[cursor[line]] = fromMm;
      this.to[cursor[line]++] = toMm;
    }
  }

  /** How far along the pull the fill beside a point reaches, mm; -1 where no fill is beside it. */
  reach(x: Float64Array, slackMm: number): number {
    const { u, v, d, bundle } = this.lock.frame;
    const a = (u[0] * x[0] + u[1] * x[1] + u[2] * x[2] - bundle.originU) / bundle.spacingMm;
    const b = (v[0] * x[0] + v[1] * x[1] + v[2] * x[2] - bundle.originV) / bundle.spacingMm;
    const w = d[0] * x[0] + d[1] * x[1] + d[2] * x[2];
    const i0 = Math.round(a);
    const j0 = Math.round(b);
    let reach = -1;
    for (let j = j0 - 1; j <= j0 + 1; j++) {
      for (let i = i0 - 1; i <= i0 + 1; i++) {
        if (i < 0 || j < 0 || i >= bundle.countU || j >= bundle.countV) continue;
        const line = i + bundle.countU * j;
        for (let n = this.start[line]; n < this.start[line + 1]; n++) {
          if (w > this.from[n] - slackMm && w < this.to[n] + slackMm) reach = Math.max(reach, this.to[n] - w + slackMm);
        }
      }
    }
    return reach;
  }
}

/**
 * @param grid the jacket's grid
 * @param phi the jacket's field, negative inside
 * @returns a grid that also covers the fill, and the filled jacket's field on it
 */
export function fillField(
  grid: BrickGrid,
  phi: Float32Array,
  locks: readonly SectionLock[],
): { grid: BrickGrid; phi: Float32Array } {
  const active = Uint8Array.from(grid.slotOf, (slot) => (slot >= 0 ? 1 : 0));
  const touched = new Uint8Array(active.length);
  const point = new Float64Array(3);
  for (const lock of locks) {
    for (const column of lock.columns) {
      for (let w = column.fromMm; w <= column.toMm + grid.stepMm; w += 2 * grid.stepMm) {
        columnPoint(lock.frame, column.line, Math.min(w, column.toMm), point);
        touch(grid, point, touched);
      }
    }
  }
  for (let b = 0; b < active.length; b++) active[b] |= touched[b];
  const wide = gridFromActive(grid.originMm, grid.stepMm, grid.bricks, active);
  const filled = new Float32Array(nodeCount(wide)).fill(4 * grid.stepMm);
  for (let slot = 0; slot < wide.brickOf.length; slot++) {
    const from = grid.slotOf[wide.brickOf[slot]];
    if (from >= 0) filled.set(phi.subarray(from * BRICK_NODES, (from + 1) * BRICK_NODES), slot * BRICK_NODES);
  }
  for (const lock of locks) if (lock.columns.length > 0) sweepIn(grid, phi, wide, filled, touched, lock);
  return { grid: wide, phi: filled };
}

/** Marks the bricks within a step and a half of a point. */
function touch(grid: BrickGrid, point: Float64Array, touched: Uint8Array): void {
  const [nx, ny, nz] = grid.bricks;
  const range = [0, 1, 2].map((a) => {
    const place = (point[a] - grid.originMm[a]) / grid.stepMm;
    return [
      Math.max(0, Math.floor((place - 2.5) / BRICK)),
      Math.min(grid.bricks[a] - 1, Math.floor((place + 2.5) / BRICK)),
    ];
  });
  for (let k = range[2][0]; k <= Math.min(nz - 1, range[2][1]); k++) {
    for (let j = range[1][0]; j <= Math.min(ny - 1, range[1][1]); j++) {
      for (let i = range[0][0]; i <= range[0][1]; i++) touched[i + nx * (j + ny * k)] = 1;
    }
  }
}

function sweepIn(
  grid: BrickGrid,
  phi: Float32Array,
  wide: BrickGrid,
  filled: Float32Array,
  touched: Uint8Array,
  lock: SectionLock,
): void {
  const index = new FillIndex(lock);
  const { d } = lock.frame;
  const h = grid.stepMm;
  const x = new Float64Array(3);
  for (let slot = 0; slot < wide.brickOf.length; slot++) {
    if (!touched[wide.brickOf[slot]]) continue;
    for (let n = slot * BRICK_NODES; n < (slot + 1) * BRICK_NODES; n++) {
      if (filled[n] < -h) continue;
      nodePoint(wide, n, x, 0);
      const reach = index.reach(x, 1.5 * h);
      if (reach < 0) continue;
      let least = filled[n];
      for (let w = h / 2; w <= reach; w += h / 2) {
        least = Math.min(least, sampleAt(grid, phi, x[0] + w * d[0], x[1] + w * d[1], x[2] + w * d[2], least));
      }
      filled[n] = least;
    }
  }
}
