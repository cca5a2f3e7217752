/** What is done to a line by its handles: move, add, take away, lay a stretch again. The layout given is left as it was. */
import { type LaidLine, type Layout, placesAlong, tenths } from "./layout.ts";
import type { Surface } from "./surface.ts";
import { pathBetween, type Way } from "./ways.ts";

export type Place = readonly [number, number, number];

/** An end this near the board stands on it, mm. */
const ON_BOARD_MM = 2;
/** A ring keeps at least so many handles. */
const LEAST_HANDLES_OF_RING = 3;

export function placeAt({ points }: Pick<LaidLine, "points">, k: number): Place {
  return [points[3 * k], points[3 * k + 1], points[3 * k + 2]];
}

/** The place on the surface nearest another; on the board where the old one stood on it. Tenths of a mm. */
export function placeOn({ nearest, boardMm }: Surface, [x, y, z]: Place, onBoard = false): Place {
  const place = new Float64Array(3);
  nearest.nearest(place, x, y, onBoard && boardMm !== null ? boardMm : z);
  return [tenths(place[0]), tenths(place[1]), onBoard && boardMm !== null ? boardMm : tenths(place[2])];
}

export function standsOnBoard({ boardMm }: Surface, [, , z]: Place): boolean {
  return boardMm !== null && Math.abs(z - boardMm) < ON_BOARD_MM;
}

export const samePlace = (a: Place, b: Place): boolean => a[0] === b[0] && a[1] === b[1] && a[2] === b[2];

/** The places of a line's two ends among its points; none of a ring. */
export function endsOf({ points, closed }: LaidLine): readonly number[] {
  return closed ? [] : [0, points.length / 3 - 1];
}

/**
 * Moves a handle to a place on the surface. The line follows as far as the handles beside it, most at the handle; an
 * end where lines meet takes their ends along, and an end on the board stays on it.
 */
export function moveHandle(surface: Surface, layout: Layout, line: number, handle: number, to: Place): Layout {
  const own = layout.lines[line];
  const old = placeAt(own, own.handles[handle]);
  const isEnd = endsOf(own).includes(own.handles[handle]);
  const target = placeOn(surface, to, isEnd && standsOnBoard(surface, old));
  const shift = target.map((x, a) => x - old[a]) as unknown as Place;
  const lines = layout.lines.map((other, n) => {
    const moved = other.handles
      .map((at, h) => ({ at, h }))
      .filter(({ at, h }) =>
        n === line && h === handle ? true : isEnd && endsOf(other).includes(at) && samePlace(placeAt(other, at), old),
      );
    return moved.reduce((held, { h }) => drawnAlong(surface, held, h, shift, target), other);
  });
  return { ...layout, lines };
}

/** A line whose handle has gone to a place, the points beside it following. */
function drawnAlong(surface: Surface, line: LaidLine, handle: number, shift: Place, target: Place): LaidLine {
  const { points, handles, closed } = line;
  const count = points.length / 3;
  const at = handles[handle];
  const out = [...points];
  out.splice(3 * at, 3, ...target);
  const along = placesAlong(points, closed);
  const total = along[along.length - 1];
  for (const step of [1, -1]) {
    const next = handles[(handle + step + handles.length) % handles.length];
    if (!closed && (handle + step < 0 || handle + step >= handles.length)) continue;
    const reach = wayAlong(along, total, at, next, step);
    for (let k = (at + step + count) % count; k !== next; k = (k + step + count) % count) {
      const share = 0.5 * (1 + Math.cos((Math.PI * wayAlong(along, total, at, k, step)) / (reach || 1)));
      const [x, y, z] = placeAt(line, k).map((value, a) => value + share * shift[a]);
      out.splice(3 * k, 3, ...placeOn(surface, [x, y, z]));
    }
  }
  return { ...line, points: out };
}

/** From one point of a line to another, one way round, mm. */
function wayAlong(along: Float64Array, totalMm: number, from: number, to: number, step: number): number {
  const way = step * (along[to] - along[from]);
  return way < 0 || (way === 0 && from !== to) ? way + totalMm : way;
}

/** A handle more, at the point of the line nearest a place. */
export function insertHandle(layout: Layout, line: number, [x, y, z]: Place): Layout {
  const own = layout.lines[line];
  let best = -1;
  let least = Infinity;
  for (let k = 0; k < own.points.length / 3; k++) {
    if (own.handles.includes(k)) continue;
    const [px, py, pz] = placeAt(own, k);
    const away = (px - x) ** 2 + (py - y) ** 2 + (pz - z) ** 2;
    if (away >= least) continue;
    least = away;
    best = k;
  }
  if (best < 0) return layout;
  return withLine(layout, line, { ...own, handles: [...own.handles, best].sort((a, b) => a - b) });
}

/** How much of its own length beside a stretch gives way when the stretch is moved. */
const GIVES_WAY = 0.25;

/**
 * Moves the stretch of a line about a place: its middle goes to another place, and the line gives way to a little beyond
 * both its ends.
 * @param at the middle of the stretch, on or near the line
 */
export function shiftStretch(surface: Surface, layout: Layout, at: Place, to: Place, lengthMm: number): Layout {
  const { line, point } = nearestPoint(layout, at);
  if (line < 0) return layout;
  const own = layout.lines[line];
  const count = own.points.length / 3;
  const along = placesAlong(own.points, own.closed);
  const total = along[along.length - 1];
  const reach = Math.min((0.5 + GIVES_WAY) * lengthMm, 0.45 * total);
  const away = (k: number): number => {
    const straight = Math.abs(along[k] - along[point]);
    return own.closed ? Math.min(straight, total - straight) : straight;
  };
  const ends = endsOf(own);
  const kept = own.handles.filter((k) => away(k) > reach || ends.includes(k));
  const stops = [1, -1].flatMap((step) => {
    for (let k = point, n = 0; n < count; k = (k + step + count) % count, n++) {
      if (away(k) >= reach || (n > 0 && ends.includes(k))) return [k];
    }
    return [];
  });
  const handles = [...new Set([...kept, ...stops, point])].sort((a, b) => a - b);
  return moveHandle(surface, withLine(layout, line, { ...own, handles }), line, handles.indexOf(point), to);
}

/** The point of any line nearest a place; line -1 where there is none. */
function nearestPoint(layout: Layout, [x, y, z]: Place): { line: number; point: number } {
  let found = { line: -1, point: -1 };
  let least = Infinity;
  layout.lines.forEach((line, n) => {
    for (let k = 0; k < line.points.length / 3; k++) {
      const [px, py, pz] = placeAt(line, k);
      const away = (px - x) ** 2 + (py - y) ** 2 + (pz - z) ** 2;
      if (away >= least) continue;
      least = away;
      found = { line: n, point: k };
    }
  });
  return found;
}

/** A handle less; the line runs the shortest way between those beside it. Ends, and the last of a ring, stay. */
export function removeHandle(surface: Surface, layout: Layout, line: number, handle: number): Layout {
  const own = layout.lines[line];
  if (endsOf(own).includes(own.handles[handle])) return layout;
  if (own.closed && own.handles.length <= LEAST_HANDLES_OF_RING) return layout;
  const before = (handle - 1 + own.handles.length) % own.handles.length;
  const without = { ...own, handles: own.handles.filter((_, h) => h !== handle) };
  const at = without.handles.indexOf(own.handles[before]);
  return layStretch(surface, withLine(layout, line, without), line, at, { kind: "shortest" });
}

/** Lays the stretch from a handle to the next one again. */
export function layStretch(surface: Surface, layout: Layout, line: number, handle: number, way: Way): Layout {
  const own = layout.lines[line];
  const next = (handle + 1) % own.handles.length;
  const [a, b] = [own.handles[handle], own.handles[next]];
  const path = Array.from(pathBetween(surface, placeAt(own, a), placeAt(own, b), way), tenths);
  // The ends stay just where they were: other lines may meet there.
  const inner = path.slice(3, -3);
  const gained = inner.length / 3;
  if (b > a) {
    const points = [...own.points.slice(0, 3 * a + 3), ...inner, ...own.points.slice(3 * b)];
    const handles = own.handles.map((k) => (k > a ? k + gained - (b - a - 1) : k));
    return withLine(layout, line, { ...own, points, handles });
  }
  // Over the seam of a ring: it is turned so that the stretch ends it.
  const points = [...own.points.slice(3 * b, 3 * a + 3), ...inner];
  return withLine(layout, line, { ...own, points, handles: own.handles.map((k) => k - b) });
}

function withLine(layout: Layout, line: number, next: LaidLine): Layout {
  return { ...layout, lines: layout.lines.map((held, n) => (n === line ? next : held)) };
}
