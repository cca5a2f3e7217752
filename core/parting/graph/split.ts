/**
 * Splits a region along a short loop across its length: the minimum cut between its two far ends, seams at their price.
 * For sections that come off but are too heavy or too large to handle; both parts keep the pull.
 */
import type { VertexGraph } from "./graph.ts";
import { MaxFlow } from "./maxflow.ts";
import type { Regions } from "./regions.ts";

/** The share of a region's area, at either end, that stays with its end. */
const END_SHARE = 0.3;
const NEVER = 1e15;

/**
 * @param positions xyz of the graph's vertices, mm
 * @param areasMm2 area each vertex stands for
 * @param seamCost price of a seam across each edge
 * @returns the regions with `region` in two, the new one last; the same regions where it is too small to split
 */
export function splitRegion(
  graph: VertexGraph,
  seamCost: Float32Array,
  regions: Regions,
  region: number,
  positions: Float32Array,
  areasMm2: Float32Array,
): Regions {
  const members: number[] = [];
  for (let v = 0; v < regions.of.length; v++) if (regions.of[v] === region) members.push(v);
  if (members.length < 4) return regions;
  const source = cutAcross(graph, seamCost, members, alongLength(members, positions, areasMm2), areasMm2);
  const added = regions.label.length;
  const of = regions.of.slice();
  members.forEach((v, k) => {
    if (!source[k]) of[v] = added;
  });
  return { of, label: [...regions.label, regions.label[region]] };
}

/**
 * The minimum cut between the two ends of some vertices.
 * @param along where each of them lies between the ends
 * @returns 1 for each on the side of the lower end
 */
export function cutAcross(
  graph: VertexGraph,
  seamCost: Float32Array,
  members: readonly number[],
  along: Float64Array,
  areasMm2: Float32Array,
): Uint8Array {
  const order = members.map((_, k) => k).sort((a, b) => along[a] - along[b]);
  const total = members.reduce((sum, v) => sum + areasMm2[v], 0);
  const number = new Int32Array(graph.vertices).fill(-1);
  members.forEach((v, k) => {
    number[v] = k;
  });
  const flow = new MaxFlow(members.length, graph.seamMm.length);
  let passed = 0;
  for (const k of order) {
    if (passed < END_SHARE * total) flow.addTerminal(k, NEVER, 0);
    else if (passed > (1 - END_SHARE) * total) flow.addTerminal(k, 0, NEVER);
    passed += areasMm2[members[k]];
  }
  for (let e = 0; e < graph.seamMm.length; e++) {
    const a = number[graph.edges[2 * e]];
    const b = number[graph.edges[2 * e + 1]];
    if (a >= 0 && b >= 0) flow.addEdge(a, b, seamCost[e], seamCost[e]);
  }
  flow.solve();
  return Uint8Array.from(members, (_, k) => (flow.onSourceSide(k) ? 1 : 0));
}

/** Place of each member along the region's length: its first principal axis, by power iteration. */
function alongLength(members: readonly number[], p: Float32Array, areasMm2: Float32Array): Float64Array {
  const mean = [0, 0, 0];
  let total = 0;
  for (const v of members) {
    total += areasMm2[v];
    for (let a = 0; a < 3; a++) mean[a] += areasMm2[v] * p[3 * v + a];
  }
  for (let a = 0; a < 3; a++) mean[a] /= total || 1;
  const spread = [0, 0, 0, 0, 0, 0, 0, 0, 0];
  for (const v of members) {
    for (let r = 0; r < 3; r++) {
      for (let c = 0; c < 3; c++) {
        spread[3 * r + c] += areasMm2[v] * (p[3 * v + r] - mean[r]) * (p[3 * v + c] - mean[c]);
      }
    }
  }
  let axis = [0.27, 0.53, 0.8];
  for (let round = 0; round < 40; round++) {
    const next = [0, 1, 2].map(
      (r) => spread[3 * r] * axis[0] + spread[3 * r + 1] * axis[1] + spread[3 * r + 2] * axis[2],
    );
    const length = Math.hypot(...next) || 1;
    axis = next.map((value) => value / length);
  }
  return Float64Array.from(members, (v) => axis[0] * p[3 * v] + axis[1] * p[3 * v + 1] + axis[2] * p[3 * v + 2]);
}
