/**
 * How the closed mould stands while it is filled: on what of it is lowest by itself, else on feet. It tips over when it is
 * leaned until its centre of mass is past the edge of what it stands on:
 *
 *   tip = atan(margin / height)
 *
 * margin the distance of the centre of mass, seen from above, from the edge of the convex hull of what touches the floor
 * (Andrew 1979), height that of the centre of mass. Empty and full both count: the worse is told.
 *
 * Space of the caller: mm, z up, as the piece stands on its board.
 */
import type { TriangleMesh } from "../mesh/mesh.ts";
import { vertexNormals } from "../mesh/normals.ts";
import { hullOf } from "./hull.ts";
import type { PourPosition } from "./settings.ts";

export interface Foot {
  /** Where it stands on the shell, xyz, mm. */
  readonly at: readonly [number, number, number];
  readonly lengthMm: number;
}

export interface Stand {
  /** How far it may be leaned as it is, degrees; 0 where it falls over by itself. */
  readonly ownTipDeg: number;
  /** Feet that steady it; none where it needs none, or nothing of it is near enough to the floor. */
  readonly feet: readonly Foot[];
  /** How far it may be leaned on its feet, degrees. */
  readonly tipDeg: number;
}

export interface StandRequest {
  /** The jacket's outside. */
  readonly mesh: TriangleMesh;
  readonly shellMm: number;
  /** The outer edges of the flanges, xyz each. */
  readonly edges: readonly Float64Array[];
  readonly position: PourPosition;
}

/** A mould that may be leaned so far stands well enough, degrees. */
export const STEADY_DEG = 10;
/** What is no higher than this over the lowest place touches the floor: the last of it is rasped or wedged, mm. */
const TOUCHES_MM = 6;
/** Feet are no longer than this share of the mould's height; longer ones want a stand. */
const LONGEST_SHARE = 0.45;
/** Faces turned down by at least this much, as a cosine, bear a foot. */
const BEARS = 0.25;
/** A place is looked for beneath every so many mm. */
const CELL_MM = 15;
/** A longer foot must stand so much farther out, as a share of its length, to be worth it. */
const OUT_SHARE = 0.3;
const FEET = 4;

/** Places as they lie when it is poured: seen from above, and how high. */
interface Placed {
  readonly x: number;
  readonly y: number;
  readonly height: number;
}

export function standOf({ mesh, shellMm, edges, position }: StandRequest): Stand {
  const up = position === "as-it-stands" ? 1 : -1;
  const p = mesh.positions;
  const { normals } = vertexNormals(mesh);
  const outer: (Placed & { readonly down: number })[] = [];
  for (let v = 0; v < p.length; v += 3) {
    outer.push({
      x: p[v] + shellMm * normals[v],
      y: p[v + 1] + shellMm * normals[v + 1],
      height: up * (p[v + 2] + shellMm * normals[v + 2]),
      down: -up * normals[v + 2],
    });
  }
  const flanges = edges.flatMap((edge) => placesOf(edge, up));
  let [floor, top] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (const { height } of [...outer, ...flanges]) {
    floor = Math.min(floor, height);
    top = Math.max(top, height);
  }
  const centres = centresOf(mesh).map(([x, y, z]): Placed => ({ x, y, height: up * z }));
  const tipOn = (touching: readonly Placed[]) => {
    const hull = hullOf(touching);
    return Math.min(...centres.map((centre) => tipDeg(hull, centre, centre.height - floor)));
  };
  const touches = ({ height }: Placed) => height - floor <= TOUCHES_MM;
  const ownTipDeg = tipOn([...outer.filter(touches), ...flanges.filter(touches)]);
  if (ownTipDeg >= STEADY_DEG) return { ownTipDeg, feet: [], tipDeg: ownTipDeg };
  const lowest = lowestByCell([...outer, ...flanges]);
  const bearing = outer.filter(
    (place) =>
      place.down >= BEARS &&
      place.height - floor <= LONGEST_SHARE * (top - floor) &&
      place.height <= (lowest.get(cellOf(place)) ?? 0) + 1,
  );
  const feet = Array.from({ length: FEET }, (_, k) => farthestTowards(bearing, centres[1], k, floor)).filter(
    (foot) => foot !== null,
  );
  const tip = feet.length < 3 ? 0 : tipOn(feet);
  if (tip <= ownTipDeg) return { ownTipDeg, feet: [], tipDeg: ownTipDeg };
  return {
    ownTipDeg,
    feet: feet.map(({ x, y, height }) => ({ at: [x, y, up * height], lengthMm: height - floor })),
    tipDeg: tip,
  };
}

function placesOf(edge: Float64Array, up: number): Placed[] {
  return Array.from({ length: edge.length / 3 }, (_, k) => ({
    x: edge[3 * k],
    y: edge[3 * k + 1],
    height: up * edge[3 * k + 2],
  }));
}

/** Names a cell of the floor. */
function cellOf({ x, y }: Placed): number {
  return Math.floor(x / CELL_MM) * CELLS + Math.floor(y / CELL_MM);
}

/** More cells than a floor is deep. */
const CELLS = 1e6;

/** How high the lowest place of every cell is: nothing is beneath it. */
function lowestByCell(places: readonly Placed[]): Map<number, number> {
  const lowest = new Map<number, number>();
  for (const place of places) {
    const cell = cellOf(place);
    lowest.set(cell, Math.min(lowest.get(cell) ?? Number.POSITIVE_INFINITY, place.height));
  }
  return lowest;
}

/** Of the places in one quarter about a centre, the one farthest out, less what its foot is longer. */
function farthestTowards(places: readonly Placed[], centre: Placed, quarter: number, floor: number): Placed | null {
  const turn = Math.PI / FEET + (2 * Math.PI * quarter) / FEET;
  const [dx, dy] = [Math.cos(turn), Math.sin(turn)];
  let best: Placed | null = null;
  let most = 0;
  for (const place of places) {
    const [x, y] = [place.x - centre.x, place.y - centre.y];
    const along = x * dx + y * dy;
    if (Math.abs(y * dx - x * dy) > along) continue;
    const worth = along - OUT_SHARE * (place.height - floor);
    if (worth <= most) continue;
    most = worth;
    best = place;
  }
  return best;
}

/** The middles of a closed surface: of what it is made of as a shell, and of what it encloses. */
function centresOf({ positions: p, triangles: t }: TriangleMesh): [number[], number[]] {
  // From a place on the plane of its foot, what closes an open foot encloses nothing.
  const o = [p[0], p[1], p[2]];
  for (let v = 2; v < p.length; v += 3) o[2] = Math.min(o[2], p[v]);
  const shell = [0, 0, 0];
  const body = [0, 0, 0];
  let [area, volume] = [0, 0];
  for (let k = 0; k < t.length; k += 3) {
    const [a, b, c] = [3 * t[k], 3 * t[k + 1], 3 * t[k + 2]];
    const [ax, ay, az] = [p[a] - o[0], p[a + 1] - o[1], p[a + 2] - o[2]];
    const [ux, uy, uz] = [p[b] - p[a], p[b + 1] - p[a + 1], p[b + 2] - p[a + 2]];
    const [vx, vy, vz] = [p[c] - p[a], p[c + 1] - p[a + 1], p[c + 2] - p[a + 2]];
    const [nx, ny, nz] = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
    const ownArea = Math.sqrt(nx * nx + ny * ny + nz * nz) / 2;
    const ownVolume = (ax * nx + ay * ny + az * nz) / 6;
    area += ownArea;
    volume += ownVolume;
    for (let x = 0; x < 3; x++) {
      const sum = p[a + x] + p[b + x] + p[c + x] - 3 * o[x];
      shell[x] += (ownArea * sum) / 3;
      body[x] += (ownVolume * sum) / 4;
    }
  }
  const at = (sum: readonly number[], whole: number) => sum.map((value, x) => o[x] + value / (whole || 1));
  return [at(shell, area), at(body, volume)];
}

function tipDeg(hull: readonly Placed[], centre: Placed, heightMm: number): number {
  if (hull.length < 3) return 0;
  let margin = Number.POSITIVE_INFINITY;
  hull.forEach((a, k) => {
    const b = hull[(k + 1) % hull.length];
    const length = Math.hypot(b.x - a.x, b.y - a.y);
    if (length === 0) return;
    margin = Math.min(margin, ((b.x - a.x) * (centre.y - a.y) - (b.y - a.y) * (centre.x - a.x)) / length);
  });
  return margin <= 0 ? 0 : (180 / Math.PI) * Math.atan2(margin, Math.max(1, heightMm));
}
