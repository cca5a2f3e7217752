/**
 * Who blocks whom. A section is a body of the shell's thickness T over its patch of the jacket; places of it are moved
 * along its pull, and where one bites into the body of a section that is still there, that one must leave first.
 *
 *   bite(x, t) = max over s > 0 of min(phi(y), T - phi(y), lead_t(y))        y = x + s d
 *
 * phi is the distance from the jacket, lead_t how far y is inside the cell of section t. Parting walls are leaned and
 * bevelled by hand, and shells are cast thinner where the form crowds them: places within a shell's thickness of a wall
 * are passed over, and a bite of a third of the thickness blocks nobody.
 *
 * Space of the caller: mm, z up.
 */
import type { JobContext } from "../job/context.ts";
import type { Kernel } from "../job/team.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { vertexNormals } from "../mesh/normals.ts";
import type { Direction } from "../space/directions.ts";
import { Cells, type CellsData } from "./cells.ts";

export interface Block {
  readonly section: number;
  readonly by: number;
  /** Where they would meet first, mm. */
  readonly at: readonly [number, number, number];
  /** How far the section has moved when they meet, mm. */
  readonly afterMm: number;
  /** How deep it would bite into the other, mm. */
  readonly biteMm: number;
  /** How much of the section would bite too deep, mm2. */
  readonly areaMm2: number;
}

export interface BlockRequest {
  readonly skins: readonly TriangleMesh[];
  readonly pulls: readonly Direction[];
  /** Cells of the jacket the skins lie on. */
  readonly cells: CellsData;
  /** Number of each cell's section, as the skins are numbered; -1 where a cell has none. */
  readonly sectionOf: readonly number[];
  readonly shellMm: number;
  readonly boardMm: number | null;
}

/** Places of a skin that stand for its section. */
const SAMPLES = 1500;
/** The shell is moved at these shares of its thickness. */
const DEPTHS = [0.25, 0.9];
/** Steps through the thickness of a section, mm. */
const STEP_MM = 2;
/** Where shells crowd each other each is cast thinner, by this share of its thickness at most. */
const TRIM_SHARE = 1 / 3;

/** What would bite too deep blocks nobody where it is so small a share of its section: it is left out by hand. */
const LEAST_SHARE = 0.01;

/** One section's places, moved along its pull by any thread. */
interface BlockShare {
  readonly request: BlockRequest;
  readonly section: number;
  /** Out: for every other section how deep it is bitten, mm, where it is met first (xyz), after how many mm, and how much of it, mm2. */
  readonly met: Float64Array;
}

const FIGURES = 6;

export const blockKernel: Kernel<BlockShare> = {
  name: "blocks",
  run: ({ request, section, met }) => moveOut(request, new Cells(request.cells), section, met),
};

/** Every section that another bites into on its way out deeper than can be trimmed. */
export function findBlocks(request: BlockRequest, ctx: JobContext): Block[] {
  const count = request.skins.length;
  const shares = request.skins.map(
    (_, section): BlockShare => ({ request, section, met: new Float64Array(ctx.team.buffer(8 * FIGURES * count)) }),
  );
  ctx.team.run(blockKernel, shares, () => ctx.checkCancelled());
  const areas = request.skins.map((skin) => vertexNormals(skin).areasMm2.reduce((sum, areaMm2) => sum + areaMm2, 0));
  return shares.flatMap(({ section, met }) =>
    Array.from({ length: count }, (_, by): Block | null => {
      const [biteMm, x, y, z, afterMm, areaMm2] = met.subarray(FIGURES * by, FIGURES * (by + 1));
      return areaMm2 > LEAST_SHARE * areas[section] ? { section, by, at: [x, y, z], afterMm, biteMm, areaMm2 } : null;
    }).filter((block) => block !== null),
  );
}

function moveOut(request: BlockRequest, cells: Cells, section: number, met: Float64Array): void {
  const { skins, pulls, sectionOf, shellMm, boardMm } = request;
  const skin = skins[section];
  const d = pulls[section];
  const { normals, areasMm2 } = vertexNormals(skin);
  const p = skin.positions;
  const vertices = p.length / 3;
  const far = reachOf(skins) + 2 * shellMm;
  const every = Math.max(1, Math.floor(vertices / SAMPLES));
  const trimMm = TRIM_SHARE * shellMm;
  const point = new Float64Array(3);
  for (let v = 0; v < vertices; v += every) {
    for (const share of DEPTHS) {
      const start = [0, 1, 2].map((a) => p[3 * v + a] + share * shellMm * normals[3 * v + a]);
      if (nearWall(request, cells, section, start, point)) continue;
      const stands = (areasMm2[v] * every) / DEPTHS.length;
      const counted = new Set<number>();
      let free = 0;
      for (let moved = STEP_MM; moved < far; moved += Math.max(STEP_MM, free)) {
        for (let a = 0; a < 3; a++) point[a] = start[a] + moved * d[a];
        if (boardMm !== null && point[2] < boardMm) break;
        // Only the thickness of a section is in the way.
        free = cells.roughMm(point) - cells.slackMm - shellMm;
        if (free >= 0 || sectionOf[cells.at(point[0], point[1], point[2])] === section) continue;
        const off = cells.distance(point);
        if (off >= shellMm) continue;
        const { section: cell, leadMm } = cells.leadAt(point[0], point[1], point[2]);
        const by = sectionOf[cell];
        if (by === section || by < 0) continue;
        const bite = Math.min(off, shellMm - off, leadMm);
        const at = FIGURES * by;
        if (bite > trimMm && (met[at] <= trimMm || moved < met[at + 4]))
          met.set([point[0], point[1], point[2], moved], at + 1);
        if (bite > met[at]) met[at] = bite;
        if (bite > trimMm && !counted.has(by)) {
          counted.add(by);
          met[at + 5] += stands;
        }
        // Once it is held, how deep is of no more interest.
        if (bite > DEEP_ENOUGH * trimMm) break;
      }
    }
  }
}

/** A place that bites so many times deeper than can be trimmed is not followed on. */
const DEEP_ENOUGH = 1.2;

/** Does another section begin within a shell's thickness of a place? */
function nearWall(
  { shellMm, sectionOf }: BlockRequest,
  cells: Cells,
  section: number,
  at: readonly number[],
  point: Float64Array,
): boolean {
  for (let axis = 0; axis < 3; axis++) {
    for (const side of [-shellMm, shellMm]) {
      for (let a = 0; a < 3; a++) point[a] = at[a] + (a === axis ? side : 0);
      if (sectionOf[cells.at(point[0], point[1], point[2])] !== section) return true;
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
