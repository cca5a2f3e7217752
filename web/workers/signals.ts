/** What the threads of the page say to each other beside their tasks. */

/**
 * What can be ended in a geometry worker, by its place in the memory it shares with the page: work up to a number, all that
 * was asked for with it or before; practice at all.
 */
export const ENDS = { work: 0, practice: 1 } as const;

/** A helper answers this once it is ready for tasks. */
export const ARE_YOU_THERE = "are you there?";
