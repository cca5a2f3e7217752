/**
 * A route for the jacket's seam: along the surface where it is least seen, clear of the zones to keep clear, and short, by
 * a price per mm that rises towards the front and where a zone is. A slit is a cheapest path up (see `ways.ts`); for two
 * parts it is the minimum cut between two opposite sides, so that neither part is a strip. Of several bearings the
 * cheapest is taken.
 */
import type { SeamKind } from "../../jacket/seam.ts";
import { filledBy } from "../../mesh/lists.ts";
import { type Dabs, withinZone } from "../../survey/zones.ts";
import { meshNeighbours, vertexGraph } from "../graph/graph.ts";
import { leaveHeaviest } from "../graph/regions.ts";
import { cutAcross } from "../graph/split.ts";
import { tenths } from "../layout/layout.ts";
import { type Surface, vertexAt } from "../layout/surface.ts";
import { pricedPath } from "../layout/ways.ts";
import { fairLine } from "../lines/fair.ts";
import { networkOf } from "../lines/network.ts";

/** How much dearer a mm is that faces the front than one that faces back: everyone looks at the front. */
const SEEN = 3;
const IN_ZONE = 12;
const BEARINGS = 16;

export interface RouteRequest {
  readonly kind: Exclude<SeamKind, "none">;
  /** How far up a slit has to reach, mm. */
  readonly slitMm: number;
  readonly keepClear: Dabs;
  /** How far the surface lies over the piece. */
  readonly overMm: number;
}

export interface SeamRoute {
  /** xyz per point from the foot up (and, for two parts, over the top and down again). */
  readonly points: readonly number[];
  /** Lines it takes to part the jacket: more than the one where holes run through it. */
  readonly lines: number;
}

export function seamRoute(surface: Surface, request: RouteRequest): SeamRoute {
  const { mesh, normals } = surface;
  const within = withinZone(request.keepClear, mesh.positions, normals, request.overMm);
  const price = filledBy(
    new Float64Array(within.length),
    (v) => 1 + SEEN * Math.max(0, -normals[3 * v + 1]) + IN_ZONE * within[v],
  );
  return request.kind === "slit" ? slitRoute(surface, price, request.slitMm) : partsRoute(surface, price);
}

/** Bearings tried, half way round, for a seam that parts the jacket. */
const SIDES = 6;

/** The cheapest line that parts the jacket in two of some size; the longest of a cut that takes several. */
function partsRoute(surface: Surface, price: Float64Array): SeamRoute {
  const { mesh, nearest, areasMm2, edgeMm } = surface;
  const near = meshNeighbours(mesh);
  const p = mesh.positions;
  const graph = vertexGraph(mesh);
  const seamCost = graph.seamMm.map((mm, e) => 0.5 * mm * (price[graph.edges[2 * e]] + price[graph.edges[2 * e + 1]]));
  const members = Array.from(areasMm2.keys());
  let best: (SeamRoute & { readonly cost: number }) | null = null;
  for (let k = 0; k < SIDES; k++) {
    const bearing = (Math.PI * k) / SIDES;
    const along = Float64Array.from(members, (v) => Math.cos(bearing) * p[3 * v] + Math.sin(bearing) * p[3 * v + 1]);
    const label = cutAcross(graph, seamCost, members, along, areasMm2);
    leaveHeaviest(label, near, areasMm2, 0, 1);
    leaveHeaviest(label, near, areasMm2, 1, 0);
    const lines = networkOf(mesh, label, near, nearest).map(({ points, closed }) => {
      const line = { points: Float32Array.from(points), closed, sections: [0, 0] as const };
      const fair = Array.from(fairLine(line, edgeMm, nearest, SEAM_WAVE_MM).points, tenths);
      // A ring ends where it began.
      return closed ? [...fair, ...fair.slice(0, 3)] : fair;
    });
    const cost = lines.reduce((sum, line) => sum + paidFor(surface, line, price), 0);
    // One line before several, however short.
    if (best && (lines.length > best.lines || (lines.length === best.lines && cost >= best.cost))) continue;
    lines.sort((a, b) => b.length - a.length);
    best = { points: lines[0] ?? [], lines: lines.length, cost };
  }
  return { points: best?.points ?? [], lines: best?.lines ?? 0 };
}

/** Shorter waves than this are the mesh's, not a seam's, mm. */
const SEAM_WAVE_MM = 80;

function slitRoute(surface: Surface, price: Float64Array, slitMm: number): SeamRoute {
  const { mesh, nearest } = surface;
  const p = mesh.positions;
  const { low, high, middle, reach } = extentOf(p);
  /** The place of the surface that way out from the middle at a height. */
  const placeAt = (bearing: number, z: number): [number, number, number] => {
    const [x, y] = [middle[0] + reach * Math.sin(bearing), middle[1] - reach * Math.cos(bearing)];
    const place = new Float64Array(3);
    nearest.nearest(place, x, y, z);
    return [place[0], place[1], place[2]];
  };
  let best: { points: number[]; cost: number } | null = null;
  for (let k = 0; k < BEARINGS; k++) {
    const bearing = (2 * Math.PI * k) / BEARINGS;
    const foot = placeAt(bearing, low);
    const leg = pricedPath(surface, foot, placeAt(bearing, Math.min(high, low + slitMm)), price);
    const points = Array.from(leg, tenths);
    const cost = paidFor(surface, points, price);
    if (!best || cost < best.cost) best = { points, cost };
  }
  return { points: best?.points ?? [], lines: 1 };
}

function paidFor(surface: Surface, p: readonly number[], price: Float64Array): number {
  let sum = 0;
  for (let k = 3; k < p.length; k += 3) {
    const mm = Math.hypot(p[k] - p[k - 3], p[k + 1] - p[k - 2], p[k + 2] - p[k - 1]);
    sum += mm * price[vertexAt(surface, p[k], p[k + 1], p[k + 2])];
  }
  return sum;
}

function extentOf(p: Float32Array) {
  const min = [Infinity, Infinity, Infinity];
  const max = [-Infinity, -Infinity, -Infinity];
  for (let k = 0; k < p.length; k++) {
    min[k % 3] = Math.min(min[k % 3], p[k]);
    max[k % 3] = Math.max(max[k % 3], p[k]);
  }
  const middle = min.map((m, a) => (m + max[a]) / 2);
  return { low: min[2], high: max[2], middle, reach: Math.max(max[0] - min[0], max[1] - min[1]) };
}
