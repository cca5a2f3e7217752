/**
 * Plugs: small sections in a hollow, under another that leaves before them. Where a section pays most for locks, a plug
 * is proposed: the patch that pays, a little wider, with the pull that costs it least.
 */
import type { TriangleMesh } from "../../mesh/mesh.ts";
import type { Neighbours } from "../graph/graph.ts";

/** A patch belongs to a hollow where it pays at least this share of what the dearest patch of its section pays. */
const DEAR_SHARE = 0.1;
/** A hollow is taken this many rings of vertices wider: the line must lie where both see it. */
const RINGS = 3;
/** Fewer vertices than this are no section. */
const LEAST_VERTICES = 12;
/** A plug is no larger than this share of the section over it. */
const MOST_SHARE = 0.25;

/**
 * @param of region of each vertex
 * @param priceAt what each vertex pays to its region's pull
 * @param most hollows wanted
 * @returns vertices of the dearest hollows, dearest first
 */
export function hollowsOf(of: Int32Array, priceAt: Float32Array, near: Neighbours, most: number): number[][] {
  const dearest = new Map<number, number>();
  for (let v = 0; v < of.length; v++) dearest.set(of[v], Math.max(dearest.get(of[v]) ?? 0, priceAt[v]));
  const dear = (v: number) => priceAt[v] > 0 && priceAt[v] >= DEAR_SHARE * (dearest.get(of[v]) ?? 0);
  const seen = new Uint8Array(of.length);
  const found: { members: number[]; price: number }[] = [];
  for (let seed = 0; seed < of.length; seed++) {
    if (seen[seed] || !dear(seed)) continue;
    const members = [seed];
    seen[seed] = 1;
    let price = 0;
    for (let k = 0; k < members.length; k++) {
      const v = members[k];
      price += priceAt[v];
      for (let n = near.start[v]; n < near.start[v + 1]; n++) {
        const other = near.list[n];
        if (seen[other] || of[other] !== of[v] || !dear(other)) continue;
        seen[other] = 1;
        members.push(other);
      }
    }
    found.push({ members, price });
  }
  return found
    .sort((a, b) => b.price - a.price || a.members[0] - b.members[0])
    .slice(0, most)
    .map(({ members }) => widened(members, of, near))
    .filter((members) => members.length >= LEAST_VERTICES);
}

/** A patch and some rings about it, within its region. */
function widened(members: readonly number[], of: Int32Array, near: Neighbours): number[] {
  const taken = new Set(members);
  let front = [...members];
  for (let ring = 0; ring < RINGS; ring++) {
    const next: number[] = [];
    for (const v of front) {
      for (let n = near.start[v]; n < near.start[v + 1]; n++) {
        const other = near.list[n];
        if (taken.has(other) || of[other] !== of[v]) continue;
        taken.add(other);
        next.push(other);
      }
    }
    front = next;
  }
  return [...taken];
}

/**
 * @returns of each section the one that it is a plug under, or null: it borders on that one alone, does not stand on the
 * board, and is much the smaller
 */
export function plugHosts(
  mesh: TriangleMesh,
  label: ArrayLike<number>,
  near: Neighbours,
  sections: number,
  boardMm: number | null,
  edgeMm: number,
): (number | null)[] {
  const size = new Float64Array(sections);
  const beside = Array.from({ length: sections }, () => new Set<number>());
  const onBoard = new Uint8Array(sections);
  for (let v = 0; v < label.length; v++) {
    size[label[v]]++;
    if (boardMm !== null && mesh.positions[3 * v + 2] < boardMm + 0.5 * edgeMm) onBoard[label[v]] = 1;
    for (let n = near.start[v]; n < near.start[v + 1]; n++) {
      if (label[near.list[n]] !== label[v]) beside[label[v]].add(label[near.list[n]]);
    }
  }
  return beside.map((others, s) => {
    const [host] = others;
    return others.size === 1 && !onBoard[s] && size[s] <= MOST_SHARE * size[host] ? host : null;
  });
}
