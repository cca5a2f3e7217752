/**
 * Every coat and every layer of a plan in pots: what it takes, with what stays in bucket and brush, in equal pots none of which
 * sets before it is laid, and the weigh-out card of each.
 */
import { jacketThicknessMm } from "../jacket/coat.ts";
import { entryOf } from "../materials/catalogue.ts";
import {
  type MixingSettings,
  type Mixture,
  type Pots,
  peroxidePercent,
  potMinAt,
  potsFor,
  type Weighed,
  weighOut,
} from "../materials/mixing.ts";
import { SILICONE, siliconeOf } from "../materials/silicone.ts";
import type { PlanDocument } from "../plan/document/document.ts";
import { shellLayers, wasteOf } from "../shell/index.ts";
import { MM2_PER_M2 } from "../units/index.ts";
import { type Fixings, spanAsBuilt } from "./fixings.ts";
import { flangeAreasMm2 } from "./flanges.ts";
import type { Quantities } from "./quantities.ts";
import type { JacketTotals, PartingTotals } from "./totals.ts";

export interface PotRow {
  /** What is laid: a coat, or a layer of a section. */
  readonly step: { readonly kind: "coat" | "fills" | "keys" | "layer"; readonly number: number; readonly name: string };
  readonly mixture: Mixture;
  /** What ends on the work, and what stays in bucket and brush, g. */
  readonly laidG: number;
  readonly lossG: number;
  readonly pots: Pots;
  /** Of one pot. */
  readonly card: readonly Weighed[];
  /** How long a pot can be laid at the temperature expected, minutes; null where it does not set at all. */
  readonly potMin: number | null;
  /** The same work on a day as hot as `HOT_C`. */
  readonly whenHot: { readonly count: number; readonly potMin: number };
}

/** A hot day at the bench, °C. */
export const HOT_C = 28;
/** A pot that lasts shorter is laid in a hurry; one that lasts longer is waited for: another catalyst is worth a thought, min. */
export const HURRY_MIN = 8;
export const LONG_MIN = 60;

/** One person brushes so much silicone a minute, g. */
const SILICONE_G_PER_MIN = 90;

export function potRows(
  document: PlanDocument,
  jacket: JacketTotals,
  parting: PartingTotals,
  quantities: Pick<Quantities, "siliconeG" | "fillG" | "keysG">,
  fixings: Fixings = { bolts: 0, jacketKeys: 0 },
): PotRow[] {
  return [...jacketRows(document, jacket, quantities), ...shellRows(document, parting, fixings)];
}

/** A silicone as it is mixed: thickener and pigment go on top of the base. */
export function siliconeMix({ jacket: { silicone } }: PlanDocument, thickened: boolean): Mixture {
  const { name, mix = [], family } = entryOf(silicone);
  const { potMin, densityGPerCm3 } = siliconeOf(silicone);
  const thickener = entryOf("silicone-thickener").figures.dropsPerG ?? null;
  return {
    ...{ material: silicone, name, potMin, densityGPerCm3, hastens: true, mostG: null, leastC: null },
    gPerMin: SILICONE_G_PER_MIN,
    parts: mix.map((part) => ({ ...part, densityGPerCm3: family === "platinum-silicone" ? densityGPerCm3 : null })),
    tops: [
      ...(thickened ? [{ name: "Thickener", per100: SILICONE.thickenerPer100.value, dropsPerG: thickener }] : []),
      { name: "Pigment", per100: SILICONE.pigmentPer100.value, dropsPerG: null },
    ],
  };
}

function jacketRows(
  document: PlanDocument,
  jacket: JacketTotals,
  { siliconeG, fillG, keysG }: Pick<Quantities, "siliconeG" | "fillG" | "keysG">,
): PotRow[] {
  const { coats } = document.jacket;
  const thicknessMm = jacketThicknessMm(coats);
  const measured = jacket.coats.reduce((sum, { massG }) => sum + massG, 0);
  const coatsG = siliconeG - fillG;
  const waste = SILICONE.wasteShare.value;
  // A coat's share of what the coats take; by its thickness while nothing is measured.
  const shareOf = (k: number) =>
    measured > 0 ? (jacket.coats[k]?.massG ?? 0) / measured : coats[k].thicknessMm / (thicknessMm || 1);
  return [
    ...(keysG > 0
      ? [rowOf({ kind: "keys", number: 1, name: "" }, siliconeMix(document, false), keysG, waste, document.mixing)]
      : []),
    ...coats.map((coat, k) =>
      rowOf(
        { kind: "coat", number: k + 1, name: "" },
        siliconeMix(document, coat.thickened),
        coatsG * shareOf(k),
        waste,
        document.mixing,
      ),
    ),
    ...(fillG > 0
      ? [rowOf({ kind: "fills", number: 1, name: "" }, siliconeMix(document, true), fillG, waste, document.mixing)]
      : []),
  ];
}

function shellRows(document: PlanDocument, parting: PartingTotals, fixings: Fixings): PotRow[] {
  const { system, figures } = document.shell;
  const layers = shellLayers(system, figures);
  const waste = wasteOf(system, figures);
  const estimated = {
    areasMm2: parting.sections.map(({ areaMm2 }) => areaMm2),
    flangeAreasMm2: flangeAreasMm2(document, parting),
  };
  const { areasMm2, flangeAreasMm2: flanges } = spanAsBuilt(estimated, fixings, document.shell);
  return parting.sections.flatMap(({ number }, s) =>
    layers.flatMap(({ name, pot }) => {
      if (!pot) return [];
      const laidG = (areasMm2[s] * pot.gPerM2 + flanges[s] * pot.flangeGPerM2) / MM2_PER_M2;
      return [rowOf({ kind: "layer", number, name }, pot.mixture, laidG, waste, document.mixing)];
    }),
  );
}

function rowOf(step: PotRow["step"], mixture: Mixture, laidG: number, waste: number, mixing: MixingSettings): PotRow {
  const lossG = laidG * waste;
  const hot = { ...mixing, temperatureC: HOT_C };
  const isTooCold = mixture.leastC !== null && mixing.temperatureC < mixture.leastC;
  const own = hardened(mixture, mixing.temperatureC);
  const pots = potsFor(laidG + lossG, own, mixing);
  return {
    ...{ step, mixture: own, laidG, lossG, pots },
    card: weighOut(own, pots.eachG, mixing),
    potMin: isTooCold ? null : potMinAt(own, mixing.temperatureC),
    whenHot: { count: potsFor(laidG + lossG, mixture, hot).count, potMin: potMinAt(mixture, HOT_C) },
  };
}

/** Polyester is mixed with as much peroxide as the day asks for, and keeps its pot life by it where it can. */
function hardened(mixture: Mixture, temperatureC: number): Mixture {
  const peroxide = mixture.parts.findIndex(({ name }) => name === PEROXIDE);
  const percent = peroxide < 0 ? null : peroxidePercent(temperatureC);
  if (percent === null) return mixture;
  const usual = mixture.parts[peroxide].parts;
  return {
    ...mixture,
    // Half the peroxide, twice the time: the same rule the other way about.
    potMin: (mixture.potMin * usual) / percent,
    parts: mixture.parts.map((part, k) => (k === peroxide ? { ...part, parts: percent } : part)),
  };
}

/** What polyester's hardener is called on its card. */
const PEROXIDE = "Peroxide";
