/** A queue for cheapest paths over a mesh. */
export interface CostedVertex {
  readonly v: number;
  readonly cost: number;
}

/** A binary heap of vertices by cost; a vertex may stand in it more than once. */
export class CostHeap {
  private readonly items: CostedVertex[] = [];

  push(v: number, cost: number): void {
    const { items } = this;
    let k = items.length;
    items.push({ v, cost });
    while (k > 0) {
      const up = (k - 1) >> 1;
      if (items[up].cost <= cost) break;
      items[k] = items[up];
      k = up;
    }
    items[k] = { v, cost };
  }

  pop(): CostedVertex | undefined {
    const { items } = this;
    const top = items[0];
    const last = items.pop();
    if (!top || !last) return undefined;
    if (items.length === 0) return top;
    let k = 0;
    for (;;) {
      let down = 2 * k + 1;
      if (down >= items.length) break;
      if (down + 1 < items.length && items[down + 1].cost < items[down].cost) down++;
      if (items[down].cost >= last.cost) break;
      items[k] = items[down];
      k = down;
    }
    items[k] = last;
    return top;
  }
}
