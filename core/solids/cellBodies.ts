/**
 * The space of every section about the jacket, as closed bodies that divide it without gap or overlap: the section of the
 * nearest place of the jacket, but beside a parting wall the side of the wall that a place is on. Where shells crowd each other
 * away from all walls, the bodies meet half way between their parts of the jacket.
 *
 * Level sets on the grid of a distance field: a section's is below 0 in its space, and two neighbours' are each other's
 * contrary, so that their faces coincide.
 */
import type { DistanceField } from "../field/distance.ts";
import { BRICK, type BrickGrid, nodeAt, nodeCount, nodePoint } from "../field/grid.ts";
import { isosurface } from "../field/isosurface.ts";
import type { AlongWall } from "../flange/along.ts";
import type { JobContext } from "../job/context.ts";
import { type Kernel, runsOf, SHARES } from "../job/team.ts";
import { closestPointOnTriangle } from "../mesh/closestPoint.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { Cells, type CellsData } from "../release/cells.ts";

export interface CellBodiesRequest {
  /** Distance from what the shell is built on, on a grid that reaches well beyond the shell. */
  readonly field: DistanceField;
  readonly cells: Cells;
  /** The cell of each section, in their order. */
  readonly cellOf: readonly number[];
  readonly walls: readonly AlongWall[];
  readonly shellMm: number;
}

/** Walls decide as far as this beside them, mm. */
const BESIDE_MM = 25;
/** They are carried on so far into the jacket, mm, and out through the shell by so many of its thicknesses. */
const INTO_MM = 8;
const OUT_SHARE = 1.8;
/** The bodies reach so many steps into the jacket, and beyond the shell. */
const BEYOND_STEPS = 1.2;

/** Which side of a wall a place is on, and how far from it. */
interface BesideWalls {
  /** Of the nearest wall: its place among the walls; -1 where none is near. */
  readonly wall: Int16Array;
  /** Distance from it, mm; above 0 on its left. */
  readonly leftMm: Float32Array;
}

/** @returns a closed mesh for every section but the last, in their order: that one has what is left */
export function cellBodies(request: CellBodiesRequest, ctx: JobContext): TriangleMesh[] {
  const { field, cells, cellOf, walls, shellMm } = request;
  const { grid, distanceMm } = field;
  const { stepMm } = grid;
  const count = nodeCount(grid);
  const beside = besideWalls(request, ctx);
  const own = new Uint8Array(ctx.team.buffer(count)).fill(NOBODY);
  const sureMm = new Float32Array(ctx.team.buffer(4 * count));
  const sections = walls.map(({ wall }) => wall.sections);
  const spaces = { ...beside, grid, distanceMm, cells: cells.data, cellOf, sections, shellMm, own, sureMm };
  const shares = runsOf(count, SHARES).map((run) => ({ ...spaces, ...run }));
  ctx.team.run(spaceKernel, shares, () => ctx.checkCancelled());
  return cellOf.slice(0, -1).map((_, s) => {
    const values = new Float32Array(count);
    for (let n = 0; n < count; n++) {
      const inside = own[n] === s ? -sureMm[n] : own[n] === NOBODY ? stepMm : sureMm[n];
      const band = Math.max(distanceMm[n] - shellMm, -distanceMm[n]) - BEYOND_STEPS * stepMm;
      values[n] = Math.max(inside, band);
    }
    return isosurface(grid, values, 0, ctx);
  });
}

const NOBODY = 255;
/** No place is nearer to a border than this: a field is nowhere quite zero, mm. */
const LEAST_MM = 1e-3;

/** Whose the nodes `from` to `to` are. */
interface SpaceShare extends BesideWalls {
  readonly grid: BrickGrid;
  readonly distanceMm: Float32Array;
  readonly cells: CellsData;
  readonly cellOf: readonly number[];
  /** Numbers of the sections on the left and on the right of every wall. */
  readonly sections: readonly (readonly [number, number])[];
  readonly shellMm: number;
  /** Out: the section of every node, counted from 0, and how far it is within that, mm. */
  readonly own: Uint8Array;
  readonly sureMm: Float32Array;
  readonly from: number;
  readonly to: number;
}

export const spaceKernel: Kernel<SpaceShare> = {
  name: "spaces of sections",
  run(share) {
    const { grid, distanceMm, cellOf, sections, shellMm, wall, leftMm, own, sureMm, from, to } = share;
    const { stepMm } = grid;
    const cells = new Cells(share.cells);
    const point = new Float64Array(3);
    const [low, high] = [-(BEYOND_STEPS + 1) * stepMm, shellMm + (BEYOND_STEPS + 1) * stepMm];
    for (let n = from; n < to; n++) {
      if (distanceMm[n] < low || distanceMm[n] > high) continue;
      nodePoint(grid, n, point, 0);
      const { section, leadMm } = cells.leadAt(point[0], point[1], point[2]);
      own[n] = cellOf.indexOf(section);
      sureMm[n] = Math.max(LEAST_MM, Math.min(leadMm, BESIDE_MM));
      if (wall[n] < 0) continue;
      const [left, right] = sections[wall[n]];
      // A wall says nothing of the space of a third section.
      if (own[n] !== left - 1 && own[n] !== right - 1) continue;
      own[n] = (leftMm[n] >= 0 ? left : right) - 1;
      sureMm[n] = Math.max(LEAST_MM, Math.abs(leftMm[n]));
    }
  },
};

/** A wall's strip carried on, with the normal that each of its triangles is told left from right by, xyz. */
interface Strip {
  readonly mesh: TriangleMesh;
  readonly normals: Float32Array;
}

/** The layers of nodes `from` to `to`, upwards. */
interface BesideShare extends BesideWalls {
  readonly grid: BrickGrid;
  readonly distanceMm: Float32Array;
  readonly strips: readonly Strip[];
  /** Nodes farther out are not asked about, mm. */
  readonly outMm: number;
  readonly from: number;
  readonly to: number;
}

/** Of the nodes near the walls' surfaces: which side they are on. */
function besideWalls({ field, walls, shellMm }: CellBodiesRequest, ctx: JobContext): BesideWalls {
  const { grid, distanceMm } = field;
  const { stepMm } = grid;
  const count = nodeCount(grid);
  const wall = new Int16Array(ctx.team.buffer(2 * count)).fill(-1);
  const leftMm = new Float32Array(ctx.team.buffer(4 * count));
  const strips = walls.map((along): Strip => {
    const mesh = carriedOn(along, OUT_SHARE * shellMm + 2 * stepMm);
    const rulings = mesh.triangles.length / 6;
    const normals = Float32Array.from(
      Array.from({ length: rulings }, (_, k) => along.normal(along.alongMm[k])).flatMap((normal) => [
        ...normal,
        ...normal,
      ]),
    );
    return { mesh, normals };
  });
  const outMm = shellMm + (BEYOND_STEPS + 1) * stepMm;
  const shares = runsOf(grid.bricks[2] * BRICK, SHARES).map((run) => ({
    ...{ grid, distanceMm, strips, outMm, wall, leftMm },
    ...run,
  }));
  ctx.team.run(besideKernel, shares, () => ctx.checkCancelled());
  return { wall, leftMm };
}

export const besideKernel: Kernel<BesideShare> = {
  name: "sides of walls",
  run({ grid, distanceMm, strips, outMm, wall, leftMm, from, to }) {
    const { stepMm, originMm } = grid;
    const closest = new Float64Array(3);
    strips.forEach(({ mesh, normals }, w) => {
      const { positions: p, triangles: t } = mesh;
      for (let k = 0; k < t.length / 3; k++) {
        const [nx, ny, nz] = [normals[3 * k], normals[3 * k + 1], normals[3 * k + 2]];
        const range = [0, 1, 2].map((a) => {
          const corners = [0, 1, 2].map((c) => p[3 * t[3 * k + c] + a]);
          return [
            Math.ceil((Math.min(...corners) - BESIDE_MM - originMm[a]) / stepMm),
            Math.floor((Math.max(...corners) + BESIDE_MM - originMm[a]) / stepMm),
          ];
        });
        for (let z = Math.max(from, range[2][0]); z <= Math.min(to - 1, range[2][1]); z++) {
          for (let y = range[1][0]; y <= range[1][1]; y++) {
            for (let x = range[0][0]; x <= range[0][1]; x++) {
              const n = nodeAt(grid, x, y, z);
              if (n < 0 || distanceMm[n] > outMm || distanceMm[n] < -INTO_MM) continue;
              const [px, py, pz] = [originMm[0] + x * stepMm, originMm[1] + y * stepMm, originMm[2] + z * stepMm];
              const away = Math.sqrt(closestPointOnTriangle(closest, mesh, k, px, py, pz));
              if (away > BESIDE_MM || (wall[n] >= 0 && away >= Math.abs(leftMm[n]))) continue;
              const side = (px - closest[0]) * nx + (py - closest[1]) * ny + (pz - closest[2]) * nz;
              // Beyond an edge of the strip a place is before or behind it, not beside it.
              if (Math.abs(side) < BESIDE_SINE * away) continue;
              wall[n] = w;
              leftMm[n] = side >= 0 ? away : -away;
            }
          }
        }
      }
    });
  },
};

/** A place is beside a wall where it lies this square to it, as a sine. */
const BESIDE_SINE = 0.7;

/** A wall's strip from within the jacket to beyond the shell, whatever width it is built in. */
function carriedOn({ ground: { foot, out } }: AlongWall, outMm: number): TriangleMesh {
  const count = foot.length / 3;
  const positions = new Float32Array(6 * count);
  const triangles: number[] = [];
  for (let k = 0; k < count; k++) {
    for (let a = 0; a < 3; a++) {
      positions[6 * k + a] = foot[3 * k + a] - INTO_MM * out[3 * k + a];
      positions[6 * k + 3 + a] = foot[3 * k + a] + outMm * out[3 * k + a];
    }
    if (k > 0) triangles.push(2 * k - 2, 2 * k, 2 * k - 1, 2 * k, 2 * k + 1, 2 * k - 1);
  }
  return { positions, triangles: Uint32Array.from(triangles) };
}
