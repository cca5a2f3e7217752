/**
 * Who blocks whom, and the orders that follow. Points of each section's own thickness are moved out along its pull; where
 * one passes through the thickness of a section that is still there, that one blocks it and must leave first. Sections
 * are taken apart so that nothing blocked moves; they are built the other way round.
 */
import type { JobContext } from "../job/context.ts";
import type { Kernel } from "../job/team.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import type { Direction } from "../survey/directions.ts";
import { vertexNormals } from "../survey/survey.ts";
import { Cells, type CellsData } from "./cells.ts";

export interface Block {
  readonly section: number;
  readonly by: number;
  /** Where they would meet first, mm. */
  readonly at: readonly [number, number, number];
  /** How far the section has moved when they meet, mm. */
  readonly afterMm: number;
}

export interface BlockRequest {
  readonly skins: readonly TriangleMesh[];
  readonly pulls: readonly Direction[];
  /** Cells of the jacket the skins lie on. */
  readonly cells: CellsData;
  /** Number of each cell's section, as the skins are numbered; -1 where a cell has none. */
  readonly sectionOf: readonly number[];
  readonly shellMm: number;
  readonly stepMm: number;
  readonly boardMm: number | null;
}

/** Points of a skin that stand for its section. */
const SAMPLES = 700;
/** Fewer points than this in the way, of two depths a place, are the grid's own roughness. */
const LEAST_POINTS = 6;

/** One section's points, moved along its pull by any thread. */
interface BlockShare {
  readonly request: BlockRequest;
  readonly section: number;
  /** Out: five figures for every other section: points that met it, where first (xyz), after how many mm. */
  readonly met: Float64Array;
}

const FIGURES = 5;

export const blockKernel: Kernel<BlockShare> = {
  name: "blocks",
  run: ({ request, section, met }) => moveOut(request, new Cells(request.cells), section, met),
};

export function findBlocks(request: BlockRequest, ctx: JobContext): Block[] {
  const count = request.skins.length;
  const shares = request.skins.map(
    (_, section): BlockShare => ({ request, section, met: new Float64Array(ctx.team.buffer(8 * FIGURES * count)) }),
  );
  ctx.team.run(blockKernel, shares, () => ctx.checkCancelled());
  return shares.flatMap(({ section, met }) =>
    Array.from({ length: count }, (_, by): Block | null => {
      const [points, x, y, z, afterMm] = met.subarray(FIGURES * by, FIGURES * (by + 1));
      return points >= LEAST_POINTS ? { section, by, at: [x, y, z], afterMm } : null;
    }).filter((block) => block !== null),
  );
}

function moveOut(request: BlockRequest, cells: Cells, section: number, met: Float64Array): void {
  const { skins, pulls, sectionOf, shellMm, stepMm, boardMm } = request;
  const skin = skins[section];
  const d = pulls[section];
  const { normals } = vertexNormals(skin);
  const p = skin.positions;
  const vertices = p.length / 3;
  const far = reachOf(skins) + 2 * shellMm;
  const every = Math.max(1, Math.floor(vertices / SAMPLES));
  const point = new Float64Array(3);
  for (let v = 0; v < vertices; v += every) {
    for (const share of [0.25, 0.9]) {
      const start = [0, 1, 2].map((a) => p[3 * v + a] + share * shellMm * normals[3 * v + a]);
      if (nearEdge(request, cells, section, start, point)) continue;
      let free = 0;
      for (let moved = stepMm; moved < far; moved += Math.max(shellMm / 2, free)) {
        for (let a = 0; a < 3; a++) point[a] = start[a] + moved * d[a];
        if (boardMm !== null && point[2] < boardMm) break;
        // Only the thickness of a section is in the way.
        free = cells.distance(point) - cells.slackMm - 0.9 * shellMm;
        if (free + cells.slackMm > 0) continue;
        const by = sectionOf[cells.at(point[0], point[1], point[2])];
        if (by === section || by < 0) continue;
        const at = FIGURES * by;
        if (met[at] === 0 || moved < met[at + 4]) met.set([point[0], point[1], point[2], moved], at + 1);
        met[at]++;
        break;
      }
    }
  }
}

/** Does another section begin within a shell's thickness of a place? */
function nearEdge(
  request: BlockRequest,
  cells: Cells,
  section: number,
  at: readonly number[],
  point: Float64Array,
): boolean {
  const reach = Math.max(request.shellMm, 1.5 * request.stepMm);
  for (let axis = 0; axis < 3; axis++) {
    for (const side of [-reach, reach]) {
      for (let a = 0; a < 3; a++) point[a] = at[a] + (a === axis ? side : 0);
      if (request.sectionOf[cells.at(point[0], point[1], point[2])] !== section) return true;
    }
  }
  return false;
}

function reachOf(skins: readonly TriangleMesh[]): number {
  const low = [Infinity, Infinity, Infinity];
  const high = [-Infinity, -Infinity, -Infinity];
  for (const { positions } of skins) {
    for (let k = 0; k < positions.length; k++) {
      low[k % 3] = Math.min(low[k % 3], positions[k]);
      high[k % 3] = Math.max(high[k % 3], positions[k]);
    }
  }
  return Math.hypot(...high.map((value, a) => value - low[a]));
}

export interface Order {
  /** Sections in the order they are taken off. */
  readonly remove: readonly number[];
  /** The reverse: the order they are built in. */
  readonly build: readonly number[];
  /** Sections that block each other in a circle, and cannot be ordered. */
  readonly circle: readonly number[];
}

/**
 * Takes apart what nothing blocks, the last built first; those that leave only after the piece has been lifted as late as
 * can be.
 * @param sections how many there are, numbered from the lowest up
 * @param lifted 1 for each that leaves after a lift
 */
export function orderOf(
  sections: number,
  blocks: readonly Pick<Block, "section" | "by">[],
  lifted: readonly boolean[] = [],
): Order {
  const left = new Set(Array.from({ length: sections }, (_, s) => s));
  const remove: number[] = [];
  while (left.size > 0) {
    const free = [...left].filter((s) => !blocks.some(({ section, by }) => section === s && left.has(by)));
    if (free.length === 0) break;
    const standing = free.filter((s) => !lifted[s]);
    const next = Math.max(...(standing.length > 0 ? standing : free));
    left.delete(next);
    remove.push(next);
  }
  const circle = [...left];
  const whole = [...remove, ...[...circle].reverse()];
  return { remove: whole, build: [...whole].reverse(), circle };
}
