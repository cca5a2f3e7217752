/**
 * Which locks are filled. Stretches of blocked lines are told apart by how long, how thick and how wide the lock is that
 * they are part of:
 *   a graze is nowhere wider than the roughness of the grid, and does not count;
 *   a short stretch is filled; so is every stretch of a lock that lies within the fill depth of the jacket throughout;
 *   a ledge, deep but narrow across the pull, is filled as far as the section reaches from the jacket;
 *   the rest stays open.
 */
import type { ColumnFrame } from "../survey/columns.ts";

/** The part of a blocked line that lies in a section's cell. Places along the line, mm. */
export interface Stretch {
  readonly line: number;
  readonly to: number;
  readonly low: number;
  /** Where its last run begins that is no farther from the jacket than the section reaches. */
  readonly near: number;
  readonly lengthMm: number;
  /** The thickness a fill would have: the greatest distance from the jacket in the stretch, mm; infinite where no fill helps. */
  readonly thickMm: number;
}

/** A lock this narrow across the pull is a ledge, mm. */
const LEDGE_MM = 12;

/**
 * Leaves out grazes: deep stretches nowhere wider than `grazeMm`, and lone ones shorter than the spacing. They come from
 * walls that lean back by less than the spacing over their whole height, which wax and rubber take up. A lock keeps its
 * edges, for they join its core.
 */
export function withoutGrazes(
  stretches: readonly Stretch[],
  frame: ColumnFrame,
  fillDepthMm: number,
  grazeMm: number,
): Stretch[] {
  const { countU, spacingMm } = frame.bundle;
  const blocked = new Set(stretches.map((stretch) => stretch.line));
  const rings = Math.max(1, Math.round(grazeMm / (2 * spacingMm)));
  const isCore = (line: number) => around(line, countU, rings).every((other) => blocked.has(other));
  const joined = new Set<number>();
  const queue = [...blocked].filter(isCore);
  for (const line of queue) joined.add(line);
  for (let line = queue.pop(); line !== undefined; line = queue.pop()) {
    for (let row = -rings; row <= rings; row++) {
      for (let step = -rings; step <= rings; step++) {
        const other = line + row * countU + step;
        if (!blocked.has(other) || joined.has(other)) continue;
        joined.add(other);
        // Edges are taken along, but only cores reach further.
        if (isCore(other)) queue.push(other);
      }
    }
  }
  const alone = (line: number) => beside(line, countU).every((other) => !blocked.has(other));
  return stretches.filter(({ line, low, to }) =>
    to - low > fillDepthMm ? joined.has(line) : to - low > frame.bundle.spacingMm || !alone(line),
  );
}

/** The lines about a line, so many rings of them: eight for one. */
function around(line: number, countU: number, rings: number): number[] {
  const out: number[] = [];
  for (let row = -rings; row <= rings; row++) {
    for (let step = -rings; step <= rings; step++) {
      if (row !== 0 || step !== 0) out.push(line + row * countU + step);
    }
  }
  return out;
}

function beside(line: number, countU: number): number[] {
  return [line - 1, line + 1, line - countU, line + countU];
}

/** Where the fill of each stretch begins along its line, mm; NaN where it stays open. */
export function fillStarts(stretches: readonly Stretch[], frame: ColumnFrame, fillDepthMm: number): Float64Array {
  const { countU, spacingMm } = frame.bundle;
  const onLine = new Map<number, number[]>();
  const long = stretches.map((stretch) => Math.max(stretch.to - stretch.low, stretch.thickMm) > fillDepthMm);
  const out = Float64Array.from(stretches, (stretch, k) => (long[k] ? Number.NaN : stretch.low));
  stretches.forEach((stretch, k) => {
    if (long[k]) onLine.set(stretch.line, [...(onLine.get(stretch.line) ?? []), k]);
  });
  const inward = linesInward(onLine, countU);
  const seen = new Uint8Array(stretches.length);
  for (let seed = 0; seed < stretches.length; seed++) {
    if (!long[seed] || seen[seed]) continue;
    const members = [seed];
    seen[seed] = 1;
    let thick = 0;
    let wide = 0;
    for (let m = 0; m < members.length; m++) {
      const own = stretches[members[m]];
      thick = Math.max(thick, own.thickMm);
      wide = Math.max(wide, inward.get(own.line) ?? 0);
      for (const other of beside(own.line, countU)) {
        for (const k of onLine.get(other) ?? []) {
          if (seen[k] || stretches[k].low > own.to || stretches[k].to < own.low) continue;
          seen[k] = 1;
          members.push(k);
        }
      }
    }
    if (thick <= fillDepthMm) for (const k of members) out[k] = stretches[k].low;
    else if ((2 * wide - 1) * spacingMm <= LEDGE_MM) for (const k of members) out[k] = stretches[k].near;
  }
  return out;
}

/** How many lines each blocked line lies inwards from the edge of its patch: 1 at the edge. Breadth first. */
function linesInward(onLine: ReadonlyMap<number, unknown>, countU: number): Map<number, number> {
  const depth = new Map<number, number>();
  let ring = [...onLine.keys()].filter((line) => beside(line, countU).some((other) => !onLine.has(other)));
  for (const line of ring) depth.set(line, 1);
  for (let level = 2; ring.length > 0; level++) {
    const next: number[] = [];
    for (const line of ring) {
      for (const other of beside(line, countU)) {
        if (!onLine.has(other) || depth.has(other)) continue;
        depth.set(other, level);
        next.push(other);
      }
    }
    ring = next;
  }
  return depth;
}
