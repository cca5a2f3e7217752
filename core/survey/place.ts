/** Where a place of the piece is, as people say it: seen from the front, and how high up. */

export interface Box {
  readonly min: readonly [number, number, number];
  readonly max: readonly [number, number, number];
}

/** Nearer the middle than this share of half the piece's width, a place is neither left nor right of it. */
const MIDDLE = 0.25;

/**
 * As "front left, 700 mm up". The front looks along -y, and left is as one sees it from there.
 * @param at xyz, mm, in the seated piece's space
 * @param box of the piece
 * @param length a length in words, given in mm
 */
export function placeInWords(
  at: readonly [number, number, number],
  { min, max }: Box,
  length: (mm: number) => string,
): string {
  const [x, y] = [0, 1].map((a) => (at[a] - (min[a] + max[a]) / 2) / Math.max(1e-9, (max[a] - min[a]) / 2));
  const depth = y < -MIDDLE ? "front" : y > MIDDLE ? "back" : "";
  const side = x < -MIDDLE ? "left" : x > MIDDLE ? "right" : "";
  const where = [depth, side].filter((word) => word.length > 0).join(" ") || "middle";
  return `${where}, ${length(Math.max(0, Math.round((at[2] - min[2]) / 10) * 10))} up`;
}
