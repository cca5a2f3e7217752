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
import { Body, type BodyData, bodyOf } from "../release/body.ts";
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

/** What is no deeper is trimmed without a thought, mm. */
export const TRIMMED_MM = 3;
/** So many corners of a section are followed at most, and so many places on its faces, evenly by their area. */
const CORNERS = 12_000;
const FACE_PLACES = 12_000;
/** The shortest step on their way, mm. */
const LEAST_STEP_MM = 0.5;
/** The field of a section reaches so many steps, and its steps are no longer than this share of its flanges' thickness. */
const REACH_STEPS = 3;
const STEP_SHARE = 1 / 4;

/**
 * @param solids of the sections in the order they are built: the last one leaves first
 * @returns every pair that clashes, at its deepest
 */
export function clashesAsBuilt(solids: readonly LeavingSolid[], stepMm: number, ctx: JobContext): Clash[] {
  const clashes: Clash[] = [];
  for (let other = 0; other + 1 < solids.length; other++) {
    ctx.checkCancelled();
    const body = new Body(fieldOf(solids[other], stepMm, ctx));
    for (let s = other + 1; s < solids.length; s++) {
      const deepest = deepestOf(solids[s], body);
      if (deepest.biteMm > TRIMMED_MM) clashes.push({ section: s + 1, other: other + 1, ...deepest });
    }
  }
  return clashes.sort((a, b) => a.section - b.section || a.other - b.other);
}

function fieldOf({ mesh, flangeMm }: LeavingSolid, coarsestMm: number, ctx: JobContext): BodyData {
  const stepMm = Math.min(coarsestMm, STEP_SHARE * flangeMm);
  const reachMm = REACH_STEPS * stepMm;
  const { grid, distanceMm } = distanceField(mesh, { stepMm, reachMm, exactBandsMm: [] }, ctx);
  return bodyOf(grid, distanceMm, reachMm, null, ctx.team);
}

function deepestOf({ mesh, pull, travelMm }: LeavingSolid, body: Body): Omit<Clash, "section" | "other"> {
  const { places: p, frontMm2 } = placesOn(mesh, pull);
  const [dx, dy, dz] = pull;
  let deepest: Omit<Clash, "section" | "other"> = { biteMm: 0, at: [0, 0, 0], movedMm: 0, areaMm2: 0 };
  let areaMm2 = 0;
  for (let k = 0; k < p.length; k += 3) {
    const [x, y, z] = [p[k], p[k + 1], p[k + 2]];
    let own = TRIMMED_MM;
    for (let s = LEAST_STEP_MM; s <= travelMm; ) {
      const [px, py, pz] = [x + s * dx, y + s * dy, z + s * dz];
      const empty = body.emptyMm(px, py, pz, dx, dy, dz);
      if (empty === Infinity) break;
      if (empty > 0) {
        s += empty;
        continue;
      }
      const f = body.at(px, py, pz);
      if (-f > own) own = -f;
      if (-f > deepest.biteMm) deepest = { biteMm: -f, at: [x, y, z], movedMm: s, areaMm2: 0 };
      s += Math.max(f + own, LEAST_STEP_MM);
    }
    if (own > TRIMMED_MM) areaMm2 += frontMm2[k / 3];
  }
  return { ...deepest, areaMm2 };
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
