/**
 * Distances made true again about a body's surface, after something was joined to it: the joined field tells inside from
 * outside, but its values are lower bounds of distances at best.
 *
 * Every node within `REACH_STEPS` of a triangle gets its distance from the nearest one, by visiting the nodes about each
 * triangle; brick by brick, so that threads never meet. Nodes farther off are at least so far.
 */
import { BRICK, BRICK_NODES, type BrickGrid } from "../field/grid.ts";
import type { JobContext } from "../job/context.ts";
import { type Kernel, runsOf, SHARES } from "../job/team.ts";
import { closestPointOnTriangle } from "../mesh/closestPoint.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";

/** Distances are true within so many steps of the surface. */
export const REACH_STEPS = 1.75;

interface RedistanceShare {
  readonly grid: BrickGrid;
  readonly mesh: TriangleMesh;
  /** Slots of the bricks to work out, and their triangles in compressed rows. */
  readonly slots: Int32Array;
  readonly start: Int32Array;
  readonly triangles: Int32Array;
  readonly from: number;
  readonly to: number;
  /** In: inside or outside. Out: signed distance, mm. */
  readonly phi: Float32Array;
}

export const redistanceKernel: Kernel<RedistanceShare> = {
  name: "true distances",
  run({ grid, mesh, slots, start, triangles, from, to, phi }) {
    const { positions: p, triangles: t } = mesh;
    const { stepMm: h, originMm: o } = grid;
    const reach = REACH_STEPS * h;
    const [nx, ny] = grid.bricks;
    const squared = new Float64Array(BRICK_NODES);
    const point = new Float64Array(3);
    const plane = new Float64Array(4);
    for (let q = from; q < to; q++) {
      const slot = slots[q];
      const b = grid.brickOf[slot];
      const [i0, j0, k0] = [BRICK * (b % nx), BRICK * (Math.floor(b / nx) % ny), BRICK * Math.floor(b / (nx * ny))];
      squared.fill(reach * reach);
      for (let n = start[q]; n < start[q + 1]; n++) {
        const [a, c, e] = [3 * t[3 * triangles[n]], 3 * t[3 * triangles[n] + 1], 3 * t[3 * triangles[n] + 2]];
        const x0 = Math.max(0, Math.ceil((Math.min(p[a], p[c], p[e]) - reach - o[0]) / h) - i0);
        const x1 = Math.min(7, Math.floor((Math.max(p[a], p[c], p[e]) + reach - o[0]) / h) - i0);
        const y0 = Math.max(0, Math.ceil((Math.min(p[a + 1], p[c + 1], p[e + 1]) - reach - o[1]) / h) - j0);
        const y1 = Math.min(7, Math.floor((Math.max(p[a + 1], p[c + 1], p[e + 1]) + reach - o[1]) / h) - j0);
        const z0 = Math.max(0, Math.ceil((Math.min(p[a + 2], p[c + 2], p[e + 2]) - reach - o[2]) / h) - k0);
        const z1 = Math.min(7, Math.floor((Math.max(p[a + 2], p[c + 2], p[e + 2]) + reach - o[2]) / h) - k0);
        planeOf(plane, p, a, c, e);
        for (let k = z0; k <= z1; k++) {
          const z = o[2] + h * (k0 + k);
          for (let j = y0; j <= y1; j++) {
            const y = o[1] + h * (j0 + j);
            for (let i = x0; i <= x1; i++) {
              const x = o[0] + h * (i0 + i);
              // The triangle's plane is no farther than the triangle.
              const off = plane[0] * x + plane[1] * y + plane[2] * z - plane[3];
              if (off * off > BARELY * squared[i + 8 * j + 64 * k]) continue;
              const away = closestPointOnTriangle(point, mesh, triangles[n], x, y, z);
              const at = i + 8 * j + 64 * k;
              if (away < squared[at]) squared[at] = away;
            }
          }
        }
      }
      for (let k = 0; k < BRICK_NODES; k++) {
        const n = slot * BRICK_NODES + k;
        const mm = Math.sqrt(squared[k]);
        if (phi[n] < 0) phi[n] = mm < reach ? -mm : Math.min(phi[n], -mm);
        else phi[n] = mm < reach ? mm : Math.max(phi[n], mm);
      }
    }
  },
};

/** Rounding does not decide which of two triangles is nearer. */
const BARELY = 1 + 1e-9;

/** The plane of a triangle: its normal, of length one, and how far along that it lies; no normal where it has no area. */
function planeOf(out: Float64Array, p: Float32Array, a: number, b: number, c: number): void {
  const [ux, uy, uz] = [p[b] - p[a], p[b + 1] - p[a + 1], p[b + 2] - p[a + 2]];
  const [vx, vy, vz] = [p[c] - p[a], p[c + 1] - p[a + 1], p[c + 2] - p[a + 2]];
  const [x, y, z] = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
  const length = Math.sqrt(x * x + y * y + z * z);
  const scale = length > 1e-12 ? 1 / length : 0;
  out[0] = x * scale;
  out[1] = y * scale;
  out[2] = z * scale;
  out[3] = out[0] * p[a] + out[1] * p[a + 1] + out[2] * p[a + 2];
}

/**
 * Makes a field's distances true about its surface, in place.
 * @param changed 1 for each brick of the box in which something was joined
 */
export function redistance(
  grid: BrickGrid,
  phi: Float32Array,
  mesh: TriangleMesh,
  changed: Uint8Array,
  ctx: JobContext,
): void {
  const { start, triangles, slots } = trianglesByBrick(grid, mesh, changed, ctx);
  const shares = runsOf(slots.length, SHARES).map(
    (run): RedistanceShare => ({ grid, mesh, slots, start, triangles, phi, ...run }),
  );
  ctx.team.run(redistanceKernel, shares, () => ctx.checkCancelled());
}

/** The triangles within reach of each brick that holds nodes, in compressed rows; bricks without any have none. */
function trianglesByBrick(
  grid: BrickGrid,
  { positions: p, triangles: t }: TriangleMesh,
  changed: Uint8Array,
  ctx: JobContext,
) {
  const reach = REACH_STEPS * grid.stepMm;
  const perBrick = 1 / (BRICK * grid.stepMm);
  const [nx, ny] = grid.bricks;
  const low = [0, 0, 0];
  const high = [0, 0, 0];
  const count = new Int32Array(grid.brickOf.length);
  const about = trianglesAbout(grid, p, t, changed);
  const visit = (each: (slot: number, triangle: number) => void) => {
    for (let n = 0; n < about.length; n++) {
      const k = 3 * about[n];
      const a = 3 * t[k];
      const b = 3 * t[k + 1];
      const c = 3 * t[k + 2];
      for (let x = 0; x < 3; x++) {
        const u = p[a + x];
        const v = p[b + x];
        const w = p[c + x];
        low[x] = Math.max(0, Math.floor((Math.min(u, v, w) - reach - grid.originMm[x]) * perBrick));
        high[x] = Math.min(grid.bricks[x] - 1, Math.floor((Math.max(u, v, w) + reach - grid.originMm[x]) * perBrick));
      }
      for (let z = low[2]; z <= high[2]; z++) {
        for (let y = low[1]; y <= high[1]; y++) {
          for (let x = low[0]; x <= high[0]; x++) {
            const brick = x + nx * (y + ny * z);
            if (changed[brick] && grid.slotOf[brick] >= 0) each(grid.slotOf[brick], about[n]);
          }
        }
      }
    }
  };
  visit((slot) => count[slot]++);
  const slots = Int32Array.from(count.keys()).filter((slot) => count[slot] > 0);
  const start = new Int32Array(ctx.team.buffer(4 * (slots.length + 1)));
  const cursor = new Int32Array(count.length);
  slots.forEach((slot, q) => {
    start[q + 1] = start[q] + count[slot];
    cursor[slot] = start[q];
  });
  const triangles = new Int32Array(ctx.team.buffer(4 * start[slots.length]));
  visit((slot, triangle) => {
    triangles[cursor[slot]++] = triangle;
  });
  return { start, triangles, slots };
}

/**
 * The triangles with a corner in a changed brick or one beside it: all that may be within reach of one, for a triangle is no
 * longer than two cells, and with what it reaches less than a brick.
 */
function trianglesAbout(
  { bricks: [nx, ny, nz], originMm: o, stepMm }: BrickGrid,
  p: Float32Array,
  t: Uint32Array,
  changed: Uint8Array,
): Int32Array {
  const near = new Uint8Array(changed.length);
  for (let b = 0; b < changed.length; b++) {
    if (changed[b] === 0) continue;
    const i = b % nx;
    const j = Math.floor(b / nx) % ny;
    const k = Math.floor(b / (nx * ny));
    for (let z = Math.max(0, k - 1); z <= Math.min(nz - 1, k + 1); z++) {
      for (let y = Math.max(0, j - 1); y <= Math.min(ny - 1, j + 1); y++) {
        for (let x = Math.max(0, i - 1); x <= Math.min(nx - 1, i + 1); x++) near[x + nx * (y + ny * z)] = 1;
      }
    }
  }
  const perBrick = 1 / (BRICK * stepMm);
  const out = new Int32Array(t.length / 3);
  let count = 0;
  for (let k = 0; k < out.length; k++) {
    const a = 3 * t[3 * k];
    const x = Math.min(nx - 1, Math.max(0, Math.floor((p[a] - o[0]) * perBrick)));
    const y = Math.min(ny - 1, Math.max(0, Math.floor((p[a + 1] - o[1]) * perBrick)));
    const z = Math.min(nz - 1, Math.max(0, Math.floor((p[a + 2] - o[2]) * perBrick)));
    if (near[x + nx * (y + ny * z)]) out[count++] = k;
  }
  return out.subarray(0, count);
}
