/** The convex hull of places seen from above, against the clock (monotone chain: Andrew 1979). */
export function hullOf<Place extends { readonly x: number; readonly y: number }>(places: readonly Place[]): Place[] {
  const sorted = [...places].sort((a, b) => a.x - b.x || a.y - b.y);
  const turns = (a: Place, b: Place, c: Place) => (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x);
  const half = (list: readonly Place[]) => {
    const chain: Place[] = [];
    for (const place of list) {
      while (chain.length > 1 && turns(chain[chain.length - 2], chain[chain.length - 1], place) <= 0) chain.pop();
      chain.push(place);
    }
    return chain.slice(0, -1);
  };
  return sorted.length < 3 ? sorted : [...half(sorted), ...half([...sorted].reverse())];
}
