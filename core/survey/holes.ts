/**
 * Through-holes of a body: loops of its surface that no patch of surface fills, found as topology and drawn tight. A
 * tree of shortest paths and a tree over the faces across the other edges leave two edges a handle; each closes one
 * loop (tree-cotree decomposition, Eppstein 2003; the face tree grown longest loop first, after Erickson and
 * Whittlesey 2005, so that what is left are short loops). A body on the board is closed by the board: a gap under an
 * arm that rests on it is a hole too.
 */
import type { NearestField } from "../field/nearest.ts";
import { CostHeap } from "../mesh/costHeap.ts";
import { filledBy } from "../mesh/lists.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";

export interface ThroughHole {
  /** Length of the tightest loop round its inside found, mm. */
  readonly girthMm: number;
  /** The middle of that loop: in the hole. */
  readonly at: readonly [number, number, number];
  /** The loop on the surface, xyz per point. */
  readonly loop: Float32Array;
}

/** Loops are looked for from so many places: from one alone a loop may run the long way round. */
const ROOTS = 4;
/** Points of a loop while it is drawn tight: few at first, for they move farther at once. */
const LOOP_POINTS = [24, 72] as const;
const TIGHTENING_ROUNDS = 400;
/** Loops whose middles are nearer than this share of their girth are one hole. */
const SAME_HOLE = 0.12;

/** @param mesh closed, or open on the board plane only */
export function throughHoles(mesh: TriangleMesh, nearest: NearestField): ThroughHole[] {
  const closed = closedByApex(mesh);
  const vertices = mesh.positions.length / 3;
  const found: ThroughHole[] = [];
  const lookFrom = (root: number): void => {
    for (const loop of looseLoops(mesh, closed, root)) {
      const hole = tightened(mesh, nearest, loop, vertices);
      if (!hole) continue;
      const same = found.findIndex(({ at, girthMm }) => {
        const away = Math.hypot(...at.map((x, a) => x - hole.at[a]));
        return away < SAME_HOLE * Math.min(girthMm, hole.girthMm);
      });
      if (same < 0) found.push(hole);
      else if (hole.girthMm < found[same].girthMm) found[same] = hole;
    }
  };
  for (let n = 0; n < ROOTS; n++) lookFrom(Math.floor(((n + 0.5) * vertices) / ROOTS));
  // Once more from the inside of every hole: from elsewhere the loop that was found may wind about the body as well.
  for (const { at } of [...found]) lookFrom(nearestVertex(mesh, at));
  return found.sort((a, b) => b.girthMm - a.girthMm);
}

function nearestVertex({ positions: p }: TriangleMesh, at: readonly number[]): number {
  let best = 0;
  let least = Infinity;
  for (let v = 0; v < p.length / 3; v++) {
    const away = (p[3 * v] - at[0]) ** 2 + (p[3 * v + 1] - at[1]) ** 2 + (p[3 * v + 2] - at[2]) ** 2;
    if (away >= least) continue;
    least = away;
    best = v;
  }
  return best;
}

/** The triangles of the mesh, and one from every edge of its border to a vertex that stands for the board. */
interface ClosedMesh {
  readonly triangles: Uint32Array;
  readonly apex: number;
}

function closedByApex({ positions, triangles: t }: TriangleMesh): ClosedMesh {
  const apex = positions.length / 3;
  const open = new Map<number, readonly [number, number]>();
  for (let k = 0; k < t.length; k++) {
    const [a, b] = [t[k], t[k % 3 === 2 ? k - 2 : k + 1]];
    const key = Math.min(a, b) * (apex + 1) + Math.max(a, b);
    if (!open.delete(key)) open.set(key, [a, b]);
  }
  const caps = [...open.values()].flatMap(([a, b]) => [b, a, apex]);
  const triangles = new Uint32Array(t.length + caps.length);
  triangles.set(t);
  triangles.set(caps, t.length);
  return { triangles, apex };
}

/** An edge with the two triangles at it. */
interface Edge {
  readonly a: number;
  readonly b: number;
  readonly one: number;
  other: number;
}

/** Loops, as rings of vertices, that no patch of surface fills; every one runs over a root's tree of paths. */
function looseLoops(mesh: TriangleMesh, { triangles: t, apex }: ClosedMesh, root: number): number[][] {
  const edges = new Map<number, Edge>();
  for (let k = 0; k < t.length; k++) {
    const [a, b] = [t[k], t[k % 3 === 2 ? k - 2 : k + 1]];
    const key = Math.min(a, b) * (apex + 1) + Math.max(a, b);
    const held = edges.get(key);
    if (held) held.other = Math.floor(k / 3);
    else edges.set(key, { a, b, one: Math.floor(k / 3), other: -1 });
  }
  const { cost, back } = shortestPaths(mesh, [...edges.values()], apex, root);
  const lengthOf = ({ a, b }: Edge) => cost[a] + cost[b] + edgeMm(mesh, a, b, apex);
  const rest = [...edges.values()].filter(({ a, b }) => back[a] !== b && back[b] !== a && cost[a] < Infinity);
  rest.sort((x, y) => lengthOf(y) - lengthOf(x));
  const group = new Groups(t.length / 3);
  const loose = rest.filter(({ one, other }) => other >= 0 && !group.join(one, other));
  return loose.map(({ a, b }) => loopThrough(a, b, back));
}

/** From the first common vertex of two vertices' ways to the root, out along one and back along the other. */
function loopThrough(a: number, b: number, back: Int32Array): number[] {
  const wayOf = (from: number) => {
    const way = [from];
    for (let v = back[from]; v >= 0; v = back[v]) way.push(v);
    return way.reverse();
  };
  const [one, other] = [wayOf(a), wayOf(b)];
  let same = 0;
  while (same + 1 < Math.min(one.length, other.length) && one[same + 1] === other[same + 1]) same++;
  return [...one.slice(same), ...other.slice(same + 1).reverse()];
}

/** To the board and from it costs nothing but the way along it, which is short beside the loops looked for. */
function edgeMm({ positions: p }: TriangleMesh, a: number, b: number, apex: number): number {
  if (a === apex || b === apex) return BOARD_MM;
  return Math.hypot(p[3 * a] - p[3 * b], p[3 * a + 1] - p[3 * b + 1], p[3 * a + 2] - p[3 * b + 2]);
}

/** Half of what the way over the board between two feet is taken to be at first, mm. */
const BOARD_MM = 60;

function shortestPaths(
  mesh: TriangleMesh,
  edges: readonly Edge[],
  apex: number,
  root: number,
): { cost: Float64Array; back: Int32Array } {
  const near: number[][] = Array.from({ length: apex + 1 }, () => []);
  for (const { a, b } of edges) {
    near[a].push(b);
    near[b].push(a);
  }
  const cost = new Float64Array(apex + 1).fill(Infinity);
  const back = new Int32Array(apex + 1).fill(-1);
  cost[root] = 0;
  const heap = new CostHeap();
  heap.push(root, 0);
  for (let item = heap.pop(); item; item = heap.pop()) {
    if (item.cost > cost[item.v]) continue;
    for (const o of near[item.v]) {
      const next = item.cost + edgeMm(mesh, item.v, o, apex);
      if (next >= cost[o]) continue;
      cost[o] = next;
      back[o] = item.v;
      heap.push(o, next);
    }
  }
  return { cost, back };
}

/** Disjoint sets (Tarjan 1975). */
class Groups {
  private readonly parent: Int32Array;

  constructor(count: number) {
    this.parent = filledBy(new Int32Array(count), (k) => k);
  }

  private of(k: number): number {
    let top = k;
    while (this.parent[top] !== top) {
      this.parent[top] = this.parent[this.parent[top]];
      top = this.parent[top];
    }
    return top;
  }

  /** @returns whether they were apart before */
  join(a: number, b: number): boolean {
    const [x, y] = [this.of(a), this.of(b)];
    this.parent[x] = y;
    return x !== y;
  }
}

/** The loop drawn tight on the surface; null where what it goes round is the body itself and not a hole. */
function tightened(
  mesh: TriangleMesh,
  nearest: NearestField,
  ring: readonly number[],
  apex: number,
): ThroughHole | null {
  const p = mesh.positions;
  const corners = ring.filter((v) => v !== apex).flatMap((v) => [p[3 * v], p[3 * v + 1], p[3 * v + 2]]);
  if (corners.length < 9) return null;
  const overBoard = ring.includes(apex);
  let points: Float64Array = Float64Array.from(corners);
  for (const wanted of LOOP_POINTS) points = drawnTight(evenRing(points, wanted), mesh, nearest, overBoard);
  const count = points.length / 3;
  const at = [0, 1, 2].map((a) => points.reduce((sum, x, k) => (k % 3 === a ? sum + x : sum), 0) / count);
  let girthMm = 0;
  for (let n = 0; n < count; n++) {
    const [a, b] = [3 * n, 3 * ((n + 1) % count)];
    girthMm += Math.hypot(points[b] - points[a], points[b + 1] - points[a + 1], points[b + 2] - points[a + 2]);
  }
  if (girthMm < 6 || within(mesh, nearest, at)) return null;
  return { girthMm, at: [at[0], at[1], at[2]], loop: Float32Array.from(points) };
}

/** Every point to the middle of its neighbours and back on the surface, until none moves; on the board it stays on it. */
function drawnTight(points: Float64Array, mesh: TriangleMesh, nearest: NearestField, overBoard: boolean): Float64Array {
  const count = points.length / 3;
  const place = new Float64Array(3);
  for (let round = 0; round < TIGHTENING_ROUNDS; round++) {
    let farthest = 0;
    for (let n = 0; n < count; n++) {
      const [a, b, at] = [3 * ((n + count - 1) % count), 3 * ((n + 1) % count), 3 * n];
      const x = 0.5 * (points[a] + points[b]);
      const y = 0.5 * (points[a + 1] + points[b + 1]);
      const z = 0.5 * (points[a + 2] + points[b + 2]);
      nearest.nearest(place, x, y, z);
      // Between two feet the loop runs over the board, clear of the body.
      const away = Math.hypot(place[0] - x, place[1] - y, place[2] - z);
      const overIt = overBoard && z < away && !within(mesh, nearest, [x, y, ON_BOARD_MM]);
      if (!overIt) nearest.nearest(place, x, y, z);
      const [px, py, pz] = overIt ? [x, y, 0] : place;
      farthest = Math.max(farthest, Math.hypot(px - points[at], py - points[at + 1], pz - points[at + 2]));
      points[at] = px;
      points[at + 1] = py;
      points[at + 2] = pz;
    }
    if (farthest < TIGHT_MM) break;
  }
  return points;
}

const TIGHT_MM = 0.02;
const ON_BOARD_MM = 1;

/** Does a place lie inside the body? By the side of the surface nearest it. */
function within(mesh: TriangleMesh, nearest: NearestField, [x, y, z]: readonly number[]): boolean {
  const place = new Float64Array(3);
  const t = 3 * nearest.nearest(place, x, y, z);
  const { positions: p, triangles } = mesh;
  const [a, b, c] = [3 * triangles[t], 3 * triangles[t + 1], 3 * triangles[t + 2]];
  const u = [0, 1, 2].map((k) => p[b + k] - p[a + k]);
  const v = [0, 1, 2].map((k) => p[c + k] - p[a + k]);
  const n = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]];
  return n[0] * (x - place[0]) + n[1] * (y - place[1]) + n[2] * (z - place[2]) < 0;
}

/** Points at even distances along a ring. */
function evenRing(corners: ArrayLike<number>, count: number): Float64Array {
  const legs = corners.length / 3;
  const along = [0];
  for (let k = 0; k < legs; k++) {
    const [a, b] = [3 * k, 3 * ((k + 1) % legs)];
    along.push(along[k] + Math.hypot(...[0, 1, 2].map((x) => corners[b + x] - corners[a + x])));
  }
  const out = new Float64Array(3 * count);
  for (let n = 0, leg = 0; n < count; n++) {
    const at = (along[legs] * n) / count;
    while (leg < legs - 1 && along[leg + 1] < at) leg++;
    const share = (at - along[leg]) / (along[leg + 1] - along[leg] || 1);
    const [a, b] = [3 * leg, 3 * ((leg + 1) % legs)];
    for (let x = 0; x < 3; x++) out[3 * n + x] = corners[a + x] + share * (corners[b + x] - corners[a + x]);
  }
  return out;
}
