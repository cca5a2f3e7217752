/** Resins as they are mixed for shells. */
import { entryOf, type MaterialId } from "../../materials/catalogue.ts";
import type { Mixture } from "../../materials/mixing.ts";

/** One person lays so much of a resin a minute, g. */
const RESIN_G_PER_MIN = 150;
/** Larger pots heat up: polyester, and epoxy deep in a bucket, g. */
const MOST_POLYESTER_G = 1500;
const MOST_EPOXY_G = 500;

/** Polyester with its peroxide, which goes on top of the resin. */
export function peroxideMix(material: MaterialId, name: string, percent: number, densityGPerCm3: number): Mixture {
  const { potMin = 15 } = entryOf(material).figures;
  return {
    ...{ material, name, potMin, densityGPerCm3, hastens: true, mostG: MOST_POLYESTER_G, leastC: 15 },
    gPerMin: RESIN_G_PER_MIN,
    parts: [
      { name: "Resin", parts: 100, densityGPerCm3 },
      { name: "Peroxide", parts: percent, densityGPerCm3: PEROXIDE_G_PER_CM3 },
    ],
    tops: [],
  };
}

const PEROXIDE_G_PER_CM3 = 1.13;

/** A resin that is sold as a kit, by its own ratio. @param gPerMin how fast one person lays it */
export function kitMix(material: MaterialId, gPerMin: number, heats = true): Mixture {
  const { name, mix = [], figures } = entryOf(material);
  const { potMin = 20, densityGPerCm3 = 1.1 } = figures;
  return {
    ...{
      material,
      name,
      potMin,
      densityGPerCm3,
      gPerMin,
      hastens: true,
      mostG: heats ? MOST_EPOXY_G : null,
      leastC: null,
    },
    parts: mix.map((part) => ({ ...part, densityGPerCm3: null })),
    tops: [],
  };
}
