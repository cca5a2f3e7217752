/**
 * Edges of a shell are laid as thick as its flanges, and run out evenly into it: they break first.
 */

/** From the back of a flange to where the shell is as thin as elsewhere, mm. */
export const EDGE_RUN_MM = 40;

/** What of the difference between flange and shell is laid on top of the shell, 0..1. @param awayMm from the parting, on the shell */
export function edgeShare(awayMm: number, flangeMm: number): number {
  return Math.min(1, Math.max(0, 1 - (awayMm - flangeMm) / EDGE_RUN_MM));
}

/** So much of a strip along an edge is laid as thick as the flange, where it runs out evenly, mm. */
export const EDGE_AS_FLANGE_MM = EDGE_RUN_MM / 2;
