/** How the figures that plans are compared by come about, each opened on request. */
import { type MaterialKey, nameOf } from "../materials/catalogue.ts";
import type { OwnEntry } from "../materials/entries/own.ts";
import { MINUTES_FORMULA } from "../materials/mixing.ts";
import { TYPICAL, type Working } from "../materials/property.ts";
import type { TimedTask } from "../schedule/line.ts";
import { shellLayers } from "../shell/index.ts";
import type { SectionLaid } from "../shell/kinds/system.ts";
import type { LayTerms, Layup } from "../shell/layup.ts";
import { SPAN_FORMULA, spanLimits } from "../shell/span.ts";
import type { BuyingRow } from "./buying.ts";
import type { Rates } from "./rates.ts";

/** Its layers, one on the other. */
export function thicknessWorking(layup: Layup, terms: LayTerms): Working {
  return {
    formula: "thicknesses of all layers added up",
    inputs: shellLayers(layup, terms).map(({ name, thicknessMm }) => ({ name, value: thicknessMm, unit: "mm" })),
  };
}

/** @param isMeasured are its faces as large as its solid has them? */
export function sectionMassWorking(
  { skinM2, skinGPerM2, flangeM2, flangeGPerM2, coresG }: SectionLaid & { readonly coresG: number },
  isMeasured: boolean,
): Working {
  const perM2 = (grams: number) => `m² at ${Number((grams / 1000).toPrecision(4))} kg`;
  const formula = `skin × what a m² weighs + flanges, edges and ribs × what a m² of them weighs${coresG > 0 ? " + poles or cores of the ribs" : ""}`;
  return {
    formula: isMeasured
      ? `${formula}; areas scaled to the volume of its solid`
      : `${formula}; areas are what is laid ÷ its thickness: more than the face that it lies on where that is round`,
    inputs: [
      { name: "skin", value: skinM2, unit: perM2(skinGPerM2) },
      { name: "flanges, edges and ribs", value: flangeM2, unit: perM2(flangeGPerM2) },
      ...(coresG > 0 ? [{ name: "poles or cores", value: coresG / 1000, unit: "kg" }] : []),
    ],
  };
}

/** @param numbers of the sections, in the order of their masses */
export function shellMassWorking(sectionMassesG: readonly number[], numbers: readonly number[]): Working {
  return {
    formula: "masses of all sections added up",
    inputs: sectionMassesG.map((g, k) => ({ name: `section ${numbers[k]}`, value: g / 1000, unit: "kg" })),
  };
}

export function readyWorking(tasks: readonly TimedTask[]): Working {
  const hours = (minutes: number) => Number((minutes / 60).toPrecision(3));
  return {
    formula:
      "one task after the other from Monday at eight, hands from eight to five on five days a week, waits going on at night and over weekends",
    inputs: tasks.map(({ name, handsMin, waitMin }) => ({
      ...{ name, value: handsMin / 60 },
      unit: waitMin > 0 ? `h of hands, then ${hours(waitMin)} h of waiting` : "h of hands",
    })),
  };
}

/** What everything that is missing costs in packs. */
export function materialsWorking(rows: readonly BuyingRow[], { currency }: Rates, own: readonly OwnEntry[]): Working {
  return {
    formula: "what is missing of every material, in the packs that cover it at the lowest price",
    inputs: rows.flatMap(({ material, bought, unit }) =>
      bought && bought.priceMinor > 0
        ? [
            {
              name: nameOf(material, own),
              value: bought.priceMinor / 100,
              unit: `${currency}: ${bought.packs.map(({ pack, count }) => `${count} × ${pack.amount} ${unit}`).join(", ")}`,
            },
          ]
        : [],
    ),
  };
}

export function wagesWorking(handsMin: number, finishMin: number, { currency, hourMinor }: Rates): Working {
  return {
    formula: "(hands + finishing the seams of all casts) × what an hour costs",
    inputs: [
      { name: "hands", value: handsMin / 60, unit: "h" },
      { name: "finishing", value: finishMin / 60, unit: "h" },
      { name: "an hour", value: hourMinor / 100, unit: currency },
    ],
  };
}

export function spanWorking(layup: Layup): Working {
  const { thicknessMm, densityGPerCm3, stiffness, loadPa, byBendingMm, bySagMm } = spanLimits(layup);
  return {
    formula: SPAN_FORMULA,
    inputs: [
      { name: "thickness t", value: thicknessMm, unit: "mm" },
      { name: "density ρ", value: densityGPerCm3, unit: "g/cm³" },
      { name: "bending it is let bear, σ", value: stiffness.bendingMPa, unit: "MPa" },
      { name: "stiffness E", value: stiffness.modulusMPa, unit: "MPa" },
      { name: "load q", value: loadPa / 1000, unit: "kPa" },
      { name: "by bending", value: byBendingMm, unit: "mm" },
      { name: "by sag", value: bySagMm, unit: "mm" },
    ],
  };
}

/** What is laid of a material, coat by coat and in fills. */
export function jacketMassWorking(
  material: MaterialKey,
  coatsG: readonly number[],
  fillG: number,
  own: readonly OwnEntry[],
): Working {
  return {
    formula: `coats and fills of ${nameOf(material, own)} added up, each its space × density`,
    inputs: [
      ...coatsG.map((g, k) => ({ name: `coat ${k + 1}`, value: g / 1000, unit: "kg" })),
      ...(fillG > 0 ? [{ name: "fills", value: fillG / 1000, unit: "kg" }] : []),
    ],
  };
}

/** Minutes at the bench, from those of the data sheet. */
export function minutesWorking(
  parts: readonly { readonly name: string; readonly minutes: number }[],
  temperatureC: number,
): Working {
  return {
    formula: MINUTES_FORMULA,
    inputs: [
      ...parts.map(({ name, minutes }) => ({ name, value: minutes, unit: "min" })),
      { name: "temperature", value: temperatureC, unit: "°C" },
    ],
  };
}

/** A figure of the catalogue, and what it comes to. */
export function shrinkWorking(percent: number): Working {
  return {
    formula: `${TYPICAL}. What a metre of the piece loses in the jacket, and its casts with it: a metre × what it shrinks`,
    inputs: [
      { name: "it shrinks", value: percent, unit: "%" },
      { name: "a metre loses", value: 10 * percent, unit: "mm" },
    ],
  };
}
