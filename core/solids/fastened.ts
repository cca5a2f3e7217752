/**
 * What is let into a section's flanges, and what stands on them: bolt holes, pits and domes of flange keys, grooves and
 * their ridges, pry slots; push holes through its shell.
 */
import type { AlongWall } from "../flange/along.ts";
import {
  type Fastenings,
  firstBuilt,
  type Groove,
  INSERT_ACROSS,
  insertLengthMm,
  type PrySlot,
  SLOT_DEPTH_MM,
} from "../flange/fastenings.ts";
import type { BoltHold } from "../flange/settings.ts";
import { PUSH_HOLE_MM, type PushHole } from "../keys/pushHoles.ts";
import type { FootBody } from "./foot.ts";
import type { Solid, Solids } from "./kernel.ts";

export interface FastenedRequest {
  readonly walls: readonly { readonly along: AlongWall; readonly fastenings: Fastenings }[];
  readonly shellMm: number;
  readonly flangeMm: number;
  readonly holeMm: number;
  /** How bolts hold: an insert has its own bore, in the flange that is built first. */
  readonly hold: BoltHold;
  readonly foot: FootBody | null;
  /** Through the shell of a plan of one section. */
  readonly pushHoles: readonly PushHole[];
}

type Xyz = [number, number, number];

/** Holes are round to so many corners. */
const CORNERS = 24;
/** Domes and ridges are so much smaller than the pits and grooves they stand in, mm. */
const KEY_CLEAR_MM = 0.3;
/** What stands in a groove is cut along it every so many mm. */
const GROOVE_STEP_MM = 6;
/** The flat bottom of a groove, as a share of its width. */
const BOTTOM_SHARE = 1 / 3;
/** A pry slot opens by so much into each of the two flanges, and beyond their outer edge, mm. */
const SLOT_OPEN_MM = 4;

/** A section's skin and flanges as one body, with its holes and its keys. @param number of the section, from one */
export function fastened(solids: Solids, parts: readonly Solid[], request: FastenedRequest, number: number): Solid {
  const { walls, flangeMm, holeMm, shellMm, pushHoles, foot } = request;
  const domes: Solid[] = [];
  const taken = pushHoles.map(({ at, normal }) =>
    rod(solids, at, [...normal], PUSH_HOLE_MM / 2, [-shellMm, 2 * shellMm]),
  );
  for (const { at } of foot?.bolts ?? [])
    taken.push(rod(solids, [at[0], at[1], foot?.boardMm ?? 0], [0, 0, 1], holeMm, [-flangeMm, 2 * flangeMm]));
  for (const { along, fastenings } of walls) {
    if (!along.wall.sections.includes(number)) continue;
    const isFirst = number === firstBuilt(along);
    const laidIn = request.hold === "inserts" && isFirst;
    const deepMm = insertLengthMm(flangeMm, 2 * holeMm);
    const isLeft = along.wall.sections[0] === number;
    const bore: [number, number] = isLeft ? [-1, deepMm] : [-deepMm, 1];
    const [radiusMm, ends] = laidIn
      ? [INSERT_ACROSS * holeMm, bore]
      : [holeMm, [-1.5 * flangeMm, 1.5 * flangeMm] as [number, number]];
    for (const bolt of fastenings.bolts)
      taken.push(rod(solids, along.place(bolt), along.normal(bolt.alongMm) as Xyz, radiusMm, ends));
    for (const slot of fastenings.slots) taken.push(prySlot(solids, along, slot));
    for (const groove of fastenings.grooves) {
      if (isFirst) taken.push(...ridge(solids, along, groove, 0));
      else domes.push(...ridge(solids, along, groove, KEY_CLEAR_MM));
    }
    for (const dimple of fastenings.dimples) {
      if (isFirst) taken.push(cap(solids, along, dimple, dimple.radiusMm, dimple.depthMm));
      else {
        const smaller = Math.max(1, dimple.radiusMm - KEY_CLEAR_MM);
        domes.push(cap(solids, along, dimple, smaller, (dimple.depthMm * smaller) / dimple.radiusMm));
      }
    }
  }
  const whole = solids.union([...parts, ...domes]);
  return taken.length > 0 ? solids.minus(whole, solids.union(taken)) : whole;
}

/** A round rod along an axis, from one end to the other, mm from a place on it. */
function rod(
  solids: Solids,
  at: readonly number[],
  axis: Xyz,
  radiusMm: number,
  ends: readonly [number, number],
): Solid {
  const [u, v] = across(axis);
  const points: Xyz[] = [];
  for (const end of ends) {
    for (let c = 0; c < CORNERS; c++) {
      const turn = (2 * Math.PI * c) / CORNERS;
      points.push(
        [0, 1, 2].map((a) => at[a] + end * axis[a] + radiusMm * (Math.cos(turn) * u[a] + Math.sin(turn) * v[a])) as Xyz,
      );
    }
  }
  return solids.hull(points);
}

/** A spherical cap on the wall, both as a pit and as a dome: towards the section that is built first. */
function cap(
  solids: Solids,
  along: AlongWall,
  place: { alongMm: number; offMm: number },
  radiusMm: number,
  depthMm: number,
): Solid {
  const at = along.place(place);
  const [left, right] = along.wall.sections;
  const towards = left < right ? 1 : -1;
  const normal = along.normal(place.alongMm).map((x) => towards * x) as Xyz;
  const [u, v] = across(normal);
  const sphereMm = (radiusMm ** 2 + depthMm ** 2) / (2 * depthMm);
  const points: Xyz[] = [];
  const ring = (height: number, r: number) => {
    for (let c = 0; c < CORNERS; c++) {
      const turn = (2 * Math.PI * c) / CORNERS;
      points.push(
        [0, 1, 2].map((a) => at[a] + height * normal[a] + r * (Math.cos(turn) * u[a] + Math.sin(turn) * v[a])) as Xyz,
      );
    }
  };
  // It begins a little behind the wall, so that pit and dome are joined to what they stand in.
  ring(-1, radiusMm);
  for (let n = 0; n <= RINGS; n++) {
    const height = (depthMm * n) / RINGS;
    ring(height, Math.sqrt(Math.max(0.01, sphereMm ** 2 - (sphereMm - depthMm + height) ** 2)));
  }
  return solids.hull(points);
}

const RINGS = 4;

/**
 * A bevelled ridge on the wall, both as what a groove takes away and as what stands in it: towards the section that is built
 * first.
 * @param clearMm so much smaller on every side
 */
function ridge(solids: Solids, along: AlongWall, groove: Groove, clearMm: number): Solid[] {
  const { fromMm, toMm, offMm, widthMm, depthMm } = groove;
  const [left, right] = along.wall.sections;
  const towards = left < right ? 1 : -1;
  const half = widthMm / 2 - clearMm;
  const bottom = Math.max(0.5, (BOTTOM_SHARE * widthMm) / 2 - clearMm);
  const deep = Math.max(0.5, depthMm - clearMm);
  const profile = (alongMm: number): Xyz[] => {
    const normal = along.normal(alongMm);
    const at = (aside: number, inMm: number) => {
      const place = along.place({ alongMm, offMm: offMm + aside });
      return place.map((value, a) => value + inMm * towards * normal[a]) as Xyz;
    };
    // It begins a little behind the wall, so that it is joined to what it stands on.
    return [at(-half, -1), at(half, -1), at(-half, 0), at(half, 0), at(-bottom, deep), at(bottom, deep)];
  };
  const [first, last] = [fromMm + 3 * clearMm, toMm - 3 * clearMm];
  const count = Math.max(1, Math.ceil((last - first) / GROOVE_STEP_MM));
  const profiles = Array.from({ length: count + 1 }, (_, k) => profile(first + ((last - first) * k) / count));
  return profiles.slice(1).map((own, k) => solids.hull([...profiles[k], ...own]));
}

/** A slot for a lever at the outer edge, open into both flanges. */
function prySlot(solids: Solids, along: AlongWall, { fromMm, toMm }: PrySlot): Solid {
  const points = [fromMm, toMm].flatMap((alongMm) => {
    const normal = along.normal(alongMm);
    const edgeMm = along.widthMm(alongMm);
    return [edgeMm - SLOT_DEPTH_MM, edgeMm + SLOT_OPEN_MM].flatMap((offMm) => {
      const place = along.place({ alongMm, offMm });
      return [-SLOT_OPEN_MM, SLOT_OPEN_MM].map((by) => place.map((value, a) => value + by * normal[a]) as Xyz);
    });
  });
  return solids.hull(points);
}

/** Two directions square to one, of length one. */
function across([x, y, z]: Xyz): [Xyz, Xyz] {
  const helper: Xyz = Math.abs(z) < 0.9 ? [0, 0, 1] : [1, 0, 0];
  const cross = (a: Xyz, b: Xyz): Xyz => [
    a[1] * b[2] - a[2] * b[1],
    a[2] * b[0] - a[0] * b[2],
    a[0] * b[1] - a[1] * b[0],
  ];
  const u = cross(helper, [x, y, z]);
  const length = Math.hypot(...u);
  const first: Xyz = [u[0] / length, u[1] / length, u[2] / length];
  return [first, cross([x, y, z], first)];
}
