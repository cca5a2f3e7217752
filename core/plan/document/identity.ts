/**
 * What of a plan has an identity that outlives renumbering and planning again: kept in the document, so that undo, revisions
 * and builds carry it. Numbers are for people; what is drilled, printed or logged refers to ids.
 */

export interface KnownSection {
  readonly id: string;
  /** Its place among the pulls, or the sections laid by hand, that it was made from; of a suggested plan, its own. */
  readonly origin: number;
  /** Places spread over it, xyz each, whole mm. */
  readonly places: readonly number[];
}

/** A parting line, and the wall that is built along it. */
export interface KnownLine {
  readonly id: string;
  /** Ids of the sections it parts. */
  readonly between: readonly [string, string];
  /** Places along it, xyz each, whole mm. */
  readonly places: readonly number[];
}

/** A fill of whatever kind: silicone, clay, web or plug. */
export interface KnownFill {
  readonly id: string;
  readonly at: readonly [number, number, number];
}

export interface Identity {
  /** Number of the next id: none is ever given twice. */
  readonly next: number;
  readonly sections: readonly KnownSection[];
  readonly lines: readonly KnownLine[];
  readonly fills: readonly KnownFill[];
}

export const NOBODY_KNOWN: Identity = { next: 1, sections: [], lines: [], fills: [] };

/** An earlier identity that is gone on from: what was given since is not given again. */
export function goneOnFrom(earlier: Identity, now: Identity): Identity {
  return { ...earlier, next: Math.max(earlier.next, now.next) };
}

/** An id that nothing had before, and the identity that has given it. */
export function freshId(identity: Identity, what: string): { readonly id: string; readonly identity: Identity } {
  return { id: `${what}-${identity.next}`, identity: { ...identity, next: identity.next + 1 } };
}
