/**
 * Blocks under a parting wall while it is built: a wall that lies nearer to level than upright hangs in the air beside the piece
 * until the section on it has set, and stands on blocks cut to these heights.
 */
import type { Wall } from "./walls.ts";

export interface Block {
  /** Along the wall's foot from its beginning, mm. */
  readonly alongMm: number;
  /** The middle of the wall there, from beneath which it is held. */
  readonly at: readonly [number, number, number];
  /** From the board, mm. */
  readonly heightMm: number;
}

/** A block every so much of a wall, mm. */
const APART_MM = 180;
/** A wall whose surface is turned up by this much or more, as a sine, hangs over. */
const LEVEL = 0.5;
/** Lower than this it is held by clay alone, mm. */
const LEAST_MM = 25;
/** Higher than this nobody stacks blocks: the wall is strutted off the piece, mm. */
const MOST_MM = 800;

/** @param boardMm height of the board, mm */
export function blocksUnder({ foot, head, widthsMm }: Wall, boardMm: number): Block[] {
  const out: Block[] = [];
  let alongMm = 0;
  let last = Number.NEGATIVE_INFINITY;
  for (let k = 0; 3 * k < foot.length; k++) {
    const at = (values: Float64Array, n: number) => [values[3 * n], values[3 * n + 1], values[3 * n + 2]];
    const own = at(foot, k);
    const before = at(foot, Math.max(0, k - 1));
    const step = own.map((x, a) => x - before[a]);
    alongMm += Math.hypot(...step);
    if (widthsMm[k] < 1 || alongMm - last < APART_MM) continue;
    const next = at(foot, Math.min(foot.length / 3 - 1, k + 1));
    const way = next.map((x, a) => x - before[a]);
    const wide = at(head, k).map((x, a) => x - own[a]);
    const cross = [
      way[1] * wide[2] - way[2] * wide[1],
      way[2] * wide[0] - way[0] * wide[2],
      way[0] * wide[1] - way[1] * wide[0],
    ];
    const length = Math.hypot(...cross);
    if (length < 1e-9 || Math.abs(cross[2]) / length < LEVEL) continue;
    const middle: [number, number, number] = [own[0] + wide[0] / 2, own[1] + wide[1] / 2, own[2] + wide[2] / 2];
    const heightMm = middle[2] - boardMm;
    if (heightMm < LEAST_MM || heightMm > MOST_MM) continue;
    out.push({ alongMm, at: middle, heightMm });
    last = alongMm;
  }
  return out;
}
