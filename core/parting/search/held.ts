/**
 * What of a plan is held while the rest is suggested: a section as it lies, or only its pull. A held section's own
 * vertices may have no other label, and where it is held as it lies no other vertex may have its label: the search is
 * told so by a price that nothing can make up for.
 */
import type { Direction } from "../../space/directions.ts";
import type { Patches } from "../graph/patches.ts";

export interface HeldSection {
  readonly pull: Direction;
  /** Vertices of the survey's mesh that stay its own: all of its own where it is held as it lies, else where it begins. */
  readonly members: readonly number[];
  /** Held as it lies: it wins no further vertex. */
  readonly whole: boolean;
}

/** What a search starts from beside its own ideas: a plan as it lies, and what of it is held. */
export interface Given {
  readonly held: readonly HeldSection[];
  /** The plan as it lies: its pulls, the held ones by their number among `held`, and the section of each vertex. */
  readonly pulls: readonly (Direction | number)[];
  readonly label: Uint8Array;
}

/** A vertex that no held section owns. */
const FREE = -1;
/** Dearer than any plan, in the prices' unit: a vertex. */
const NEVER = 1e9;

/** Which held section owns each vertex, and what follows for prices. */
export class Holding {
  private readonly owner: Int16Array;

  private constructor(
    readonly held: readonly HeldSection[],
    owner: Int16Array,
  ) {
    this.owner = owner;
  }

  static of(held: readonly HeldSection[], vertices: number): Holding {
    const owner = new Int16Array(vertices).fill(FREE);
    held.forEach(({ members }, h) => {
      for (const v of members) owner[v] = h;
    });
    return new Holding(held, owner);
  }

  /** The same on patches: a patch is the section's that owns most of its vertices. */
  onPatches(patches: Patches): Holding {
    const votes = Array.from({ length: patches.graph.vertices }, () => new Map<number, number>());
    this.owner.forEach((h, v) => {
      const held = votes[patches.of[v]];
      held.set(h, (held.get(h) ?? 0) + 1);
    });
    const owner = Int16Array.from(votes, (of) => [...of].reduce((most, vote) => (vote[1] > most[1] ? vote : most))[0]);
    return new Holding(this.held, owner);
  }

  /**
   * Rules a pull's prices in place.
   * @param of the held section whose pull it is, or null for a pull that may be given to any other
   */
  rule(price: Float32Array, of: number | null): Float32Array {
    if (this.held.length === 0) return price;
    const own = of ?? FREE;
    const bound = of !== null && this.held[of].whole;
    for (let v = 0; v < price.length; v++) {
      const owner = this.owner[v];
      if (owner !== own && (owner !== FREE || bound)) price[v] = NEVER;
    }
    return price;
  }
}
