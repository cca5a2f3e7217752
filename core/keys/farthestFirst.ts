/** Places chosen so that each lies as far as can be from what is kept clear and from those before it (Gonzalez 1985). */

export interface Spread {
  readonly at: readonly [number, number, number];
  /** How far it lies from what is kept clear, mm. */
  readonly toLineMm: number;
  /** How much more it is worth than another as far away. */
  readonly weight: number;
}

export interface Chosen<Place extends Spread> {
  readonly place: Place;
  /** How far it lies from what is kept clear, and by halves from the places before it, mm, by its weight. */
  readonly worthMm: number;
}

/** All places, the one that is worth most first. */
export function* farthestFirst<Place extends Spread>(places: readonly Place[]): Generator<Chosen<Place>> {
  const awayMm = places.map(({ toLineMm }) => toLineMm);
  for (let n = 0; n < places.length; n++) {
    let best = 0;
    for (let k = 1; k < places.length; k++)
      if (awayMm[k] * places[k].weight > awayMm[best] * places[best].weight) best = k;
    const place = places[best];
    yield { place, worthMm: awayMm[best] * place.weight };
    places.forEach((other, k) => {
      awayMm[k] = Math.min(awayMm[k], Math.hypot(...other.at.map((x, a) => x - place.at[a])) / 2);
    });
    awayMm[best] = 0;
  }
}
