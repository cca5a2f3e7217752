/**
 * Frees the sections: fills the body until none of them bites deeper than the give on its way out, and measures what
 * they bite at the end. Filled bodies only grow, so it ends.
 */
import { type BrickGrid, nodeAt } from "../field/grid.ts";
import { isosurface } from "../field/isosurface.ts";
import { NearestField } from "../field/nearest.ts";
import type { Jacket } from "../jacket/jacket.ts";
import type { JobContext } from "../job/context.ts";
import { adjacencyOf, OPEN } from "../mesh/adjacency.ts";
import { clipAbove } from "../mesh/clip.ts";
import { areaAndVolume, sharedMesh, type TriangleMesh } from "../mesh/mesh.ts";
import { SPECK_MM3, withoutPockets } from "../mesh/pockets.ts";
import { vertexNeighbours } from "../mesh/vertexNeighbours.ts";
import { type CutResult, cutSections, edgeKey, type Ties } from "../parting/cut.ts";
import { dropIslands, labelsOf, withoutIslands } from "../parting/sections.ts";
import { measureBites } from "../release/bite.ts";
import { Body, type BodyData, bodyOf } from "../release/body.ts";
import { Cells } from "../release/cells.ts";
import { type FillChoice, nodesLeftOpen } from "../release/fills.ts";
import { type Joined, type OpenCells, visibleHull } from "../release/hull.ts";
import { redistance } from "../release/redistance.ts";
import { fillShadows } from "../release/shadows.ts";
import type { Direction } from "../survey/directions.ts";
import { vertexNormals } from "../survey/survey.ts";

/** A body that sections are laid on: its field, its outside and the places nearest to that. */
export interface Filled {
  readonly body: BodyData;
  readonly mesh: TriangleMesh;
  readonly nearest: NearestField;
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
  /** It gives up when more than this is filled, mm3. */
  readonly mostFillMm3: number;
  /** Sections that fills have left smaller than half of this go to their neighbours, mm2. */
  readonly leastMm2: number;
}

export interface SectionBite {
  /** The deepest it bites on its way out, mm. */
  readonly biteMm: number;
  /** The place of its inner face that bites so deep; null where none bites. */
  readonly at: readonly [number, number, number] | null;
  /** Places that bite deeper than the give, xyz and how deep, mm, 4 per place. */
  readonly points: Float32Array;
}

export interface FreedSections extends Filled {
  readonly potentials: readonly Float32Array[];
  readonly cells: Cells;
  readonly cut: CutResult;
  /** Where the lines cross edges otherwise than the potentials say. */
  readonly ties: Ties;
  readonly bites: readonly SectionBite[];
}

/** Rounds without gain after which it gives up, where what still bites is so many times the give. */
const FRUITLESS = 5;
const HOPELESS = 3;

/** So many rounds fill shadows just as they are; later ones a little more beside what still bites, mm. */
const SHADOW_ROUNDS = 2;
const MORE_MM = 0.75;
/** From round to round by this share of it more. */
const MORE_SHARE = 0.2;

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
  { request: { stepMm, onBoard } }: Jacket,
  { grid, phi, changed }: Joined,
  { capMm, boardMm }: BodyData,
  ctx: JobContext,
): Filled {
  const { mesh: whole, dropped } = withoutPockets(
    isosurface(grid, phi, 0, ctx),
    Math.max(SPECK_MM3, SPECK_CELLS * stepMm ** 3),
  );
  if (dropped) turnOver(grid, phi, dropped);
  redistance(grid, phi, sharedMesh(whole, ctx.team), changed, ctx);
  const body = bodyOf(grid, phi, capMm, boardMm, ctx.team);
  const mesh = sharedMesh(onBoard ? clipAbove(whole, 0) : whole, ctx.team);
  return { body, mesh, nearest: NearestField.about(mesh, 2 * stepMm, ctx) };
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
    const shadows = { body: round.body, cells: cells.data, pulls, open, biting, giveMm: FILLED_TO * giveMm, moreMm };
    const filled = outsideOf(jacket, fillShadows(shadows, ctx), round.body, ctx);
    // The lines stay where they are in space: a line that moves with every fill opens new shadows.
    const carried = cells.carried(filled.mesh, jacket.request.stepMm);
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
    if (k - bestAt >= FRUITLESS && greatestBite(best, open) > HOPELESS * giveMm) break;
  }
  return greatestBite(best, open) > giveMm ? best : faired(best, request, ctx);
}

/** Times the potentials beside the lines are evened out, first to last tried. */
const EVENINGS = [12, 4];
/** Lines are evened out within so many edges of the mesh. */
const EVENED_RINGS = 4;

/**
 * The lines without the zigzag that places going to one section or the other, one by one, have left: evened out as far as
 * all still comes off.
 */
function faired(freed: FreedSections, request: FreeRequest, ctx: JobContext): FreedSections {
  const near = vertexNeighbours(freed.mesh);
  for (const times of EVENINGS) {
    ctx.checkCancelled();
    const even = evened(freed.potentials, near, times);
    const next = settled(freed, even, request, ctx, NEARLY * request.giveMm);
    if (greatestBite(next, request.open) <= request.giveMm) return next;
  }
  return freed;
}

/** Potentials averaged over neighbours, so many times, near where they cross (Laplacian smoothing; Taubin 1995). */
function evened(potentials: readonly Float32Array[], near: Neighbours, times: number): Float32Array[] {
  const label = labelsOf(potentials);
  const beside = labelsAbout(label, near, EVENED_RINGS);
  const where = Array.from(label.keys()).filter((v) => beside[v] !== 1 << label[v]);
  const even = potentials.map((own) => own.slice());
  for (const own of even) {
    const next = new Float32Array(where.length);
    for (let round = 0; round < times; round++) {
      where.forEach((v, k) => {
        let sum = own[v];
        for (let n = near.start[v]; n < near.start[v + 1]; n++) sum += own[near.list[n]];
        next[k] = sum / (near.start[v + 1] - near.start[v] + 1);
      });
      where.forEach((v, k) => {
        own[v] = next[k];
      });
    }
  }
  return even;
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
  const about = { filled: body, bare: jacket, cells, sections: pulls.length, totalMm3: 0, mostSiliconeMm: 0, choices };
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
  return settled(opened, cells.carried(opened.mesh, jacket.request.stepMm), request, ctx);
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

/** Places that bite nearly as deep as the give are filled with those that bite deeper. */
const NEARLY = 0.9;

/** Places of sections that bite deeper than the give, where they are to be filled. */
function placesToFill({ bites }: FreedSections, open: readonly boolean[], giveMm: number): Float32Array {
  if (bites.every(({ biteMm }, s) => open[s] || biteMm <= giveMm)) return new Float32Array(0);
  const out: number[] = [];
  bites.forEach(({ points: p }, s) => {
    for (let k = 0; k < p.length; k += 4)
      if (!open[s] && p[k + 3] > NEARLY * giveMm) out.push(p[k], p[k + 1], p[k + 2]);
  });
  return Float32Array.from(out);
}

/** The sections cut on a body, with what lies beside their lines where it comes off, and what they bite. */
function settled(
  filled: Filled,
  potentials: readonly Float32Array[],
  request: FreeRequest,
  ctx: JobContext,
  fineMm = FILLED_TO * request.giveMm,
): FreedSections {
  const { mesh, nearest, body } = filled;
  const { pulls, giveMm } = request;
  const fields = settledBeside(filled, potentials, request, fineMm, ctx);
  const ties = alongWalls(filled, fields, request, fineMm, ctx);
  const cells = Cells.of(nearest, fields, ctx.team);
  const cut = cutSections(mesh, fields, ties);
  return { ...filled, potentials: fields, cells, cut, ties, bites: bitesOf(cut, body, pulls, giveMm, ctx) };
}

/** The inner faces are looked at this far off the surface, mm: a way out does not begin by touching it. */
const OFF_MM = 0.05;
/**
 * The edges of a section are bevelled so far, mm, as a hand rasps them: a place nearer to the edge stands back from the
 * jacket by as much as it is nearer.
 */
const BEVEL_MM = 3;
/** The vertices on a skin's edge are looked at so far inwards, mm. */
const INWARDS_MM = 1;

/** Places of a section's inner face, and how far each stands back from the jacket by its bevel, mm. */
interface Places {
  readonly points: Float32Array;
  readonly backMm: Float32Array;
}

/** A skin's vertices, a little off the body; those on its edge a little inwards. */
function placesOf(skin: TriangleMesh, data: BodyData): Places {
  const { positions: p, triangles: t } = skin;
  const { normals } = vertexNormals(skin);
  const points = Float32Array.from(p);
  const { edgesAt, middles } = edgesOf(skin);
  const backMm = new Float32Array(p.length / 3);
  for (const [v, edges] of edgesAt) {
    const middle = middles.get(v);
    if (middle) {
      const way = [0, 1, 2].map((x) => middle[x] - p[3 * v + x]);
      const share = Math.min(1, INWARDS_MM / Math.hypot(...way));
      for (let x = 0; x < 3; x++) points[3 * v + x] += share * way[x];
    }
    const away = edges.reduce((least, e) => {
      const [a, b] = [3 * t[e], 3 * t[e % 3 === 2 ? e - 2 : e + 1]];
      return Math.min(least, distanceToSegment(points, 3 * v, p, a, b));
    }, Infinity);
    backMm[v] = Math.max(0, BEVEL_MM - away);
  }
  // The face is where the field is nought; triangles cut the corners of what is between the nodes.
  const body = new Body(data);
  for (let k = 0; k < points.length; k += 3) {
    const off = Math.max(OFF_MM, OFF_MM - body.at(points[k], points[k + 1], points[k + 2]));
    for (let x = 0; x < 3; x++) points[k + x] += off * normals[k + x];
  }
  return { points, backMm };
}

/**
 * Of every vertex of a triangle on a skin's edge, the edges of the skin that are near it; and of every vertex on the edge
 * the middle of its triangle that reaches farthest inwards.
 */
function edgesOf(skin: TriangleMesh) {
  const { positions: p, triangles: t } = skin;
  const { across } = adjacencyOf(skin);
  const edgesAt = new Map<number, number[]>();
  const middles = new Map<number, readonly number[]>();
  const onEdge = new Uint8Array(p.length / 3);
  for (let e = 0; e < t.length; e++) {
    if (across[e] !== OPEN) continue;
    const first = e - (e % 3);
    for (let c = first; c < first + 3; c++) {
      const held = edgesAt.get(t[c]);
      if (held) held.push(e);
      else edgesAt.set(t[c], [e]);
    }
    onEdge[t[e]] = 1;
    onEdge[t[e % 3 === 2 ? e - 2 : e + 1]] = 1;
  }
  const farthest = new Map<number, number>();
  for (let k = 0; k < t.length; k++) {
    const v = t[k];
    if (!onEdge[v]) continue;
    const first = k - (k % 3);
    const middle = [0, 1, 2].map((x) => (p[3 * t[first] + x] + p[3 * t[first + 1] + x] + p[3 * t[first + 2] + x]) / 3);
    const length = Math.hypot(...middle.map((value, x) => value - p[3 * v + x]));
    if (length <= (farthest.get(v) ?? 0)) continue;
    farthest.set(v, length);
    middles.set(v, middle);
  }
  return { edgesAt, middles };
}

function distanceToSegment(points: Float32Array, at: number, p: Float32Array, a: number, b: number): number {
  const along = [0, 1, 2].map((x) => p[b + x] - p[a + x]);
  const from = [0, 1, 2].map((x) => points[at + x] - p[a + x]);
  const length2 = along.reduce((sum, x) => sum + x * x, 0);
  const share = length2 > 0 ? Math.max(0, Math.min(1, along.reduce((sum, x, k) => sum + x * from[k], 0) / length2)) : 0;
  return Math.hypot(...from.map((x, k) => x - share * along[k]));
}

function bitesOf(
  { skins }: CutResult,
  body: BodyData,
  pulls: readonly Direction[],
  giveMm: number,
  ctx: JobContext,
): SectionBite[] {
  const places = skins.map((skin) => placesOf(skin, body));
  const count = places.reduce((sum, { backMm }) => sum + backMm.length, 0);
  const points = new Float32Array(ctx.team.buffer(12 * count));
  const section = new Uint8Array(ctx.team.buffer(count));
  const backMm = new Float32Array(count);
  let at = 0;
  places.forEach((own, s) => {
    points.set(own.points, 3 * at);
    backMm.set(own.backMm, at);
    section.fill(s, at, at + own.backMm.length);
    at += own.backMm.length;
  });
  const request = { body, points, section, pulls, fineMm: FILLED_TO * giveMm };
  const bites = measureBites(request, ctx);
  const found = skins.map(() => ({ biteMm: 0, place: -1, points: [] as number[] }));
  bites.forEach((bite, p) => {
    const own = found[section[p]];
    const biteMm = bite - backMm[p];
    if (biteMm > own.biteMm) Object.assign(own, { biteMm, place: p });
    if (biteMm > FILLED_TO * giveMm) own.points.push(...points.subarray(3 * p, 3 * p + 3), biteMm);
  });
  return found.map(({ biteMm, place, points: biting }) => ({
    biteMm,
    at: place < 0 ? null : [points[3 * place], points[3 * place + 1], points[3 * place + 2]],
    points: Float32Array.from(biting),
  }));
}

/** Beside a line a vertex may go to the other section as far as this from it, in edges of the mesh. */
const BESIDE_RINGS = 2;

/** The sections within some rings of every vertex, as bits. */
function labelsAbout(label: Uint8Array, { start, list }: Neighbours, rings = BESIDE_RINGS): Uint32Array {
  let about = Uint32Array.from(label, (s) => 1 << s);
  for (let r = 0; r < rings; r++) {
    const wider = about.slice();
    for (let v = 0; v < label.length; v++) {
      for (let k = start[v]; k < start[v + 1]; k++) wider[v] |= about[list[k]];
    }
    about = wider;
  }
  return about;
}

interface Neighbours {
  readonly start: Uint32Array;
  readonly list: Uint32Array;
}

/**
 * The sections with the places beside their lines given to whichever of the two comes off there: the potentials tell on
 * which side of a fill's wall the air lies no better than to a step. Changes the potentials.
 */
function settledBeside(
  { mesh, body }: Filled,
  potentials: readonly Float32Array[],
  { jacket, pulls, giveMm }: FreeRequest,
  fineMm: number,
  ctx: JobContext,
): Float32Array[] {
  const h = jacket.request.stepMm;
  const { normals } = vertexNormals(mesh);
  const label = labelsOf(potentials);
  const near = vertexNeighbours(mesh);
  const beside: { v: number; own: number; other: number }[] = [];
  labelsAbout(label, near).forEach((bits, v) => {
    const own = label[v];
    if (bits === 1 << own) return;
    for (let other = 0; other < potentials.length; other++) {
      if (other !== own && bits & (1 << other)) beside.push({ v, own, other });
    }
  });
  const points = new Float32Array(ctx.team.buffer(24 * beside.length));
  const section = new Uint8Array(ctx.team.buffer(2 * beside.length));
  beside.forEach(({ v, own, other }, k) => {
    for (const at of [2 * k, 2 * k + 1]) {
      for (let a = 0; a < 3; a++) points[3 * at + a] = mesh.positions[3 * v + a] + OFF_MM * normals[3 * v + a];
    }
    section[2 * k] = own;
    section[2 * k + 1] = other;
  });
  const bites = measureBites({ body, points, section, pulls, fineMm }, ctx);
  const better = new Map<number, { other: number; biteMm: number }>();
  beside.forEach(({ v, other }, k) => {
    const [mine, its] = [bites[2 * k], bites[2 * k + 1]];
    if (mine <= fineMm || its > Math.min(mine, giveMm) || its >= (better.get(v)?.biteMm ?? Infinity)) return;
    better.set(v, { other, biteMm: its });
  });
  for (const [v, { other }] of better) {
    const most = potentials.reduce((greatest, own) => Math.max(greatest, own[v]), -Infinity);
    potentials[other][v] = most + LEAD_STEPS * h;
  }
  return withoutIslands([...potentials], near);
}

/** Places along an edge that a line may cross it between. */
const TIES = 8;

/**
 * The lines as they run along fills' walls: an edge between two sections is crossed where both come off on either side,
 * told at places along it.
 */
function alongWalls(
  { mesh, body }: Filled,
  potentials: readonly Float32Array[],
  { pulls }: FreeRequest,
  fineMm: number,
  ctx: JobContext,
): Ties {
  const { positions: p, triangles: t } = mesh;
  const { normals } = vertexNormals(mesh);
  const label = labelsOf(potentials);
  const vertices = label.length;
  const edges = new Map<number, readonly [number, number]>();
  for (let e = 0; e < t.length; e++) {
    const [a, b] = [t[e], t[e % 3 === 2 ? e - 2 : e + 1]];
    if (label[a] !== label[b]) edges.set(edgeKey(a, b, vertices), [Math.min(a, b), Math.max(a, b)]);
  }
  const list = [...edges];
  const points = new Float32Array(ctx.team.buffer(24 * TIES * list.length));
  const section = new Uint8Array(ctx.team.buffer(2 * TIES * list.length));
  list.forEach(([, [low, high]], q) => {
    for (let k = 0; k < TIES; k++) {
      const share = (k + 0.5) / TIES;
      for (let side = 0; side < 2; side++) {
        const at = 2 * (TIES * q + k) + side;
        for (let a = 0; a < 3; a++) {
          const [from, to] = [3 * low + a, 3 * high + a];
          points[3 * at + a] =
            p[from] * (1 - share) + p[to] * share + OFF_MM * (normals[from] * (1 - share) + normals[to] * share);
        }
        section[at] = label[side === 0 ? low : high];
      }
    }
  });
  const bites = measureBites({ body, points, section, pulls, fineMm }, ctx);
  const ties = new Map<number, number>();
  const over = (at: number) => Math.max(0, bites[at] - fineMm);
  list.forEach(([key, [low, high]], q) => {
    const [mine, its] = [potentials[label[low]], potentials[label[high]]];
    const [before, after] = [mine[low] - its[low], its[high] - mine[high]];
    const usual = before / (before + after || 1);
    let best = usual;
    let least = Infinity;
    for (let c = 0; c <= TIES; c++) {
      let price = (0.01 * Math.abs(c / TIES - usual)) as number;
      for (let k = 0; k < TIES; k++) price += over(2 * (TIES * q + k) + (k < c ? 0 : 1));
      if (price >= least) continue;
      least = price;
      best = c / TIES;
    }
    if (Math.abs(best - usual) > 0.5 / TIES) ties.set(key, best);
  });
  return ties;
}

/** By so many steps a vertex that went to another section is within it. */
const LEAD_STEPS = 0.2;
