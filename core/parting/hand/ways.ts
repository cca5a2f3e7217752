/**
 * Ways for a line to run over a surface from one place to another: the shortest, along the horizon of a pull, along
 * creases. Each is a cheapest path over the mesh's edges (Dijkstra 1959) by a price per mm that is low where the line
 * should run, then drawn fair on the surface itself: a shortest line tight (curve shortening), the others evened out.
 */
import { CostHeap } from "../../mesh/costHeap.ts";
import { type Direction, dot } from "../../survey/directions.ts";
import { fairLine, resample } from "../fair.ts";
import { setBack } from "./layout.ts";
import { type Surface, vertexAt } from "./surface.ts";

export type Way =
  | { readonly kind: "shortest" }
  | { readonly kind: "horizon"; readonly pull: Direction }
  | { readonly kind: "creases" };

/** How much dearer a mm is where the surface faces straight along the pull than on the horizon. */
const OFF_HORIZON = 12;
/** How much cheaper a mm is along a sharp crease. */
const ON_CREASE = 8;
/** A line is tight when no point moves farther than this share of its spacing. */
const TIGHT = 0.003;
const TIGHTENING_ROUNDS = 400;

/**
 * @param from, to places on the surface, mm
 * @returns xyz per point, both ends among them; a straight stretch where the surface does not join the places
 */
export function pathBetween(surface: Surface, from: readonly number[], to: readonly number[], way: Way): Float64Array {
  const { rough, ends } = roughPath(surface, from, to, priceOf(surface, way));
  if (way.kind === "shortest") return shortestFrom(rough, surface);
  const laid = fairOn(surface, rough, ends);
  return way.kind === "horizon" ? ontoHorizon(laid, surface, way.pull) : laid;
}

/**
 * The same by a price of one's own.
 * @param price of a mm at every vertex
 */
export function pricedPath(
  surface: Surface,
  from: readonly number[],
  to: readonly number[],
  price: Float64Array,
): Float64Array {
  const { rough, ends } = roughPath(surface, from, to, price);
  return fairOn(surface, rough, ends);
}

function roughPath(surface: Surface, from: readonly number[], to: readonly number[], price: Float64Array) {
  const [a, b] = [from, to].map(([x, y, z]) => vertexAt(surface, x, y, z));
  const path = cheapestPath(surface, a, b, price);
  const ends = [setBack(from, surface.nearest), setBack(to, surface.nearest)];
  const p = surface.mesh.positions;
  // The vertices at the ends stand beside the places that were picked: these take their place.
  const inner = path.slice(1, -1).flatMap((v) => [p[3 * v], p[3 * v + 1], p[3 * v + 2]]);
  return { rough: Float64Array.from([...ends[0], ...inner, ...ends[1]]), ends };
}

function fairOn(surface: Surface, rough: Float64Array, ends: readonly Float64Array[]): Float64Array {
  const points = resample({ points: rough, closed: false }, surface.edgeMm);
  const fair = fairLine({ points, closed: false, sections: [0, 0] }, surface.edgeMm, surface.nearest).points;
  const out = Float64Array.from(fair);
  out.set(ends[0], 0);
  out.set(ends[1], out.length - 3);
  return out;
}

/** Price of a mm at every vertex. */
function priceOf({ mesh, normals, near, edgeMm }: Surface, way: Way): Float64Array {
  const vertices = mesh.positions.length / 3;
  if (way.kind === "shortest") return new Float64Array(vertices).fill(1);
  if (way.kind === "horizon") {
    const facing = (v: number) => Math.abs(dot(way.pull, [normals[3 * v], normals[3 * v + 1], normals[3 * v + 2]]));
    return Float64Array.from({ length: vertices }, (_, v) => 1 + OFF_HORIZON * facing(v));
  }
  return Float64Array.from({ length: vertices }, (_, v) => {
    // How far the normal turns over an edge: 0 on a flat, about 1 across a sharp crease.
    let turn = 0;
    for (let k = near.start[v]; k < near.start[v + 1]; k++) {
      const o = near.list[k];
      let inner = 0;
      for (let c = 0; c < 3; c++) inner += normals[3 * v + c] * normals[3 * o + c];
      turn = Math.max(turn, 1 - inner);
    }
    return 1 / (1 + ON_CREASE * Math.min(1, (turn * CREASE_MM) / edgeMm));
  });
}

/** A crease is told from a bend by how far the surface turns within this, mm. */
const CREASE_MM = 12;

/** Vertices of the cheapest path, both ends among them; the ends alone where none joins them. */
function cheapestPath(surface: Surface, from: number, to: number, price: Float64Array): number[] {
  const { near, mesh } = surface;
  const p = mesh.positions;
  const cost = new Float64Array(price.length).fill(Infinity);
  const back = new Int32Array(price.length).fill(-1);
  const heap = new CostHeap();
  cost[from] = 0;
  heap.push(from, 0);
  for (let item = heap.pop(); item && item.v !== to; item = heap.pop()) {
    const { v } = item;
    if (item.cost > cost[v]) continue;
    for (let k = near.start[v]; k < near.start[v + 1]; k++) {
      const o = near.list[k];
      const dx = p[3 * o] - p[3 * v];
      const dy = p[3 * o + 1] - p[3 * v + 1];
      const dz = p[3 * o + 2] - p[3 * v + 2];
      const next = cost[v] + 0.5 * (price[v] + price[o]) * Math.sqrt(dx * dx + dy * dy + dz * dz);
      if (next >= cost[o]) continue;
      cost[o] = next;
      back[o] = v;
      heap.push(o, next);
    }
  }
  const path = [to];
  for (let v = back[to]; v >= 0; v = back[v]) path.push(v);
  if (path.at(-1) !== from) path.push(from);
  return path.reverse();
}

/** Spacings at which a line is drawn tight, in edges: its long waves go first. */
const SPACINGS = [6, 2, 1] as const;

function shortestFrom(rough: Float64Array, surface: Surface): Float64Array {
  return SPACINGS.reduce((held, spacing) => {
    const points = resample({ points: held, closed: false }, spacing * surface.edgeMm);
    return tight(Float64Array.from(points), surface);
  }, rough);
}

/** Draws an open line tight between its ends: every point to the middle of its neighbours, and back on the surface. */
function tight(points: Float64Array, { nearest, edgeMm }: Surface): Float64Array {
  const count = points.length / 3;
  const place = new Float64Array(3);
  for (let round = 0; round < TIGHTENING_ROUNDS; round++) {
    let farthest = 0;
    // There and back, so that a pull at one end is felt at the other within a round.
    for (let n = 1; n < count - 1; n++) {
      const at = 3 * (round % 2 === 0 ? n : count - 1 - n);
      const [x, y, z] = [0, 1, 2].map((a) => 0.5 * (points[at - 3 + a] + points[at + 3 + a]));
      nearest.nearest(place, x, y, z);
      const moved = Math.hypot(place[0] - points[at], place[1] - points[at + 1], place[2] - points[at + 2]);
      farthest = Math.max(farthest, moved);
      points.set(place, at);
    }
    if (farthest < TIGHT * edgeMm) break;
  }
  return points;
}

/** Moves the inner points of a line to where the surface turns past the pull, where that is near. */
function ontoHorizon(points: Float64Array, surface: Surface, pull: Direction): Float64Array {
  const { nearest, edgeMm } = surface;
  const out = points.slice();
  const place = new Float64Array(3);
  for (let k = 3; k + 3 < points.length; k += 3) {
    const [n, facing] = facingAt(surface, points, k, pull);
    // Uphill on the surface towards the pull: the pull less what of it leaves the surface.
    const up = pull.map((d, a) => d - facing * n[a]);
    const length = Math.hypot(...up) || 1;
    // Down from where it faces the pull, up from where it has turned past.
    const side = facing > 0 ? -1 : 1;
    let before = { mm: 0, facing };
    for (let mm = edgeMm / 2; mm <= 3 * edgeMm; mm += edgeMm / 2) {
      const [x, y, z] = [0, 1, 2].map((a) => points[k + a] + (side * mm * up[a]) / length);
      nearest.nearest(place, x, y, z);
      const [, next] = facingAt(surface, place, 0, pull);
      if (Math.sign(next) !== Math.sign(before.facing)) {
        const share = before.facing / (before.facing - next || 1);
        const at = before.mm + share * (mm - before.mm);
        nearest.nearest(
          place,
          ...([0, 1, 2].map((a) => points[k + a] + (side * at * up[a]) / length) as [number, number, number]),
        );
        out.set(place, k);
        break;
      }
      before = { mm, facing: next };
    }
  }
  const line = { points: Float32Array.from(out), closed: false, sections: [0, 0] as const };
  return Float64Array.from(fairLine(line, edgeMm, nearest).points);
}

/** The mean normal about a point and how far it faces along a pull. */
function facingAt(
  { mesh, nearest, normals }: Surface,
  points: ArrayLike<number>,
  k: number,
  pull: Direction,
): readonly [readonly number[], number] {
  const triangle = nearest.nearest(scratch, points[k], points[k + 1], points[k + 2]);
  const p = mesh.positions;
  const n = [0, 0, 0];
  for (let c = 0; c < 3; c++) {
    const v = mesh.triangles[3 * triangle + c];
    const away = Math.hypot(p[3 * v] - scratch[0], p[3 * v + 1] - scratch[1], p[3 * v + 2] - scratch[2]);
    for (let a = 0; a < 3; a++) n[a] += normals[3 * v + a] / (away + 1e-3);
  }
  const length = Math.hypot(...n) || 1;
  const unit = n.map((x) => x / length);
  return [unit, unit[0] * pull[0] + unit[1] * pull[1] + unit[2] * pull[2]];
}

const scratch = new Float64Array(3);
