/** Walls given by their rulings, for tests of what is drawn and placed on them. */

import { NUT_FIGURES, NUT_RULINGS } from "../walls/nutRoom.ts";
import { MOST_WIDTH_MM, type WallGround } from "../walls/wallGround.ts";
import type { Wall } from "../walls/walls.ts";

export const WIDTH_MM = 45;

/** A wall whose rulings are given by their share of its length. */
export function wallOf(lengthMm: number, at: (mm: number) => readonly [number[], number[]], closed = false): Wall {
  const count = Math.round(lengthMm / 5);
  const places = Array.from({ length: count + 1 }, (_, k) => at((lengthMm * k) / count));
  const foot = Float64Array.from(places.flatMap(([f]) => f));
  const head = Float64Array.from(places.flatMap(([, h]) => h));
  return {
    ...{ foot, head, closed, sections: [1, 2], wantedMm: WIDTH_MM, narrowed: [], folds: [] },
    widthsMm: new Float64Array(count + 1).fill(WIDTH_MM),
  };
}

/** Straight up a tube, its wall standing out along x. */
export const upright = wallOf(420, (mm) => [
  [100, 0, mm],
  [100 + WIDTH_MM, 0, mm],
]);
/** Round a quarter of a bend of 200 mm about the upright, the wall standing up. */
export const round = wallOf(100 * Math.PI, (mm) => {
  const [x, y] = [200 * Math.cos(mm / 200), 200 * Math.sin(mm / 200)];
  return [
    [x, y, 500],
    [x, y, 500 + WIDTH_MM],
  ];
});

/** The ground of a wall that stands free: room all along, and jackets far from its bolts. */
export function groundOf(wall: Wall, change: Partial<WallGround> = {}): WallGround {
  const count = wall.foot.length / 3;
  const out = Float32Array.from(wall.foot, (value, n) => (wall.head[n] - value) / wall.widthsMm[Math.floor(n / 3)]);
  return {
    sections: wall.sections,
    closed: wall.closed,
    foot: Float32Array.from(wall.foot),
    out,
    roomMm: new Float32Array(count).fill(MOST_WIDTH_MM),
    limit: new Uint32Array(count),
    leanDeg: new Float32Array(count),
    draft: new Float32Array(2 * count).fill(1),
    nutMm: new Float32Array(Math.ceil(count / NUT_RULINGS) * NUT_FIGURES).fill(200),
    ...change,
  };
}
