/**
 * A parting laid by hand: the sections with their pulls, and the lines between them. Every line knows the section on
 * its left and on its right, seen from outside, and which of its points are the handles it is moved by. Plain data: it
 * is kept in the plan document. Points are mm in the seated piece's space, a tenth of a mm exact.
 */
import type { NearestField } from "../../field/nearest.ts";
import type { Direction } from "../../space/directions.ts";
import type { PartingLine } from "../lines/cut.ts";
import type { SidedLine } from "../lines/network.ts";

export interface LaidLine {
  /** xyz per point; a few mm apart. */
  readonly points: readonly number[];
  /** Places of the handles among the points, rising; the two ends of an open line are handles. */
  readonly handles: readonly number[];
  readonly closed: boolean;
  readonly left: number;
  readonly right: number;
}

/** What of a section stays while the rest is suggested again: only its pull, or its lines with it. */
export type Hold = "pull" | "section";

/** What a lock that can be filled is filled with; or it is left open, and holds. */
export type FillWith = "silicone" | "clay" | "open";

/** What is decided for one section beside its pull and its lines. */
export interface Treatment {
  readonly hold?: Hold;
  /** Silicone where it is left out. */
  readonly fillWith?: FillWith;
}

export interface LaidSection extends Treatment {
  readonly pull: Direction;
}

export interface Layout {
  readonly sections: readonly LaidSection[];
  readonly lines: readonly LaidLine[];
}

/** As many sections as there are pigments to tell them by. */
export const MOST_SECTIONS = 8;

/** Handles of a line that was suggested stand about this far apart, mm. */
const HANDLE_SPACING_MM = 140;
const LEAST_HANDLES_OF_RING = 4;

export const tenths = (value: number): number => Math.round(value * 10) / 10;

/** The lines of a plan taken in hand. */
export function layoutOf(
  lines: readonly (Omit<SidedLine, "points"> & { readonly points: ArrayLike<number> })[],
  pulls: readonly Direction[],
): Layout {
  return {
    sections: pulls.map((pull) => ({ pull })),
    lines: lines.map(({ points, closed, left, right }) => {
      const rounded = Array.from(points, tenths);
      return { points: rounded, handles: evenHandles(rounded, closed), closed, left, right };
    }),
  };
}

/** The drawn lines of a plan, left section first, as a layout of its sections in their order. */
export function takenInHand(drawn: readonly PartingLine[], sections: readonly { readonly pull: Direction }[]): Layout {
  const lines = drawn.map(({ points, closed, sections: [left, right] }) => ({
    points: Float64Array.from(points),
    closed,
    left,
    right,
  }));
  return layoutOf(
    lines,
    sections.map(({ pull }) => pull),
  );
}

/** Handles at even distances along a line. */
export function evenHandles(points: ArrayLike<number>, closed: boolean): number[] {
  const count = points.length / 3;
  const along = placesAlong(points, closed);
  const total = along[along.length - 1];
  const least = closed ? LEAST_HANDLES_OF_RING : 1;
  const legs = Math.min(count - (closed ? 0 : 1), Math.max(least, Math.round(total / HANDLE_SPACING_MM)));
  const handles = new Set<number>();
  for (let n = 0, k = 0; n < (closed ? legs : legs + 1); n++) {
    while (k < count - 1 && along[k] < (total * n) / legs - 1e-9) k++;
    handles.add(k);
  }
  if (!closed) handles.add(count - 1);
  return [...handles].sort((a, b) => a - b);
}

/** How far along a line each point lies, mm; a ring's full length last. */
export function placesAlong(p: ArrayLike<number>, closed: boolean): Float64Array {
  const count = p.length / 3;
  const along = new Float64Array(closed ? count + 1 : count);
  for (let k = 1; k < along.length; k++) {
    const [a, b] = [3 * (k - 1), 3 * (k % count)];
    along[k] = along[k - 1] + Math.hypot(p[b] - p[a], p[b + 1] - p[a + 1], p[b + 2] - p[a + 2]);
  }
  return along;
}

/** The lines as a network that lies on a surface: it may have moved since they were laid. */
export function networkOn(layout: Layout, nearest: NearestField): SidedLine[] {
  return layout.lines.map(({ points, closed, left, right }) => ({
    points: setBack(points, nearest),
    closed,
    left,
    right,
  }));
}

/** Points moved to the nearest place of a surface. */
export function setBack(points: ArrayLike<number>, nearest: NearestField): Float64Array {
  const out = new Float64Array(points.length);
  const place = new Float64Array(3);
  for (let k = 0; k < out.length; k += 3) {
    nearest.nearest(place, points[k], points[k + 1], points[k + 2]);
    out.set(place, k);
  }
  return out;
}
