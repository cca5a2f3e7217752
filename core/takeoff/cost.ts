/** Money: silicone, shell and hours, at the workshop's rates. */
import type { Working } from "../materials/property.ts";
import { SILICONE, siliconeMassG } from "../materials/silicone.ts";
import type { FillPart } from "../release/fills.ts";
import { MM3_PER_LITRE } from "../units/index.ts";
import type { Rates } from "./rates.ts";

export interface Cost {
  readonly costMinor: number;
  readonly costWorking: Working;
}

/** @param dearer how much dearer silicone and shell are than those that the rates are for */
export function costOf(
  {
    siliconeG,
    shellG,
    handsMin,
    finishMin,
  }: Readonly<Record<"siliconeG" | "shellG" | "handsMin" | "finishMin", number>>,
  rates: Rates,
  dearer: Readonly<Record<"silicone" | "shell", number>>,
): Cost {
  const { currency, hourMinor } = rates;
  const siliconePerKgMinor = rates.siliconePerKgMinor * dearer.silicone;
  const shellPerKgMinor = rates.shellPerKgMinor * dearer.shell;
  const boughtKg = (siliconeG / 1000) * (1 + SILICONE.wasteShare.value);
  const costMinor = Math.round(
    boughtKg * siliconePerKgMinor + (shellG / 1000) * shellPerKgMinor + ((handsMin + finishMin) / 60) * hourMinor,
  );
  const hours = (name: string, minutes: number) => ({
    name,
    value: minutes / 60,
    unit: `h at ${currency} ${hourMinor / 100}`,
  });
  return {
    costMinor,
    costWorking: {
      formula: "silicone × price + shell × price + hours × rate",
      inputs: [
        {
          name: "silicone with waste",
          value: boughtKg,
          unit: `kg at ${currency} ${Number((siliconePerKgMinor / 100).toFixed(2))}`,
        },
        {
          name: "shell",
          value: shellG / 1000,
          unit: `kg at ${currency} ${Number((shellPerKgMinor / 100).toFixed(2))}`,
        },
        hours("finishing every cast", finishMin),
        hours("hands", handsMin),
      ],
    },
  };
}

/** What a fill costs, in minor units: silicone by its price, anything else by the work of laying it. */
export function fillMinor({ kind, volumeMm3 }: Pick<FillPart, "kind" | "volumeMm3">, rates: Rates): number {
  return kind === "silicone"
    ? (siliconeMassG(volumeMm3) / 1000) * rates.siliconePerKgMinor
    : ((volumeMm3 / MM3_PER_LITRE) * rates.fillMinPerL * rates.hourMinor) / 60;
}
