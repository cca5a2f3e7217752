/** Flood fills over the vertices of a mesh, or of any graph given by its neighbours in compressed rows. */

/** Neighbours of vertex v: list[start[v]] up to list[start[v + 1]]. */
export interface NeighbourRows {
  readonly start: Uint32Array;
  readonly list: Uint32Array;
}

/** The connected pieces of a labelling, numbered in the order of their first vertex. */
export interface Pieces {
  /** The piece of each vertex. */
  readonly of: Int32Array;
  /** The label of each piece. */
  readonly label: readonly number[];
  /** How many vertices each piece has. */
  readonly sizes: readonly number[];
}

/** The connected pieces of equal label. */
export function connectedPieces(label: ArrayLike<number>, { start, list }: NeighbourRows): Pieces {
  const of = new Int32Array(label.length).fill(-1);
  const labels: number[] = [];
  const sizes: number[] = [];
  const queue = new Uint32Array(label.length);
  for (let seed = 0; seed < of.length; seed++) {
    if (of[seed] >= 0) continue;
    const own = label[seed];
    const number = labels.length;
    of[seed] = number;
    queue[0] = seed;
    let size = 1;
    for (let q = 0; q < size; q++) {
      const v = queue[q];
      for (let k = start[v]; k < start[v + 1]; k++) {
        const other = list[k];
        if (of[other] >= 0 || label[other] !== own) continue;
        of[other] = number;
        queue[size++] = other;
      }
    }
    labels.push(own);
    sizes.push(size);
  }
  return { of, label: labels, sizes };
}

/**
 * Goes from the vertices that are told to all that can be reached from them, breadth first.
 * @param told 1 at the vertices to begin from, in their order; 1 at all that were reached afterwards
 * @param reach called for each vertex as it is reached, with the one it is reached from
 * @param may is a vertex entered at all? All are where it is left out
 */
export function floodFrom(
  told: Uint8Array,
  { start, list }: NeighbourRows,
  reach: (vertex: number, from: number) => void,
  may: (vertex: number) => boolean = () => true,
): void {
  const queue = new Uint32Array(told.length);
  let end = 0;
  for (let v = 0; v < told.length; v++) if (told[v]) queue[end++] = v;
  for (let q = 0; q < end; q++) {
    const v = queue[q];
    for (let k = start[v]; k < start[v + 1]; k++) {
      const other = list[k];
      if (told[other] || !may(other)) continue;
      told[other] = 1;
      reach(other, v);
      queue[end++] = other;
    }
  }
}
