/**
 * The surface where a node field crosses zero, by marching cubes over the kept bricks. Vertices are shared through
 * the grid edges they lie on, so the mesh is welded as it is made. Preconditions: the field crosses zero only
 * between kept nodes.
 *
 * Runs of bricks are walked over side by side. An edge between two runs gets a vertex in both; the first run's stands,
 * so that the mesh is the same, number by number, however many runs there are.
 */
import type { JobContext } from "../job/context.ts";
import { type Kernel, runsOf, shared, type Team } from "../job/team.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { EDGE_CORNERS } from "./cubes.ts";
import { BRICK, BRICK_NODES, type BrickGrid, neighbourSlot } from "./grid.ts";
import { type BrickRanges, type BrickRun, brickRanges, mayCross, placeOnEdge, sweepCells } from "./sweep.ts";

/** Edges of a cell. */
const EDGES = 12;
/** Edges that leave the nodes of a brick upwards. */
const BRICK_EDGES = 3 * BRICK_NODES;

/** Runs of bricks for each thread: enough that they end together. */
const RUNS_EACH = 3;
/** Room for what most bricks hold that the level runs through; a run with more is walked over again. */
const ROOM = { vertices: 160, triangles: 320 };

/**
 * @param values field per node; negative inside
 * @param level the surface is where values = level
 * @returns triangles in world mm facing outwards (towards greater values)
 */
export function isosurface(grid: BrickGrid, values: Float32Array, level: number, ctx: JobContext): TriangleMesh {
  const { team } = ctx;
  const ranges = brickRanges(values);
  const crossed: number[] = [];
  for (let slot = 0; slot < grid.brickOf.length; slot++) if (mayCross(grid, ranges, slot, level)) crossed.push(slot);
  const common = { grid, values: shared(team, values), level, ranges };
  const shares = runsOf(crossed.length, team.size === 1 ? 1 : RUNS_EACH * team.size).map(({ from, to }) => {
    const [vertices, triangles] = [ROOM.vertices * (to - from), ROOM.triangles * (to - from)];
    return {
      ...common,
      bricks: { from: crossed[from], to: crossed[to - 1] + 1 },
      ...roomFor(vertices, triangles, team),
    };
  });
  team.run(surfaceKernel, shares, () => ctx.checkCancelled());
  return joined(
    shares.map((share) => {
      const [vertices, triangles] = share.count;
      if (3 * vertices <= share.positions.length && 3 * triangles <= share.corners.length) return share;
      const again = { ...share, ...roomFor(vertices, triangles, team) };
      surfaceKernel.run(again);
      return again;
    }),
  );
}

/** The surface in a run of bricks. */
interface SurfaceShare {
  readonly grid: BrickGrid;
  readonly values: Float32Array;
  readonly level: number;
  readonly ranges: BrickRanges;
  readonly bricks: BrickRun;
  /** Out: vertices and triangles there are, be there room for them or not. */
  readonly count: Int32Array;
  /** Out: xyz of the vertices, the edge of the grid each lies on (by its brick's slot), and corners of the triangles. */
  readonly positions: Float32Array;
  readonly edges: Int32Array;
  readonly corners: Uint32Array;
}

function roomFor(vertices: number, triangles: number, team: Team) {
  return {
    count: new Int32Array(team.buffer(8)),
    positions: new Float32Array(team.buffer(12 * vertices)),
    edges: new Int32Array(team.buffer(4 * vertices)),
    corners: new Uint32Array(team.buffer(12 * triangles)),
  };
}

export const surfaceKernel: Kernel<SurfaceShare> = {
  name: "surface",
  run({ grid, values, level, ranges, bricks, count, positions, edges, corners }) {
    let vertices = 0;
    let filled = 0;
    /** Vertex numbers on the edges of the bricks met, less than nothing where there is none yet. */
    const numbers = new Map<number, Int32Array>();
    const vertexOfEdge = new Int32Array(EDGES);
    const place = new Float64Array(3);
    sweepCells(grid, values, level, ranges, bricks, (block, corner, slot, x, y, z, table) => {
      vertexOfEdge.fill(-1);
      for (let t = 0; t < table.length; t++) {
        const e = table[t];
        if (vertexOfEdge[e] >= 0) continue;
        const low = EDGE_CORNERS[e][0];
        const i = x + (low & 1);
        const j = y + ((low >> 1) & 1);
        const k = z + (low >> 2);
        const outer = (i >> 3) | (j >> 3) | (k >> 3);
        const owner = outer ? neighbourSlot(grid, grid.brickOf[slot], i >> 3, j >> 3, k >> 3) : slot;
        let held = numbers.get(owner);
        if (!held) {
          held = new Int32Array(BRICK_EDGES).fill(-1);
          numbers.set(owner, held);
        }
        const edge = 3 * ((i & 7) + BRICK * ((j & 7) + BRICK * (k & 7))) + (e >> 2);
        if (held[edge] < 0) {
          held[edge] = vertices;
          if (3 * vertices < positions.length) {
            placeOnEdge(place, 0, grid, block, corner, i, j, k, e >> 2);
            positions[3 * vertices] = place[0];
            positions[3 * vertices + 1] = place[1];
            positions[3 * vertices + 2] = place[2];
            edges[vertices] = owner * BRICK_EDGES + edge;
          }
          vertices++;
        }
        vertexOfEdge[e] = held[edge];
      }
      for (let t = 0; t < table.length; t++) corners[filled++] = vertexOfEdge[table[t]];
    });
    count[0] = vertices;
    count[1] = filled / 3;
  },
};

/** One mesh of the runs', in their order. */
function joined(runs: readonly SurfaceShare[]): TriangleMesh {
  const sum = (k: number) => runs.reduce((total, { count }) => total + count[k], 0);
  const positions = new Float32Array(3 * sum(0));
  const triangles = new Uint32Array(3 * sum(1));
  /** Vertex numbers on edges that a run met in bricks of later ones. */
  const ahead = new Map<number, Int32Array>();
  let vertices = 0;
  let filled = 0;
  for (const { bricks, count, positions: own, edges, corners } of runs) {
    const renamed = new Uint32Array(count[0]);
    for (let v = 0; v < renamed.length; v++) {
      const owner = Math.floor(edges[v] / BRICK_EDGES);
      const edge = edges[v] - owner * BRICK_EDGES;
      let met = ahead.get(owner);
      if (met && met[edge] >= 0) {
        renamed[v] = met[edge];
        continue;
      }
      if (owner >= bricks.to) {
        met ??= new Int32Array(BRICK_EDGES).fill(-1);
        met[edge] = vertices;
        ahead.set(owner, met);
      }
      for (let a = 0; a < 3; a++) positions[3 * vertices + a] = own[3 * v + a];
      renamed[v] = vertices++;
    }
    for (let c = 0; c < 3 * count[1]; c++) triangles[filled++] = renamed[corners[c]];
  }
  return { positions: positions.slice(0, 3 * vertices), triangles };
}
