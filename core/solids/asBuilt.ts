/**
 * Do the sections leave as they are built, with their flanges, keys, ribs and foot? Places of each solid are moved along its
 * pull as far as it travels, past the solids that are still there then: how deep do they come to lie in one of those?
 *
 *   bite = max over 0 < s <= travel of -phi(x + s d)        x a place of the section's face, d its pull
 *
 * phi is the signed distance from the other solid: the measure that sections are proven by (`core/release/bite.ts`), which knows
 * nothing of what stands out from them.
 */
import { distanceField } from "../field/distance.ts";
import type { JobContext } from "../job/context.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { Body, bodyOf } from "../release/body.ts";
import { type Direction, dot } from "../space/directions.ts";

export interface LeavingSolid {
  readonly mesh: TriangleMesh;
  readonly pull: Direction;
  readonly travelMm: number;
  /** Of its flanges: nothing of it is much thinner. */
  readonly flangeMm: number;
}

/** A section that does not pass another as it is built. */
export interface Clash {
  /** Numbers of the section that leaves and of the one in its way. */
  readonly section: number;
  readonly other: number;
  /** How deep it runs into it, mm, and what of it: where that is before it is moved. */
  readonly biteMm: number;
  readonly at: readonly [number, number, number];
  /** How far it has moved by then, mm. */
  readonly movedMm: number;
  /** How much of it, seen along its pull, runs into the other deeper than is trimmed, mm2: next to nothing for a single key. */
  readonly areaMm2: number;
}

/** What is no deeper is trimmed without a thought, mm; nor what is less than this share of the thinner of two flanges. */
const TRIMMED_MM = 3;
const TRIMMED_SHARE = 1 / 4;
/** So many corners of a section are followed at most, and so many places on its faces, evenly by their area. */
const CORNERS = 12_000;
const FACE_PLACES = 12_000;
/** The way of the deepest place is told to this, mm. */
const MOVED_STEP_MM = 0.25;
/** The field of a section reaches so many steps, no longer than this share of its flanges' thickness, nor shorter than this, mm. */
const REACH_STEPS = 3;
const STEP_SHARE = 1 / 4;
const FINEST_MM = 1.5;

/** A section that meets another as it is built, and where. */
export interface Met {
  readonly places: readonly Meeting[];
  /** Their numbers. */
  readonly section: number;
  readonly other: number;
  readonly leaving: LeavingSolid;
  /** The one in its way, as a body. */
  readonly body: Body;
  /** How deep one may run into the other, mm. */
  readonly trimmedMm: number;
  /** Are bolts to keep what holds them? */
  readonly sparing: boolean;
}

/**
 * Which of two sections has less of it, in the order that is tried: the one that leaves, or the one in its way, which goes past
 * it the other way; first of all so that all bolts hold.
 */
const WAYS = [
  { leaves: true, sparing: true },
  { leaves: false, sparing: true },
  { leaves: true, sparing: false },
  { leaves: false, sparing: false },
] as const;
/** All are tried once more where that has gained anything: what was cut shows its edges. */
const TRIES = [...WAYS, ...WAYS];

/**
 * @param solids of the sections in the order they are built: the last one leaves first
 * @param relieve gives a section that meets another less of a body where it may; the mesh it has where nowhere
 * @returns every pair that clashes, at its deepest
 */
export function clashesAsBuilt(
  solids: readonly LeavingSolid[],
  stepMm: number,
  ctx: JobContext,
  relieve: (met: Met) => TriangleMesh = ({ leaving }) => leaving.mesh,
): Clash[] {
  const now = [...solids];
  const clashes: Clash[] = [];
  for (let other = 0; other + 1 < now.length; other++) {
    ctx.checkCancelled();
    let body = solidAsBody(now[other], stepMm, ctx);
    for (let s = other + 1; s < now.length; s++) {
      const trimmedMm = trimmedBetween(now[s], now[other]);
      let places = meetings(now[s], body, trimmedMm);
      let cut = false;
      for (const [k, { leaves, sparing }] of TRIES.entries()) {
        if (places.length === 0 || (k === WAYS.length && !cut)) break;
        const met = leaves
          ? { section: s + 1, other: other + 1, leaving: now[s], body, places }
          : { section: other + 1, other: s + 1, ...backPast(now[other], now[s], trimmedMm, stepMm, ctx) };
        const more = cut ? met.places.filter((place) => isNoEdge(place, trimmedMm)) : met.places;
        const mesh = relieve({ ...met, places: more, trimmedMm, sparing });
        if (mesh === met.leaving.mesh) continue;
        cut = true;
        const less = met.section - 1;
        now[less] = { ...now[less], mesh };
        if (less === other) body = solidAsBody(now[other], stepMm, ctx);
        places = meetings(now[s], body, trimmedMm).filter((place) => isNoEdge(place, trimmedMm));
      }
      if (places.length > 0) clashes.push({ section: s + 1, other: other + 1, ...together(places) });
    }
  }
  return clashes.sort((a, b) => a.section - b.section || a.other - b.other);
}

/** The section in the way of one that leaves, as it goes past that one the other way. */
function backPast(inTheWay: LeavingSolid, leaves: LeavingSolid, trimmedMm: number, stepMm: number, ctx: JobContext) {
  const leaving = { ...inTheWay, pull: opposite(leaves.pull), travelMm: leaves.travelMm };
  const body = solidAsBody(leaves, stepMm, ctx);
  return { leaving, body, places: meetings(leaving, body, trimmedMm) };
}

/** How deep two sections may run into each other, mm. */
export function trimmedBetween(a: Pick<LeavingSolid, "flangeMm">, b: Pick<LeavingSolid, "flangeMm">): number {
  return Math.min(TRIMMED_MM, TRIMMED_SHARE * Math.min(a.flangeMm, b.flangeMm));
}

function opposite([x, y, z]: Direction): Direction {
  return [0 - x, 0 - y, 0 - z];
}

/** Of all places where two sections meet the deepest, and how much they are together. */
function together(met: readonly Meeting[]): Meeting["deepest"] {
  const [first] = [...met].sort((a, b) => b.deepest.biteMm - a.deepest.biteMm);
  return { ...first.deepest, areaMm2: met.reduce((sum, { deepest }) => sum + deepest.areaMm2, 0) };
}

/** A section as a body that ways past it are followed through. @param coarsestMm step of its field at most */
function solidAsBody({ mesh, flangeMm }: LeavingSolid, coarsestMm: number, ctx: JobContext): Body {
  const stepMm = Math.min(coarsestMm, Math.max(FINEST_MM, STEP_SHARE * flangeMm));
  const reachMm = REACH_STEPS * stepMm;
  const { grid, distanceMm } = distanceField(mesh, { stepMm, reachMm, exactBandsMm: [] }, ctx);
  return new Body(bodyOf(grid, distanceMm, reachMm, null, ctx.team));
}

/** A place where a section meets another on its way out. */
export interface Meeting {
  readonly deepest: Omit<Clash, "section" | "other">;
  /** All of it that runs in deeper than is trimmed lies between these corners, xyz, mm. */
  readonly low: readonly [number, number, number];
  readonly high: readonly [number, number, number];
}

/** Is it more than a corner beside what was left out, which is trimmed with it? */
function isNoEdge({ deepest: { biteMm, areaMm2 } }: Meeting, trimmedMm: number): boolean {
  return areaMm2 > 0 || biteMm > EDGES * trimmedMm;
}

/** The edges of what is left out are trimmed by so many times more: the grid it is cut by rounds them. */
const EDGES = 5 / 3;

/** What runs in farther apart than one or two cubes of this side is another place, mm. */
const CUBE_MM = 40;

/** All places where a section runs into a body deeper than is trimmed. */
function meetings({ mesh, pull, travelMm }: LeavingSolid, body: Body, trimmedMm: number): Meeting[] {
  const { places: p, frontMm2 } = placesOn(mesh, pull);
  const [dx, dy, dz] = pull;
  const deep: Deep[] = [];
  for (let k = 0; k < p.length; k += 3) {
    const biteMm = -body.leastAlong(p[k], p[k + 1], p[k + 2], dx, dy, dz, -trimmedMm, -Infinity, travelMm);
    if (biteMm > trimmedMm) deep.push({ at: [p[k], p[k + 1], p[k + 2]], biteMm, areaMm2: frontMm2[k / 3] });
  }
  return groupsOf(deep).map((group): Meeting => {
    const deepest = group.reduce((most, each) => (each.biteMm > most.biteMm ? each : most));
    const { at, biteMm } = deepest;
    const areaMm2 = group.reduce((sum, each) => sum + each.areaMm2, 0);
    const corner = (most: typeof Math.min) =>
      [0, 1, 2].map((a) => group.reduce((mm, each) => most(mm, each.at[a]), at[a])) as [number, number, number];
    return {
      deepest: { biteMm, at, movedMm: movedTo(at, pull, travelMm, body), areaMm2 },
      low: corner(Math.min),
      high: corner(Math.max),
    };
  });
}

/** A place of a section that runs in deeper than is trimmed. */
interface Deep {
  readonly at: readonly [number, number, number];
  readonly biteMm: number;
  readonly areaMm2: number;
}

/** Places in groups that hang together by the cubes they lie in, a cube's neighbours in all directions included. */
function groupsOf(deep: readonly Deep[]): Deep[][] {
  const cubes = new Map<string, Deep[]>();
  const cubeOf = ({ at }: Deep) => at.map((mm) => Math.floor(mm / CUBE_MM));
  for (const each of deep) {
    const key = cubeOf(each).join();
    cubes.set(key, [...(cubes.get(key) ?? []), each]);
  }
  const groups: Deep[][] = [];
  for (const first of cubes.keys()) {
    const group: Deep[] = [];
    const open = [first];
    for (let key = open.pop(); key !== undefined; key = open.pop()) {
      const own = cubes.get(key);
      if (!own) continue;
      cubes.delete(key);
      group.push(...own);
      const [x, y, z] = key.split(",").map(Number);
      for (let n = 0; n < 27; n++)
        open.push([x + (n % 3) - 1, y + (Math.floor(n / 3) % 3) - 1, z + Math.floor(n / 9) - 1].join());
    }
    if (group.length > 0) groups.push(group);
  }
  return groups;
}

/** How far a place has moved where it is deepest in a body, mm. */
function movedTo([x, y, z]: readonly number[], [dx, dy, dz]: Direction, travelMm: number, body: Body): number {
  let [least, moved] = [Infinity, 0];
  for (let s = body.entersMm(x, y, z, dx, dy, dz); s <= travelMm; ) {
    const [px, py, pz] = [x + s * dx, y + s * dy, z + s * dz];
    const empty = body.emptyMm(px, py, pz, dx, dy, dz);
    if (empty === Infinity) break;
    const f = empty > 0 ? Infinity : body.at(px, py, pz);
    if (f < least) [least, moved] = [f, s];
    s += Math.max(empty, MOVED_STEP_MM);
  }
  return moved;
}

interface Places {
  readonly places: readonly number[];
  /** How much of the face each stands for, seen along the pull, mm2: nothing where it faces away, or is a corner. */
  readonly frontMm2: readonly number[];
}

/** Corners of a mesh, where keys and edges are, and places spread over its faces, which may be large. */
function placesOn({ positions: p, triangles: t }: TriangleMesh, pull: Direction): Places {
  const places: number[] = [];
  const every = 3 * Math.max(1, Math.ceil(p.length / 3 / CORNERS));
  for (let k = 0; k < p.length; k += every) places.push(p[k], p[k + 1], p[k + 2]);
  const frontMm2 = Array.from({ length: places.length / 3 }, () => 0);
  const faces = Array.from({ length: t.length / 3 }, (_, n) => faceOf(p, t, n));
  const areas = faces.map((face) => Math.hypot(...face));
  const eachMm2 = areas.reduce((sum, mm2) => sum + mm2, 0) / FACE_PLACES;
  let left = 0;
  let taken = 0;
  areas.forEach((mm2, n) => {
    for (left += mm2; left >= eachMm2; left -= eachMm2) {
      // Evenly over a triangle by a sequence that leaves no gaps (Roberts 2018), folded over its long side.
      taken++;
      let [u, v] = [(taken * 0.7548776662466927) % 1, (taken * 0.5698402909980532) % 1];
      if (u + v > 1) [u, v] = [1 - u, 1 - v];
      frontMm2.push(mm2 > 0 ? (eachMm2 * Math.max(0, dot(faces[n], pull))) / mm2 : 0);
      const [a, b, c] = [3 * t[3 * n], 3 * t[3 * n + 1], 3 * t[3 * n + 2]];
      for (let x = 0; x < 3; x++) places.push(p[a + x] + u * (p[b + x] - p[a + x]) + v * (p[c + x] - p[a + x]));
    }
  });
  return { places, frontMm2 };
}

/** Out of a triangle, as long as its area. */
function faceOf(p: ArrayLike<number>, t: ArrayLike<number>, n: number): [number, number, number] {
  const [a, b, c] = [3 * t[3 * n], 3 * t[3 * n + 1], 3 * t[3 * n + 2]];
  const [ux, uy, uz] = [p[b] - p[a], p[b + 1] - p[a + 1], p[b + 2] - p[a + 2]];
  const [vx, vy, vz] = [p[c] - p[a], p[c + 1] - p[a + 1], p[c + 2] - p[a + 2]];
  return [(uy * vz - uz * vy) / 2, (uz * vx - ux * vz) / 2, (ux * vy - uy * vx) / 2];
}
