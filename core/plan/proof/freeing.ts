/**
 * Frees the sections: fills the body until none of them bites deeper than the give on its way out, and measures what
 * they bite at the end. Filled bodies only grow, so it ends.
 */
import { type BrickGrid, nodeAt } from "../../field/grid.ts";
import { isosurface } from "../../field/isosurface.ts";
import { NearestField } from "../../field/nearest.ts";
import type { Jacket } from "../../jacket/jacket.ts";
import type { JobContext } from "../../job/context.ts";
import { once } from "../../job/once.ts";
import { clipAbove } from "../../mesh/clip.ts";
import { areaAndVolume, sharedMesh, type TriangleMesh } from "../../mesh/mesh.ts";
import { SPECK_MM3, withoutPockets } from "../../mesh/pockets.ts";
import { vertexNeighbours } from "../../mesh/vertexNeighbours.ts";
import { type CutResult, cutSections, type Ties } from "../../parting/lines/cut.ts";
import { dropIslands, labelsOf } from "../../parting/lines/sections.ts";
import { type BodyData, bodyOf } from "../../release/body.ts";
import { Cells } from "../../release/cells.ts";
import { type FillChoice, nodesLeftOpen } from "../../release/fills.ts";
import { dropFloating } from "../../release/floating.ts";
import { type Joined, type OpenCells, visibleHull } from "../../release/hull.ts";
import { biteOfSections, type SectionBite } from "../../release/innerFaces.ts";
import { redistance } from "../../release/redistance.ts";
import { fillShadows } from "../../release/shadows.ts";
import type { Direction } from "../../space/directions.ts";
import { alongWalls, evened, settledBeside } from "./besideLines.ts";
import { Places, STAY_MM } from "./places.ts";

/** A body that sections are laid on: its field, its outside and the places nearest to that. */
export interface Filled {
  readonly body: BodyData;
  readonly mesh: TriangleMesh;
  /** Worked out when it is first asked for: most bodies on the way to the last are not asked. */
  readonly nearest: () => NearestField;
}

export interface FreeRequest {
  readonly jacket: Jacket;
  readonly pulls: readonly Direction[];
  /** What the rubber yields to, mm. */
  readonly giveMm: number;
  /** Sections whose shadows are left as they are. */
  readonly open: readonly boolean[];
  /** Times it fills before it gives up. */
  readonly rounds: number;
  /**
   * It gives up when more than this is filled, mm3. Where it is infinite it goes on to its last round, unless a section is
   * held by what is left open.
   */
  readonly mostFillMm3: number;
  /** Sections that fills have left smaller than half of this go to their neighbours, mm2. */
  readonly leastMm2: number;
  /** Lays the lines of a filled body again as a hand would run them; null where they were laid by hand and stay. */
  readonly runOn:
    | ((filled: Filled, potentials: readonly Float32Array[], stays: Places) => readonly Float32Array[])
    | null;
}

export interface FreedSections extends Filled {
  readonly potentials: readonly Float32Array[];
  /** Worked out when they are first asked for. */
  readonly cells: () => Cells;
  readonly cut: CutResult;
  /** Where the lines cross edges otherwise than the potentials say. */
  readonly ties: Ties;
  readonly bites: readonly SectionBite[];
}

/** Rounds without gain after which it gives up, where what still bites is so many times the give; and where it is less. */
const FRUITLESS = 5;
const HOPELESS = 3;
const LONG_FRUITLESS = 15;

/** So many rounds fill shadows just as they are; later ones a little more beside and behind what still bites, mm. */
const SHADOW_ROUNDS = 2;
const MORE_MM = 0.75;
/** From round to round by this share of it more. */
const MORE_SHARE = 0.5;

/** A section is no smaller than a hand, mm2. */
const LEAST_SECTION_MM2 = 20_000;

/** Of the give, what a fill leaves: the rest is for the grid, which knows a fill's edges to a part of its step. */
const FILLED_TO = 0.25;

/** The jacket as a body before any fill. */
export function bareBody(jacket: Jacket, ctx: JobContext): BodyData {
  const { smoothingMm, stepMm, onBoard } = jacket.request;
  const capMm = Math.max(smoothingMm, stepMm) + stepMm;
  return bodyOf(jacket.grid, jacket.phi, capMm, onBoard ? 0 : null, ctx.team);
}

/** The visible hull of the jacket under some pulls. */
export function hullOf(
  jacket: Jacket,
  body: BodyData,
  pulls: readonly Direction[],
  giveMm: number,
  ctx: JobContext,
  open: OpenCells | null = null,
): Filled {
  const request = { body, mesh: jacket.mesh, pulls, giveMm: FILLED_TO * giveMm, open };
  return outsideOf(jacket, visibleHull(request, ctx), body, ctx);
}

/** What is joined to nothing and no larger than so many cells of the grid is no fill. */
const SPECK_CELLS = 20;

function outsideOf(
  jacket: Jacket,
  { grid, phi, changed }: Joined,
  { capMm, boardMm }: BodyData,
  ctx: JobContext,
): Filled {
  const { stepMm, onBoard } = jacket.request;
  dropFloating(grid, phi, jacket, changed);
  const { mesh: whole, dropped } = withoutPockets(
    isosurface(grid, phi, 0, ctx),
    Math.max(SPECK_MM3, SPECK_CELLS * stepMm ** 3),
  );
  if (dropped) turnOver(grid, phi, dropped);
  redistance(grid, phi, sharedMesh(whole, ctx.team), changed, ctx);
  const body = bodyOf(grid, phi, capMm, boardMm, ctx.team);
  const mesh = sharedMesh(onBoard ? clipAbove(whole, 0) : whole, ctx.team);
  return { body, mesh, nearest: once(() => NearestField.about(mesh, 2 * stepMm, ctx)) };
}

/** Specks leave the field as they leave the surface: nodes inside, beside their triangles, are outside from now on. */
function turnOver(grid: BrickGrid, phi: Float32Array, { positions: p, triangles: t }: TriangleMesh): void {
  for (let k = 0; k < t.length; k += 3) {
    const [low, high] = [Math.floor, Math.ceil].map((round, side) =>
      [0, 1, 2].map((a) => {
        const values = [p[3 * t[k] + a], p[3 * t[k + 1] + a], p[3 * t[k + 2] + a]];
        return round(((side ? Math.max(...values) : Math.min(...values)) - grid.originMm[a]) / grid.stepMm);
      }),
    );
    for (let z = low[2]; z <= high[2]; z++) {
      for (let y = low[1]; y <= high[1]; y++) {
        for (let x = low[0]; x <= high[0]; x++) {
          const n = nodeAt(grid, x, y, z);
          if (n >= 0 && phi[n] < 0) phi[n] = grid.stepMm / 2;
        }
      }
    }
  }
}

/**
 * Fills until nothing bites deeper than the give.
 * @param potentials of each section on the vertices of the body, mm from its own border
 */
export function freeSections(
  start: Filled,
  potentials: readonly Float32Array[],
  request: FreeRequest,
  ctx: JobContext,
): FreedSections {
  const { jacket, pulls, giveMm, open, rounds, mostFillMm3, leastMm2 } = request;
  const bareMm3 = areaAndVolume(jacket.mesh).volumeMm3;
  const least = LEAST_SECTION_MM2 / jacket.request.stepMm ** 2;
  let round = settled(start, potentials, request, ctx);
  let { cells } = round;
  let best = round;
  let bestAt = 0;
  for (let k = 0; k < rounds; k++) {
    ctx.checkCancelled();
    ctx.progress("parting", 0.6 + (0.35 * k) / rounds);
    const biting = placesToFill(round, open, giveMm);
    if (biting.length === 0 || areaAndVolume(round.mesh).volumeMm3 - bareMm3 > mostFillMm3) break;
    const moreMm = k < SHADOW_ROUNDS ? 0 : MORE_MM * (1 + (k - SHADOW_ROUNDS) * MORE_SHARE);
    const shadows = { body: round.body, cells: cells().data, pulls, open, biting, giveMm: FILLED_TO * giveMm, moreMm };
    const filled = outsideOf(jacket, fillShadows(shadows, ctx), round.body, ctx);
    // The lines stay where they are in space: a line that moves with every fill opens new shadows.
    const carried = cells().carried(filled.mesh, jacket.request.stepMm);
    const islands = dropIslands(carried, vertexNeighbours(filled.mesh), least);
    round = settled(filled, carried, request, ctx);
    if (dissolved(round, leastMm2 / 2)) round = settled(filled, round.potentials, request, ctx);
    // What a fill has cut off went to another section, and so does the space before it.
    if (islands > 0) cells = round.cells;
    if (greatestBite(round, open) < greatestBite(best, open)) {
      best = round;
      bestAt = k;
    }
    // Fills that stand in each other's way without gaining anything are given up.
    const fruitless = greatestBite(best, open) > HOPELESS * giveMm ? FRUITLESS : LONG_FRUITLESS;
    if (k - bestAt >= fruitless && (mostFillMm3 < Infinity || isHeldOpen(round, request))) break;
  }
  return greatestBite(best, open) > giveMm ? best : faired(best, request, ctx);
}

/** How far the potentials beside the lines are evened out, mm, first to last tried. */
const EVENINGS_MM = [24, 14];
/** So often lines are laid fair but about what then bites, before they are left as they are. */
const FAIRINGS = 6;

/**
 * The lines without the zigzag that places going to one section or the other, one by one, have left: evened out, and run
 * on where they were suggested. About places where a section would then be held they stay as they were.
 */
function faired(freed: FreedSections, request: FreeRequest, ctx: JobContext): FreedSections {
  const { runOn } = request;
  const near = vertexNeighbours(freed.mesh);
  const { stepMm } = request.jacket.request;
  for (const overMm of EVENINGS_MM) {
    const even = (stays: Places) =>
      evened(freed.potentials, near, stepMm, overMm, (v) => stays.awayMm(freed.mesh.positions, v) < STAY_MM);
    const direct = runOn && laidFair(freed, (stays) => runOn(freed, even(stays), stays), request, ctx);
    if (direct) return direct;
    const next = laidFair(freed, even, request, ctx);
    if (next) return (runOn && laidFair(next, (stays) => runOn(next, next.potentials, stays), request, ctx)) ?? next;
  }
  return freed;
}

/** Of its area, every section keeps so much while its lines are laid fair. */
const KEPT_SHARE = 0.7;

function losesSection({ cut: before }: FreedSections, { cut: after }: FreedSections): boolean {
  return before.skins.some((skin, s) => {
    const areaMm2 = skin.triangles.length > 0 ? areaAndVolume(skin).areaMm2 : 0;
    const left = after.skins[s].triangles.length > 0 ? areaAndVolume(after.skins[s]).areaMm2 : 0;
    return left < KEPT_SHARE * areaMm2;
  });
}

/** The sections with their lines laid fair as far as all of them still come off; null where they do not. */
function laidFair(
  freed: FreedSections,
  lay: (stays: Places) => readonly Float32Array[],
  request: FreeRequest,
  ctx: JobContext,
): FreedSections | null {
  const stays = new Places();
  for (let k = 0; k < FAIRINGS; k++) {
    ctx.checkCancelled();
    const next = settled(freed, lay(stays), request, ctx, NEARLY * request.giveMm);
    if (losesSection(freed, next)) return null;
    const biting = placesToFill(next, request.open, request.giveMm);
    if (biting.length === 0) return next;
    let more = false;
    for (let p = 0; p < biting.length; p += 4) if (stays.add(biting[p], biting[p + 1], biting[p + 2])) more = true;
    // What bites where the lines stayed as they were does so however often they are laid.
    if (!more) return null;
  }
  return null;
}
/**
 * The sections once more with the fills open again that were chosen to be left open: what cannot leave without them bites
 * there, and is held.
 */
export function withLeftOpen(
  freed: FreedSections,
  request: FreeRequest,
  choices: readonly FillChoice[],
  ctx: JobContext,
) {
  const { jacket, pulls } = request;
  const { body, cells } = freed;
  const about = {
    filled: body,
    bare: jacket,
    cells: cells(),
    sections: pulls.length,
    totalMm3: 0,
    mostSiliconeMm: 0,
    choices,
  };
  const nodes = nodesLeftOpen(about);
  if (nodes.length === 0) return freed;
  const { grid, capMm } = body;
  const phi = body.phi.slice();
  const changed = new Uint8Array(grid.slotOf.length);
  const [nx, ny, nz] = grid.bricks;
  for (let p = 0; p < nodes.length; p += 3) {
    const [i, j, k] = nodes.slice(p, p + 3);
    const bare = nodeAt(jacket.grid, i, j, k);
    phi[nodeAt(grid, i, j, k)] = bare < 0 ? capMm : Math.min(capMm, jacket.phi[bare]);
    // The jacket under it is as deep inside again as it was: its surface runs between the two.
    for (let c = 0; c < 27; c++) {
      const at = [i + (c % 3) - 1, j + (Math.floor(c / 3) % 3) - 1, k + Math.floor(c / 9) - 1] as const;
      const [under, node] = [nodeAt(jacket.grid, ...at), nodeAt(grid, ...at)];
      if (under >= 0 && node >= 0 && jacket.phi[under] < 0) phi[node] = jacket.phi[under];
    }
    // Within two steps of what is opened the field is made true again.
    for (let c = 0; c < 8; c++) {
      const [x, y, z] = [i + (c & 1 ? 2 : -2), j + (c & 2 ? 2 : -2), k + (c & 4 ? 2 : -2)].map((n) => n >> 3);
      if (x >= 0 && y >= 0 && z >= 0 && x < nx && y < ny && z < nz) changed[x + nx * (y + ny * z)] = 1;
    }
  }
  const opened = outsideOf(jacket, { grid, phi, changed }, body, ctx);
  return settled(opened, cells().carried(opened.mesh, jacket.request.stepMm), request, ctx);
}

/** Gives up sections smaller than an area, where they are not the last; changes their potentials. */
function dissolved({ cut: { skins }, potentials }: FreedSections, leastMm2: number): boolean {
  let any = false;
  skins.forEach((skin, s) => {
    if (skin.triangles.length === 0 || areaAndVolume(skin).areaMm2 >= leastMm2) return;
    potentials[s].fill(NOWHERE);
    any = true;
  });
  return any;
}

/** The potential of a section that has no place left. */
const NOWHERE = -1e6;

function greatestBite({ bites }: FreedSections, open: readonly boolean[]): number {
  return bites.reduce((most, { biteMm }, s) => (open[s] ? most : Math.max(most, biteMm)), 0);
}

/** Is a section held by what is left open? Then the plan does not come off, whatever is filled of the others. */
function isHeldOpen({ bites }: FreedSections, { open, giveMm }: FreeRequest): boolean {
  return bites.some(({ biteMm }, s) => open[s] && biteMm > giveMm);
}

/** Places that bite nearly as deep as the give are filled with those that bite deeper. */
const NEARLY = 0.9;

/** Places of sections that bite deeper than the give, where they are to be filled: xyz and the section, 4 per place. */
function placesToFill({ bites }: FreedSections, open: readonly boolean[], giveMm: number): Float32Array {
  if (bites.every(({ biteMm }, s) => open[s] || biteMm <= giveMm)) return new Float32Array(0);
  const out: number[] = [];
  bites.forEach(({ points: p }, s) => {
    for (let k = 0; k < p.length; k += 4)
      if (!open[s] && p[k + 3] > NEARLY * giveMm) out.push(p[k], p[k + 1], p[k + 2], s);
  });
  return Float32Array.from(out);
}

/** The sections cut on a body, with what lies beside their lines where it comes off, and what they bite. */
export function settled(
  filled: Filled,
  potentials: readonly Float32Array[],
  request: FreeRequest,
  ctx: JobContext,
  fineMm = FILLED_TO * request.giveMm,
): FreedSections {
  const { mesh, body } = filled;
  const { pulls, giveMm } = request;
  const measuredMm = FILLED_TO * giveMm;
  const about = { mesh, body, pulls, giveMm, measuredMm, fineMm };
  const fields = settledBeside(about, potentials, ctx);
  const ties = alongWalls(about, fields, ctx);
  const cut = cutSections(mesh, fields, ties);
  return {
    ...filled,
    potentials: fields,
    cells: once(() => Cells.of(filled.nearest(), fields, ctx.team)),
    cut,
    ties,
    bites: biteOfSections({ body, mesh, label: labelsOf(fields), cut }, pulls, measuredMm, ctx),
  };
}
