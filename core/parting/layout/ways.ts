/**
 * Ways for a line to run over a surface from one place to another: the shortest, along the horizon of a pull, along
 * creases. Each is a cheapest path over the mesh's edges (Dijkstra 1959) by a price per mm that is low where the line
 * should run, then drawn fair on the surface itself: a shortest line tight (curve shortening), a horizon as an active
 * contour, the others evened out.
 */
import { CostHeap } from "../../mesh/costHeap.ts";
import { filledBy } from "../../mesh/lists.ts";
import { boxSize, meshBox } from "../../mesh/mesh.ts";
import { type Direction, dot } from "../../space/directions.ts";
import { fairLine, resample } from "../lines/fair.ts";
import { setBack } from "./layout.ts";
import { type Surface, vertexAt } from "./surface.ts";

export type Way =
  | { readonly kind: "shortest" }
  | { readonly kind: "horizon"; readonly pull: Direction }
  | { readonly kind: "creases" };

/** How much dearer a mm is where the surface faces straight along the pull than on the horizon. */
const OFF_HORIZON = 6;
/** How much cheaper a mm is along a sharp crease. */
const ON_CREASE = 8;
/** How much dearer a mm is where a line is to keep off. */
const SHUNNED = 30;
/** A line is tight when no point moves farther than this share of its spacing. */
const TIGHT = 0.003;
const TIGHTENING_ROUNDS = 400;

/**
 * @param from, to places on the surface, mm
 * @param shun 1 at the vertices that the line keeps off where it can
 * @returns xyz per point, both ends among them; a straight stretch where the surface does not join the places
 */
export function pathBetween(
  surface: Surface,
  from: readonly number[],
  to: readonly number[],
  way: Way,
  shun: Uint8Array | null = null,
): Float64Array {
  const facing = way.kind === "horizon" ? formFacing(surface, way.pull) : null;
  const price = facing ? facing.map((share) => 1 + OFF_HORIZON * Math.abs(share)) : priceOf(surface, way);
  if (shun) {
    // Drawn tight or onto a horizon it would go back to where it came from.
    return pricedPath(
      surface,
      from,
      to,
      price.map((own, v) => (shun[v] ? SHUNNED * own : own)),
    );
  }
  const { rough, ends } = roughPath(surface, from, to, price);
  if (way.kind === "shortest") return shortestFrom(rough, surface);
  const laid = fairOn(surface, rough, ends);
  return way.kind === "horizon" && facing ? fairOn(surface, ontoHorizon(laid, surface, way.pull, facing), ends) : laid;
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

/** Price of a mm at every vertex: the same everywhere, or less along creases. */
function priceOf({ mesh, normals, near, edgeMm }: Surface, { kind }: Way): Float64Array {
  const vertices = mesh.positions.length / 3;
  if (kind === "shortest") return new Float64Array(vertices).fill(1);
  return filledBy(new Float64Array(vertices), (v) => {
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

/**
 * Lays a line on the horizon of a pull as a hand sees it: of the form, not of every fold in it. An active contour (Kass,
 * Witkin and Terzopoulos 1988): every point goes to where the form turns, and to the middle of its neighbours.
 * @param points moved in place
 * @param facing see `formFacing`
 */
function ontoHorizon(points: Float64Array, surface: Surface, pull: Direction, facing: Float64Array): Float64Array {
  const { mesh, nearest, normals, edgeMm } = surface;
  const count = points.length / 3;
  const place = new Float64Array(3);
  const next = new Float64Array(3);
  for (let round = 0; round < CONTOUR_ROUNDS; round++) {
    for (let n = 1; n < count - 1; n++) {
      const at = 3 * (round % 2 === 0 ? n : count - 1 - n);
      const triangle = nearest.nearest(place, points[at], points[at + 1], points[at + 2]);
      const share = valueAt(mesh, triangle, place, (v) => facing[v]);
      // Uphill on the surface towards the pull: the pull less what of it leaves the surface.
      const normal = [0, 1, 2].map((a) => valueAt(mesh, triangle, place, (v) => normals[3 * v + a]));
      const along = dot(pull, normal as [number, number, number]) / (normal[0] ** 2 + normal[1] ** 2 + normal[2] ** 2);
      const up = pull.map((d, a) => d - along * normal[a]);
      const stepMm = -share * edgeMm;
      for (let a = 0; a < 3; a++) {
        const middle = 0.5 * (points[at - 3 + a] + points[at + 3 + a]);
        next[a] = points[at + a] + STIFFNESS * (middle - points[at + a]) + stepMm * up[a];
      }
      nearest.nearest(place, next[0], next[1], next[2]);
      points.set(place, at);
    }
  }
  return points;
}

/** Folds narrower than this share of the piece's longest side do not turn a horizon. */
const FORM_SHARE = 0.025;
/** Of the way to the middle of its neighbours that a point of the contour goes in a round. */
const STIFFNESS = 0.5;
const CONTOUR_ROUNDS = 60;

/** How far the form faces a pull at every vertex: +1 along it, -1 against it, evened out over its folds. */
function formFacing({ mesh, normals, near, edgeMm }: Surface, pull: Direction): Float64Array {
  const vertices = mesh.positions.length / 3;
  let facing = filledBy(new Float64Array(vertices), (v) =>
    dot(pull, [normals[3 * v], normals[3 * v + 1], normals[3 * v + 2]]),
  );
  // Averaging over neighbours an edge away spreads by an edge's square a round.
  const foldMm = FORM_SHARE * Math.max(...boxSize(meshBox(mesh)));
  for (let round = Math.round((foldMm / edgeMm) ** 2); round > 0; round--) {
    facing = facing.map((own, v) => {
      let sum = own;
      for (let k = near.start[v]; k < near.start[v + 1]; k++) sum += facing[near.list[k]];
      return sum / (1 + near.start[v + 1] - near.start[v]);
    });
  }
  return facing;
}

/** A value of the vertices at a place on a triangle, nearer vertices counting more. */
function valueAt(mesh: Surface["mesh"], triangle: number, place: Float64Array, of: (vertex: number) => number): number {
  const p = mesh.positions;
  let [sum, weights] = [0, 0];
  for (let c = 0; c < 3; c++) {
    const v = mesh.triangles[3 * triangle + c];
    const away = Math.hypot(p[3 * v] - place[0], p[3 * v + 1] - place[1], p[3 * v + 2] - place[2]);
    sum += of(v) / (away + 1e-3);
    weights += 1 / (away + 1e-3);
  }
  return sum / weights;
}
