/**
 * Mixes, and the pots they are mixed in: what is weighed, how much at once, and what keeps the ratio when somebody pours too
 * much. Times go by a rule of thumb: half for every ten degrees warmer, twice for every ten colder (Arrhenius, roughly).
 */
import type { MaterialKey } from "./catalogue.ts";

export interface MixingSettings {
  /** Expected at the bench, °C. */
  readonly temperatureC: number;
  readonly people: number;
  /** How fast they lay what is mixed, against the usual. */
  readonly pace: number;
  /** Of the bucket, ml. */
  readonly vesselMl: number;
  /** The scale's step and the most that it bears, g. */
  readonly scaleStepG: number;
  readonly scaleMostG: number;
}

export const TYPICAL_MIXING: MixingSettings = {
  temperatureC: 20,
  people: 1,
  pace: 1,
  vesselMl: 5000,
  scaleStepG: 1,
  scaleMostG: 10_000,
};

export const MIXING_LIMITS = {
  temperatureC: [5, 40],
  people: [1, 12],
  pace: [0.2, 5],
  vesselMl: [100, 100_000],
  scaleStepG: [0.01, 50],
  scaleMostG: [100, 200_000],
} as const satisfies Record<keyof MixingSettings, readonly [number, number]>;

export interface MixPart {
  readonly name: string;
  /** By mass. */
  readonly parts: number;
  /** g/cm3: for whoever measures by volume; null where it is not known. */
  readonly densityGPerCm3: number | null;
}

/** What goes on top of a part, and is not counted in the ratio. */
export interface MixTop {
  readonly name: string;
  /** To 100 of the first part, by mass. */
  readonly per100: number;
  /** Counted in drops where there is little of it; null where it is weighed. */
  readonly dropsPerG: number | null;
}

export interface Mixture {
  readonly material: MaterialKey;
  readonly name: string;
  /** The base first. */
  readonly parts: readonly MixPart[];
  readonly tops: readonly MixTop[];
  /** How long it can be laid, minutes at 20 °C. */
  readonly potMin: number;
  /** Does warmth quicken it by the rule? Gypsum goes by its own clock. */
  readonly hastens: boolean;
  readonly densityGPerCm3: number;
  /** One person lays so much of it a minute, g. */
  readonly gPerMin: number;
  /** Larger pots heat up too much, g; null where they do not. */
  readonly mostG: number | null;
  /** Colder than this it does not set, °C; null where it does. */
  readonly leastC: number | null;
  /** Percent of peroxide at 20 °C, which the day's warmth changes; null where there is none. */
  readonly peroxide: number | null;
}

/** Of the pot life only so much is used: what is left in the bucket must not set there. */
export const SAFE_SHARE = 0.8;
/** A bucket is filled no fuller than this: it has to be stirred. */
export const FULL_SHARE = 0.65;
const REFERENCE_C = 20;
const PER_C = 10;
/** Outside of these the rule of thumb does not hold, °C. */
const RULE_C = [10, 35] as const;

/** How minutes go with the temperature, in words. */
export const MINUTES_FORMULA = `minutes at ${REFERENCE_C} °C × 2^((${REFERENCE_C} − temperature) ÷ ${PER_C}), between ${RULE_C.join(" and ")} °C`;

/** Minutes at a temperature, from those at 20 °C. */
export function minutesAt(minutes: number, temperatureC: number): number {
  const within = Math.min(RULE_C[1], Math.max(RULE_C[0], temperatureC));
  return minutes * 2 ** ((REFERENCE_C - within) / PER_C);
}

export function potMinAt({ potMin, hastens }: Pick<Mixture, "potMin" | "hastens">, temperatureC: number): number {
  return hastens ? minutesAt(potMin, temperatureC) : potMin;
}

/** What keeps a pot from being larger. */
export type PotLimit = "time" | "bucket" | "scale" | "heat";

/** The greatest pot that is sensible, g, and why it is no greater. */
export function greatestPot(mixture: Mixture, settings: MixingSettings): { readonly g: number; readonly by: PotLimit } {
  const { temperatureC, people, pace, vesselMl, scaleMostG } = settings;
  const limits: readonly (readonly [PotLimit, number])[] = [
    ["time", people * pace * mixture.gPerMin * potMinAt(mixture, temperatureC) * SAFE_SHARE],
    ["bucket", vesselMl * FULL_SHARE * mixture.densityGPerCm3],
    ["scale", scaleMostG],
    ["heat", mixture.mostG ?? Number.POSITIVE_INFINITY],
  ];
  const [by, g] = limits.reduce((least, limit) => (limit[1] < least[1] ? limit : least));
  return { g, by };
}

export interface Pots {
  readonly count: number;
  /** Each, g. */
  readonly eachG: number;
  readonly by: PotLimit;
}

/** Pots are rounded up to 1, 2 or 5 of whatever power of ten comes to no more than this share of one. */
const ROUND_SHARE = 0.02;

/** Equal pots of a round size that come to what is needed, or to a little more; none where nothing is needed. */
export function potsFor(needG: number, mixture: Mixture, settings: MixingSettings): Pots {
  const { g, by } = greatestPot(mixture, settings);
  const count = needG > 0 ? Math.max(1, Math.ceil(needG / g - 1e-9)) : 0;
  if (count === 0) return { count, eachG: 0, by };
  const eachG = needG / count;
  return { count, eachG: Math.min(g, roundUp(eachG, settings.scaleStepG)), by };
}

/** @param stepG a pot is not rounded more finely than the scale tells */
function roundUp(g: number, stepG: number): number {
  const most = g * ROUND_SHARE;
  const power = 10 ** Math.floor(Math.log10(most));
  const round = power * ([5, 2, 1].find((times) => times * power <= most) ?? 1);
  return round <= stepG ? g : round * Math.ceil(g / round - 1e-9);
}

export interface Weighed {
  readonly name: string;
  /** What the scale is to show for this alone, rounded to its step, g. */
  readonly g: number;
  /** What it is to show when this is poured onto what is in the bucket already; null where it is weighed by itself. */
  readonly runningG: number | null;
  /** For whoever measures by volume, ml; null where its density is not known. */
  readonly ml: number | null;
  /** Counted instead of weighed, where the scale's step is too coarse for it. */
  readonly drops: number | null;
}

/** Less than so many steps of the scale is not weighed well: it is counted in drops. */
const COARSE_STEPS = 10;
/** Nobody counts more drops than this. */
const MOST_DROPS = 60;

/** The weigh-out card of one pot. */
export function weighOut({ parts, tops }: Mixture, potG: number, { scaleStepG }: MixingSettings): Weighed[] {
  const whole = parts.reduce((sum, part) => sum + part.parts, 0) || 1;
  const rounded = (g: number) => scaleStepG * Math.round(g / scaleStepG);
  const baseG = (potG * (parts[0]?.parts ?? 0)) / whole;
  let running = 0;
  const own = parts.map((part): Weighed => {
    const g = rounded((potG * part.parts) / whole);
    running += g;
    return {
      name: part.name,
      g,
      runningG: running,
      ml: part.densityGPerCm3 ? g / part.densityGPerCm3 : null,
      drops: null,
    };
  });
  const onTop = tops
    .filter(({ per100 }) => per100 > 0)
    .map(({ name, per100, dropsPerG }): Weighed => {
      const g = (baseG * per100) / 100;
      const counted = dropsPerG !== null && g < COARSE_STEPS * scaleStepG && g * dropsPerG <= MOST_DROPS;
      return {
        name,
        g: counted ? g : rounded(g),
        runningG: null,
        ml: null,
        drops: counted ? Math.round(g * dropsPerG) : null,
      };
    });
  return [...own, ...onTop];
}

/**
 * What to add of every part so that the ratio holds, where too much was poured of one.
 * @param pouredG of every part, in their order
 * @returns of every part, g; and what the pot comes to then
 */
export function keepRatio(
  { parts }: Pick<Mixture, "parts">,
  pouredG: readonly number[],
): { addG: number[]; potG: number } {
  const times = Math.max(0, ...parts.map((part, k) => (pouredG[k] ?? 0) / part.parts));
  return {
    addG: parts.map((part, k) => Math.max(0, times * part.parts - (pouredG[k] ?? 0))),
    potG: parts.reduce((sum, part) => sum + times * part.parts, 0),
  };
}

/** Peroxide to a hundred of polyester keeps its pot life: less in the warm, more in the cold, within its bounds. */
const PEROXIDE = { least: 1, most: 2, leastC: 15 } as const;

/**
 * @param usual percent at 20 °C
 * @returns percent of the resin; the most where it is too cold for polyester to set
 */
export function peroxidePercent(usual: number, temperatureC: number): number {
  const wanted = usual * 2 ** ((REFERENCE_C - Math.max(PEROXIDE.leastC, temperatureC)) / PER_C);
  return Math.min(PEROXIDE.most, Math.max(PEROXIDE.least, wanted));
}

/** A mix with as much peroxide as the day asks for, which keeps its pot life where it can. */
export function hardenedAt(mixture: Mixture, temperatureC: number): Mixture {
  const { peroxide, parts, potMin } = mixture;
  if (peroxide === null) return mixture;
  const percent = peroxidePercent(peroxide, temperatureC);
  return {
    ...mixture,
    // Half the peroxide, twice the time: the same rule the other way about.
    potMin: (potMin * peroxide) / percent,
    parts: parts.map((part, k) => (k === parts.length - 1 ? { ...part, parts: percent } : part)),
  };
}
