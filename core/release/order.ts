/**
 * The orders that follow from who blocks whom: sections are taken apart so that nothing blocked moves; they are built the
 * other way round.
 */
import type { Block } from "./blocks.ts";

export interface Order {
  /** Sections in the order they are taken off. */
  readonly remove: readonly number[];
  /** The reverse: the order they are built in. */
  readonly build: readonly number[];
  /** Sections that block each other in a circle, and cannot be ordered. */
  readonly circle: readonly number[];
}

/**
 * Takes apart what nothing blocks, the last built first; those that leave only after the piece has been lifted as late as
 * can be.
 * @param sections how many there are, numbered from the lowest up
 * @param lifted 1 for each that leaves after a lift
 */
export function orderOf(
  sections: number,
  blocks: readonly Pick<Block, "section" | "by">[],
  lifted: readonly boolean[] = [],
): Order {
  const left = new Set(Array.from({ length: sections }, (_, s) => s));
  const remove: number[] = [];
  while (left.size > 0) {
    const free = [...left].filter((s) => !blocks.some(({ section, by }) => section === s && left.has(by)));
    if (free.length === 0) break;
    const standing = free.filter((s) => !lifted[s]);
    const next = Math.max(...(standing.length > 0 ? standing : free));
    left.delete(next);
    remove.push(next);
  }
  const circle = [...left];
  const whole = [...remove, ...[...circle].reverse()];
  return { remove: whole, build: [...whole].reverse(), circle };
}
