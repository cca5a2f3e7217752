/**
 * Every section as a solid: the shell over its part of the jacket, its flanges along the walls, bolt holes through them, and
 * the dimples of their keys: pits in the section that is built first, domes on the one built against it.
 */
import { type DistanceField, distanceField } from "../field/distance.ts";
import { isosurface } from "../field/isosurface.ts";
import type { AlongWall } from "../flange/along.ts";
import type { Fastenings } from "../flange/fastenings.ts";
import type { BoltHold } from "../flange/settings.ts";
import { OVER_BOARD_MM } from "../foot/footprint.ts";
import type { JobContext } from "../job/context.ts";
import type { PushHole } from "../keys/pushHoles.ts";
import { areaAndVolume, type TriangleMesh } from "../mesh/mesh.ts";
import { SPECK_MM3, withoutPockets } from "../mesh/pockets.ts";
import type { BodyData } from "../release/body.ts";
import type { Cells } from "../release/cells.ts";
import { ridgeRings, standingRibs } from "../ribs/body.ts";
import type { Rib } from "../ribs/ribs.ts";
import type { RibShape } from "../ribs/shape.ts";
import type { ShellThicknesses } from "../shell/index.ts";
import { cellBodies } from "./cellBodies.ts";
import { Edges } from "./edges.ts";
import { fastened } from "./fastened.ts";
import { type FootBody, footSolid, footSpaces, rimSolid } from "./foot.ts";
import { meshOf, type Solid, type Solids, withSolids } from "./kernel.ts";
import { leanReady, leanSolid } from "./leaner.ts";
import { type LetterPlace, lettersSolid } from "./letters.ts";
import { type NumberPlace, numberSolid } from "./number.ts";

export interface SolidsRequest {
  /** What the shell is built on, as a field. */
  readonly body: BodyData;
  readonly cells: Cells;
  /** The cell of each section, in the order they are built. */
  readonly cellOf: readonly number[];
  readonly walls: readonly { readonly along: AlongWall; readonly fastenings: Fastenings }[];
  /** Thicknesses of every section's shell and flanges, in their order. */
  readonly shells: readonly ShellThicknesses[];
  readonly holeMm: number;
  readonly hold: BoltHold;
  readonly boardMm: number | null;
  readonly ribs: readonly Rib[];
  /** What ribs of every section are across, in their order. */
  readonly ribShapes: readonly RibShape[];
  /** Where each section's number stands, in their order; null where one is too small. */
  readonly numbers: readonly (NumberPlace | null)[];
  /** The letters of the piece's name on each section, in their order; none where there is no room for them. */
  readonly names: readonly (readonly LetterPlace[])[];
  /** Along the board; null where it floats. */
  readonly foot: FootBody | null;
  /** Through the shell of a plan of one section. */
  readonly pushHoles: readonly PushHole[];
}

export interface SectionSolid {
  /** From one, in the order they are built. */
  readonly number: number;
  readonly mesh: TriangleMesh;
  readonly volumeMm3: number;
  /** Where its weight is taken to act. */
  readonly centreMm: readonly [number, number, number];
  /** Sides of the smallest box it goes into, longest first, mm. */
  readonly sizeMm: readonly [number, number, number];
  /** Pieces that hang together; more than one is told. */
  readonly pieces: number;
}

/** Faces are made of fewer triangles where none strays by more than this, mm. */
const SIMPLER_MM = 0.3;
/** Where sections part, their faces stray by no more than this from where they were laid, mm. */
const PARTING_MM = 0.05;
/** Corners nearer to each other than this are one: bodies cut many times hold slivers that no file of floats keeps apart, mm. */
const TIDY_MM = 0.005;
/** Scraps smaller than this are knocked off by hand, mm3. */
export const SCRAP_MM3 = 20_000;
/** Two bodies that meet are kept so far apart, mm: nothing overlaps. */
const KERF_MM = 0.02;

export async function sectionSolids(request: SolidsRequest, ctx: JobContext): Promise<SectionSolid[]> {
  const { body, shells, boardMm } = request;
  const thicknesses = shells.filter((shell, k) => shells.findIndex((other) => isAlike(shell, other)) === k);
  const thickestMm = Math.max(...thicknesses.flatMap(({ shellMm, flangeMm }) => [shellMm, flangeMm]));
  const { stepMm } = body.grid;
  const inner = withoutPockets(isosurface(body.grid, body.phi, 0, ctx), SPECK_MM3).mesh;
  const reachMm = thickestMm + 3 * stepMm;
  const exactBandsMm = thicknesses.map(({ shellMm, flangeMm }): [number, number] => [
    Math.max(0, Math.min(shellMm, flangeMm) - stepMm),
    Math.max(shellMm, flangeMm) + stepMm,
  ]);
  const field = distanceField(inner, { stepMm, reachMm, exactBandsMm }, ctx);
  await leanReady;
  return withSolids((solids) => {
    const jacket = leanSolid(solids, inner, SIMPLER_MM, "The jacket");
    // The rim is taken out of what is small: the whole jacket is cut as seldom as can be.
    const rim = request.foot && rimSolid(solids, request.foot);
    const rims = rim ? [rim] : [];
    const along = request.walls.map((wall) => wall.along);
    const laid: LaidShell[] = [];
    for (const thick of thicknesses) {
      const edges = new Edges({ walls: along, boardMm }, thick);
      const face = outerFace(field, edges, thick, ctx);
      const rest = solids.only(() => {
        const shell = solids.minus(leanSolid(solids, face, SIMPLER_MM, "The outside of the shell"), jacket);
        return boardMm === null ? shell : solids.above(shell, boardMm);
      });
      laid.push({ thick, edges, rest });
    }
    const laidAs = (thick: ShellThicknesses) => laid.find((each) => isAlike(each.thick, thick)) as LaidShell;
    const feet = feetOf(solids, jacket, rims, request);
    const spaces = cellBodies({ ...request, shellMm: thickestMm, field, walls: along }, ctx);
    const skins = shells.map((shell, s) => skinOf(solids, laid, laidAs(shell), spaces[s], s));
    const onBoard = (solid: Solid) => (boardMm === null ? solid : solids.above(solid, boardMm));
    const done: Solid[] = [];
    /** Flanges and feet: what stands out from the shells. */
    const standing: Solid[] = [];
    return shells.map((_, s): SectionSolid => {
      ctx.checkCancelled();
      ctx.progress("solids", s / shells.length);
      // Where walls turn tightly a flange may run into its neighbours: what was built first stays.
      const { edges } = laidAs(shells[s]);
      const own = flangeOf(solids, jacket, request, s + 1);
      const flange = own && solids.only(() => without(solids, own, [...done, ...rims]));
      const foot = feet[s] && solids.only(() => without(solids, feet[s], done));
      const before = [...standing, ...rims];
      standing.push(...(flange ? [flange] : []), ...(foot ? [foot] : []));
      let pieces = 0;
      const whole = solids.only(() => {
        const ribs = ribsOf(solids, jacket, request, s + 1);
        const place = request.numbers[s];
        const number = place && numberSolid(solids, s + 1, place, edges.thicknessMm(place.at, place.normal));
        const name = lettersSolid(solids, request.names[s] ?? [], ({ at, normal }) => edges.thicknessMm(at, normal));
        const over = [ribs, number, name].filter((body) => body !== null && body !== undefined);
        const parts = [
          without(solids, skins[s], before),
          ...(flange ? [flange] : []),
          ...(foot ? [foot] : []),
          ...over.map((body) => onBoard(without(solids, body, done))),
        ];
        const solid = solids.simpler(fastened(solids, parts, { ...request, ...shells[s] }, s + 1), TIDY_MM);
        const large = solids.pieces(solid, SCRAP_MM3);
        pieces = large.length;
        return large.length === 1 ? large[0] : large.length > 1 ? solids.union(large) : solid;
      });
      done.push(whole);
      return { number: s + 1, ...figuresOf(meshOf(whole)), pieces };
    });
  });
}

/** What all sections of the same thickness are cut from. */
interface LaidShell {
  readonly thick: ShellThicknesses;
  readonly edges: Edges;
  /** What of it is no section's yet. */
  rest: Solid;
}

/**
 * A section's own part of the shell, which is taken off what all sections of its thickness are cut from, and out of those of
 * other thicknesses: neighbours' faces coincide, however few triangles they are made of. The last takes what is left.
 */
function skinOf(
  solids: Solids,
  laid: readonly LaidShell[],
  own: LaidShell,
  spaceMesh: TriangleMesh | undefined,
  s: number,
): Solid {
  if (!spaceMesh) return own.rest;
  const space = leanSolid(solids, spaceMesh, PARTING_MM, `The space of section ${s + 1}`);
  let skin = own.rest;
  for (const each of laid) {
    if (each === own) {
      const { within, rest } = solids.split(each.rest, space);
      solids.letGo([each.rest], within, rest);
      [skin, each.rest] = [within, rest];
    } else {
      const rest = solids.minus(each.rest, space);
      solids.letGo([each.rest], rest);
      each.rest = rest;
    }
  }
  solids.letGo([space]);
  return skin;
}

const isAlike = (a: ShellThicknesses, b: ShellThicknesses) => a.shellMm === b.shellMm && a.flangeMm === b.flangeMm;

function outerFace(field: DistanceField, edges: Edges, { shellMm }: ShellThicknesses, ctx: JobContext): TriangleMesh {
  return withoutPockets(isosurface(field.grid, edges.outside(field), shellMm, ctx), SPECK_MM3).mesh;
}

function touch(a: Solid, b: Solid): boolean {
  const [p, q] = [a.boundingBox(), b.boundingBox()];
  return [0, 1, 2].every((x) => p.min[x] <= q.max[x] && q.min[x] <= p.max[x]);
}

/** A body without those of some others that it may touch. */
function without(solids: Solids, solid: Solid, others: readonly Solid[]): Solid {
  const near = others.filter((other) => touch(solid, other));
  return near.length > 0 ? solids.minus(solid, solids.union(near)) : solid;
}

/** Every section's part of the foot, as thick as its flanges, in their order; none where there is no foot. */
function feetOf(
  solids: Solids,
  jacket: Solid,
  rims: readonly Solid[],
  { foot, cells, cellOf, walls, boardMm, shells }: SolidsRequest,
): Solid[] {
  if (!foot || foot.beyondMm === null || boardMm === null) return [];
  const { beyondMm } = foot;
  const made = new Map<number, Solid>();
  const bodyOf = (thickMm: number): Solid => {
    const held = made.get(thickMm);
    if (held) return held;
    const whole = footSolid(solids, foot, beyondMm, thickMm);
    const low = solids.below(jacket, whole.boundingBox().max[2] + 1);
    const body = solids.above(without(solids, whole, [low, ...rims]), boardMm);
    made.set(thickMm, body);
    return body;
  };
  const sectionAt = (x: number, y: number) => cellOf.indexOf(cells.leadAt(x, y, boardMm + OVER_BOARD_MM).section);
  const along = walls.map((wall) => wall.along);
  return footSpaces(solids, foot, along, cellOf.length, sectionAt).map((space, s) =>
    solids.and(bodyOf(shells[s].flangeMm), space),
  );
}

/** The flanges of a section along all its walls; null where it has none. @param number of the section, from one */
function flangeOf(solids: Solids, jacket: Solid, request: SolidsRequest, number: number): Solid | null {
  const { walls, boardMm } = request;
  const flange = solids.only(() => {
    const parts = walls.flatMap(({ along }) => {
      const side = along.wall.sections.indexOf(number);
      return side < 0 ? [] : flangeParts(solids, along, side === 0 ? 1 : -1, request.shells[number - 1]);
    });
    const whole = solids.minus(solids.union(parts), jacket);
    return boardMm === null ? whole : solids.above(whole, boardMm);
  });
  return flange.isEmpty() ? null : flange;
}

/** The ribs over a section; null where it has none. @param number of the section, from one */
function ribsOf(solids: Solids, jacket: Solid, request: SolidsRequest, number: number): Solid | null {
  const { boardMm } = request;
  const { shellMm, flangeMm } = request.shells[number - 1];
  const shape = request.ribShapes[number - 1];
  const parts = request.ribs
    .filter((rib) => rib.section === number)
    .flatMap((rib) => standingRibs(rib, flangeMm, shape))
    .flatMap((standing) => {
      const rings = ridgeRings(standing, shellMm, shape);
      return rings.slice(1).map((ring, k) => solids.hull([...rings[k], ...ring]));
    });
  if (parts.length === 0) return null;
  const whole = solids.minus(solids.union(parts), jacket);
  return boardMm === null ? whole : solids.above(whole, boardMm);
}

type Xyz = [number, number, number];

/**
 * A flange as convex parts between rulings: from just within the shell, which has its own face on the wall, to the outer edge.
 * Rulings that lie on the straight between others are passed over.
 */
function flangeParts(solids: Solids, along: AlongWall, sign: number, { flangeMm, shellMm }: ShellThicknesses): Solid[] {
  const { foot, out } = along.ground;
  const { widthsMm } = along.wall;
  const fromMm = Math.max(0, shellMm - EMBEDDED_MM);
  const corners = (k: number): Xyz[] => {
    const normal = along.normal(along.alongMm[k]);
    const at = (reachMm: number, off: number) =>
      [0, 1, 2].map((a) => foot[3 * k + a] + reachMm * out[3 * k + a] + sign * off * normal[a]) as Xyz;
    const toMm = Math.max(fromMm, widthsMm[k]);
    return [at(fromMm, KERF_MM), at(toMm, KERF_MM), at(fromMm, flangeMm), at(toMm, flangeMm)];
  };
  const all = Array.from(widthsMm, (_, k) => corners(k));
  const parts: Solid[] = [];
  for (let k = 0; k + 1 < all.length; ) {
    let next = k + 1;
    while (next + 1 < all.length && next - k < MOST_RULINGS && isStraight(all, k, next + 1)) next++;
    if (Math.max(widthsMm[k], widthsMm[next]) > fromMm + 1) parts.push(solids.hull([...all[k], ...all[next]]));
    k = next;
  }
  return parts;
}

/** Flanges reach so far into the shell, mm. */
const EMBEDDED_MM = 4;
/** No more rulings than this make one part, and no corner lies farther off the straight between its ends, mm. */
const MOST_RULINGS = 12;
const STRAIGHT_MM = 0.15;

function isStraight(all: readonly Xyz[][], from: number, to: number): boolean {
  for (let k = from + 1; k < to; k++) {
    const share = (k - from) / (to - from);
    for (let c = 0; c < 4; c++) {
      const off = [0, 1, 2].map((a) => all[k][c][a] - all[from][c][a] * (1 - share) - all[to][c][a] * share);
      if (Math.hypot(...off) > STRAIGHT_MM) return false;
    }
  }
  return true;
}

/** Volume, centre of mass and size of a closed mesh. */
export function figuresOf(mesh: TriangleMesh): Omit<SectionSolid, "number" | "pieces"> {
  return { mesh, volumeMm3: areaAndVolume(mesh).volumeMm3, centreMm: centreOf(mesh), sizeMm: smallestBox(mesh) };
}

/** By the tetrahedra that the triangles make with one place (divergence theorem). */
function centreOf({ positions: p, triangles: t }: TriangleMesh): [number, number, number] {
  const o = t.length > 0 ? [p[3 * t[0]], p[3 * t[0] + 1], p[3 * t[0] + 2]] : [0, 0, 0];
  const sum = [0, 0, 0];
  let all = 0;
  for (let k = 0; k < t.length; k += 3) {
    const [a, b, c] = [0, 1, 2].map((n) => [0, 1, 2].map((x) => p[3 * t[k + n] + x] - o[x]));
    const volume =
      a[0] * (b[1] * c[2] - b[2] * c[1]) + a[1] * (b[2] * c[0] - b[0] * c[2]) + a[2] * (b[0] * c[1] - b[1] * c[0]);
    all += volume;
    for (let x = 0; x < 3; x++) sum[x] += (volume * (a[x] + b[x] + c[x])) / 4;
  }
  return [0, 1, 2].map((x) => o[x] + sum[x] / (all || 1)) as Xyz;
}

/** Turns that a box is tried at about each axis, degrees. */
const BOX_TURN_DEG = 6;
/** Vertices that it is tried on. */
const BOX_PLACES = 3000;

/** The smallest box by volume of those tried: turned about the upright, then about one level axis. */
function smallestBox({ positions: p }: TriangleMesh): [number, number, number] {
  const every = 3 * Math.max(1, Math.floor(p.length / 3 / BOX_PLACES));
  let best: [number, number, number] = [0, 0, 0];
  let least = Number.POSITIVE_INFINITY;
  for (let yaw = 0; yaw < 90; yaw += BOX_TURN_DEG) {
    const [cy, sy] = [Math.cos((yaw * Math.PI) / 180), Math.sin((yaw * Math.PI) / 180)];
    for (let pitch = -45; pitch < 45; pitch += BOX_TURN_DEG) {
      const [cp, sp] = [Math.cos((pitch * Math.PI) / 180), Math.sin((pitch * Math.PI) / 180)];
      let [lowX, lowY, lowZ] = [Infinity, Infinity, Infinity];
      let [highX, highY, highZ] = [-Infinity, -Infinity, -Infinity];
      for (let k = 0; k < p.length; k += every) {
        const x = cy * p[k] - sy * p[k + 1];
        const level = sy * p[k] + cy * p[k + 1];
        const y = cp * level - sp * p[k + 2];
        const z = sp * level + cp * p[k + 2];
        if (x < lowX) lowX = x;
        if (x > highX) highX = x;
        if (y < lowY) lowY = y;
        if (y > highY) highY = y;
        if (z < lowZ) lowZ = z;
        if (z > highZ) highZ = z;
      }
      const sides = [highX - lowX, highY - lowY, highZ - lowZ];
      const volume = sides[0] * sides[1] * sides[2];
      if (volume >= least) continue;
      least = volume;
      best = sides.sort((a, b) => b - a) as Xyz;
    }
  }
  return best;
}
