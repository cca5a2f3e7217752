/** Resins as they are mixed for shells. */
import type { ChosenMaterial } from "../../materials/chosen.ts";
import type { Mixture } from "../../materials/mixing.ts";

/** One person lays so much of a resin a minute, g. */
const RESIN_G_PER_MIN = 150;
/** Larger pots heat up: polyester, and epoxy deep in a bucket, g. */
const MOST_POLYESTER_G = 1500;
const MOST_EPOXY_G = 500;

/** Polyester with its peroxide, which goes on top of the resin. @param percent at 20 °C */
export function peroxideMix(
  { id, figures }: ChosenMaterial,
  name: string,
  percent: number,
  densityGPerCm3: number,
): Mixture {
  const { potMin = 15 } = figures;
  return {
    ...{ material: id, name, potMin, densityGPerCm3, hastens: true, mostG: MOST_POLYESTER_G, leastC: 15 },
    ...{ gPerMin: RESIN_G_PER_MIN, peroxide: percent },
    parts: [
      { name: "Resin", parts: 100, densityGPerCm3 },
      { name: "Peroxide", parts: percent, densityGPerCm3: PEROXIDE_G_PER_CM3 },
    ],
    tops: [],
  };
}

const PEROXIDE_G_PER_CM3 = 1.13;

/** A resin that is sold as a kit, by its own ratio. @param gPerMin how fast one person lays it */
export function kitMix({ id, name, mix = [], figures }: ChosenMaterial, gPerMin: number, heats = true): Mixture {
  const { potMin = 20, densityGPerCm3 = 1.1 } = figures;
  return {
    ...{
      material: id,
      name,
      potMin,
      densityGPerCm3,
      gPerMin,
      hastens: true,
      mostG: heats ? MOST_EPOXY_G : null,
      leastC: null,
      peroxide: null,
    },
    parts: mix.map((part) => ({ ...part, densityGPerCm3: part.densityGPerCm3 ?? null })),
    tops: [],
  };
}
