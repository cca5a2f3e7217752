/**
 * The visible hull of a body under some pulls: the body with everything added that none of the pulls can reach. A place
 * outside it leaves along at least one of the pulls, and stays outside it all the way: were a later place on its way in
 * the hull, that one could not leave along this pull either. So the hull is the least fill there is for these pulls,
 * whatever the lines are, and it needs no second round.
 *
 *   psi_d(x) = min over s >= 0 of phi(x + s d)        how deep the way out from x along d runs into the body
 *   phi_H(x) = min(phi(x), max over d of psi_d(x) + give)
 *
 * Source: accessibility along a finite set of directions as a silhouette hull (Laurentini 1994, for views).
 */
import {
  BRICK,
  BRICK_NODES,
  type BrickGrid,
  brickCorner,
  gridFromActive,
  nodeAt,
  nodeCount,
  nodePoint,
} from "../field/grid.ts";
import type { JobContext } from "../job/context.ts";
import { type Kernel, runsOf, SHARES } from "../job/team.ts";
import { filledBy } from "../mesh/lists.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import type { Direction } from "../space/directions.ts";
import { columnFrame, columnPoint, visitColumns } from "../survey/columns.ts";
import { Body, type BodyData } from "./body.ts";
import { Cells, type CellsData } from "./cells.ts";

export interface HullRequest {
  readonly body: BodyData;
  /** The body's outside. */
  readonly mesh: TriangleMesh;
  readonly pulls: readonly Direction[];
  /** Ways that run no deeper into the body than this are free, mm. */
  readonly giveMm: number;
  /** Sections in whose cells nothing is added; null where there are none. */
  readonly open: OpenCells | null;
}

/** Sections that are left as they are, and the cells they have on the body. */
export interface OpenCells {
  readonly cells: CellsData;
  /** Of each section: is it left as it is? */
  readonly sections: readonly boolean[];
}

interface HullShare {
  readonly body: BodyData;
  readonly pulls: readonly Direction[];
  readonly giveMm: number;
  readonly open: OpenCells | null;
  readonly grid: BrickGrid;
  /** Bricks to work out. */
  readonly slots: Int32Array;
  /** In: the body's field. Out: what the hull adds to it. */
  readonly added: Float32Array;
}

/** Beyond this many steps inside, values are not told apart. */
const DEEP_STEPS = 3;

export const hullKernel: Kernel<HullShare> = {
  name: "visible hull",
  run({ body: data, pulls, giveMm, open, grid, slots, added }) {
    const body = new Body(data);
    const cells = open && new Cells(open.cells);
    const deepMm = -(giveMm + DEEP_STEPS * grid.stepMm);
    const x = new Float64Array(3);
    const low = grid.originMm.map((o) => o + 0.5 * grid.stepMm);
    const high = grid.originMm.map((o, a) => o + (BRICK * grid.bricks[a] - 1.5) * grid.stepMm);
    let likely = 0;
    for (const slot of slots) {
      for (let n = slot * BRICK_NODES; n < (slot + 1) * BRICK_NODES; n++) {
        const base = added[n];
        if (base <= deepMm) continue;
        nodePoint(grid, n, x, 0);
        // What is added stays within the box, so that its surface closes.
        if (x.some((value, a) => value < low[a] || value > high[a])) continue;
        if (data.boardMm !== null && x[2] < data.boardMm - 2 * grid.stepMm) continue;
        let best = deepMm;
        // Neighbours mostly leave along the same pull: it is tried first.
        for (let k = 0; k < pulls.length && best + giveMm < base; k++) {
          const pull = (likely + k) % pulls.length;
          const [dx, dy, dz] = pulls[pull];
          const least = body.leastAlong(x[0], x[1], x[2], dx, dy, dz, base, best);
          if (least <= best) continue;
          best = least;
          if (best + giveMm >= base) likely = pull;
        }
        if (best + giveMm < base && cells && open?.sections[cells.at(x[0], x[1], x[2])]) continue;
        added[n] = best + giveMm;
      }
    }
  },
};

/** A field with something joined to it: its values are lower bounds of distances until they are made true again. */
export interface Joined {
  readonly grid: BrickGrid;
  readonly phi: Float32Array;
  /** 1 for each brick of the box in which something may have been joined. */
  readonly changed: Uint8Array;
}

/** @returns the hull, on a grid that covers it */
export function visibleHull(request: HullRequest, ctx: JobContext): Joined {
  const { body, mesh, pulls, giveMm, open } = request;
  const { grid } = body;
  const blocked = bricksBlocked(body, mesh, pulls, ctx);
  const active = filledBy(new Uint8Array(blocked.length), (b) => (grid.slotOf[b] >= 0 || blocked[b] ? 1 : 0));
  const wide = gridFromActive(grid.originMm, grid.stepMm, grid.bricks, active);
  const phi = carriedOver(body, wide, ctx);
  const added = carriedOver(body, wide, ctx);
  const wanted = Int32Array.from(wide.brickOf.keys()).filter((slot) => blocked[wide.brickOf[slot]] === 1);
  const shares = runsOf(wanted.length, SHARES).map(
    ({ from, to }): HullShare => ({ body, pulls, giveMm, open, grid: wide, slots: wanted.slice(from, to), added }),
  );
  ctx.team.run(hullKernel, shares, () => ctx.checkCancelled());
  addTo(phi, wide, added, wanted);
  return { grid: wide, phi, changed: blocked };
}

/** The body's own field on a grid with more bricks. */
export function carriedOver({ grid, phi, capMm }: BodyData, wide: BrickGrid, ctx: JobContext): Float32Array {
  const out = new Float32Array(ctx.team.buffer(4 * nodeCount(wide))).fill(capMm);
  for (let slot = 0; slot < wide.brickOf.length; slot++) {
    const from = grid.slotOf[wide.brickOf[slot]];
    if (from >= 0) out.set(phi.subarray(from * BRICK_NODES, (from + 1) * BRICK_NODES), slot * BRICK_NODES);
  }
  return out;
}

/**
 * Joins what is added to a body, in place. Nodes outside both keep the body's value but beside what is added: values of
 * what grazes past far away would draw the surface towards them.
 * @param slots of the bricks where something may be added
 */
export function addTo(phi: Float32Array, grid: BrickGrid, added: Float32Array, slots: Int32Array): void {
  const corner = new Int32Array(3);
  for (const slot of slots) {
    brickCorner(grid, slot, corner);
    for (let n = slot * BRICK_NODES, k = 0; k < BRICK_NODES; n++, k++) {
      const value = added[n];
      if (value >= phi[n]) continue;
      if (value < 0) {
        phi[n] = value;
        continue;
      }
      const [x, y, z] = [k & 7, (k >> 3) & 7, k >> 6];
      for (let face = 0; face < 6; face++) {
        const way = face & 1 ? 1 : -1;
        const axis = face >> 1;
        const within = axis === 0 ? x + way : axis === 1 ? y + way : z + way;
        const other =
          within >= 0 && within < BRICK
            ? n + way * STRIDES[axis]
            : nodeAt(
                grid,
                corner[0] + x + (axis === 0 ? way : 0),
                corner[1] + y + (axis === 1 ? way : 0),
                corner[2] + z + (axis === 2 ? way : 0),
              );
        if (other < 0 || added[other] >= 0) continue;
        phi[n] = value;
        break;
      }
    }
  }
}

const STRIDES = [1, BRICK, BRICK * BRICK];

/** Bricks that the ways along every pull are blocked in somewhere, by lines a step apart; 1 each. */
function bricksBlocked({ grid, boardMm }: BodyData, mesh: TriangleMesh, pulls: readonly Direction[], ctx: JobContext) {
  const shares = pulls.map(
    (pull): BlockedShare => ({
      grid,
      mesh,
      pull,
      boardMm,
      blocked: new Uint8Array(ctx.team.buffer(grid.slotOf.length)),
    }),
  );
  ctx.team.run(blockedKernel, shares, () => ctx.checkCancelled());
  return filledBy(new Uint8Array(grid.slotOf.length), (b) => (shares.every(({ blocked }) => blocked[b] === 1) ? 1 : 0));
}

interface BlockedShare {
  readonly grid: BrickGrid;
  readonly mesh: TriangleMesh;
  readonly pull: Direction;
  readonly boardMm: number | null;
  /** Out: 1 for each brick of the box that ways along the pull are blocked in. */
  readonly blocked: Uint8Array;
}

export const blockedKernel: Kernel<BlockedShare> = {
  name: "blocked bricks",
  run({ grid, mesh, pull, boardMm, blocked }) {
    const { stepMm, originMm: o, bricks } = grid;
    const [nx, ny, nz] = bricks;
    const perBrick = 1 / (BRICK * stepMm);
    const [a, b] = [new Float64Array(3), new Float64Array(3)];
    const frame = columnFrame(mesh, pull, stepMm);
    visitColumns(mesh, frame, boardMm, (line, from, to) => {
      const samples = Math.max(1, Math.ceil((to - from) / (2 * stepMm)));
      columnPoint(frame, line, from, a);
      columnPoint(frame, line, to, b);
      const [x0, y0, z0] = [0, 1, 2].map((axis) => (a[axis] - o[axis]) * perBrick);
      const [dx, dy, dz] = [0, 1, 2].map((axis) => ((b[axis] - a[axis]) * perBrick) / samples);
      for (let n = 0; n <= samples; n++) {
        const [x, y, z] = [x0 + n * dx, y0 + n * dy, z0 + n * dz];
        // Nodes beside a line are in its shadow too.
        const iTo = Math.min(nx - 1, Math.floor(x + EDGE));
        const jTo = Math.min(ny - 1, Math.floor(y + EDGE));
        const kTo = Math.min(nz - 1, Math.floor(z + EDGE));
        for (let k = Math.max(0, Math.floor(z - EDGE)); k <= kTo; k++) {
          for (let j = Math.max(0, Math.floor(y - EDGE)); j <= jTo; j++) {
            for (let i = Math.max(0, Math.floor(x - EDGE)); i <= iTo; i++) blocked[i + nx * (j + ny * k)] = 1;
          }
        }
      }
    });
  },
};

/** A step and a half, in bricks. */
const EDGE = 1.5 / BRICK;
