/** Money: silicone, shell and hours, at the workshop's rates. */
import type { Working } from "../materials/property.ts";
import { SILICONE, siliconeMassG } from "../materials/silicone.ts";
import type { FillPart } from "../release/fills.ts";
import type { Task } from "../schedule/line.ts";
import { MM3_PER_LITRE } from "../units/index.ts";
import type { Rates } from "./rates.ts";

export interface Cost {
  readonly costMinor: number;
  readonly costWorking: Working;
  /** What it comes to, part by part: together they are the whole. */
  readonly costParts: readonly CostPart[];
}

/** What money goes into: a coat or a section by its number, all fills, keys, other work, finishing the casts. */
export const COST_KINDS = ["coat", "fills", "keys", "section", "work", "finish"] as const;

export interface CostPart {
  readonly kind: (typeof COST_KINDS)[number];
  /** Of the coat or the section; 0 for all others. */
  readonly number: number;
  /** Of the work. */
  readonly name: string;
  /** Minor units of money, not rounded. */
  readonly materialsMinor: number;
  readonly handsMinor: number;
}

/** Something laid, g, and how much dearer it is than what the workshop's rates are for. */
export interface Priced {
  readonly massG: number;
  readonly dearer: number;
}

export interface CostRequest {
  readonly coats: readonly Priced[];
  readonly fills: Priced;
  readonly keys: Priced;
  readonly sections: readonly (Priced & { readonly number: number })[];
  readonly tasks: readonly Task[];
  /** Finishing the seams of all casts, minutes. */
  readonly finishMin: number;
}

export function costOf({ coats, fills, keys, sections, tasks, finishMin }: CostRequest, rates: Rates): Cost {
  const hoursMinor = (minutes: number) => (minutes / 60) * rates.hourMinor;
  const siliconeMinor = ({ massG, dearer }: Priced) =>
    (massG / 1000) * (1 + SILICONE.wasteShare.value) * rates.siliconePerKgMinor * dearer;
  const shellMinor = ({ massG, dearer }: Priced) => (massG / 1000) * rates.shellPerKgMinor * dearer;
  const handsOf = (id: string) =>
    hoursMinor(tasks.reduce((sum, task) => (task.id === id ? sum + task.handsMin : sum), 0));
  const part = (kind: CostPart["kind"], number: number, name: string, materialsMinor: number, handsMinor: number) => ({
    ...{ kind, number, name, materialsMinor, handsMinor },
  });
  const own = new Set([...coats.map((_, k) => `coat-${k + 1}`), ...sections.map(({ number }) => `section-${number}`)]);
  const costParts: CostPart[] = [
    ...coats.map((coat, k) => part("coat", k + 1, "", siliconeMinor(coat), handsOf(`coat-${k + 1}`))),
    part("fills", 0, "", siliconeMinor(fills), handsOf("fills")),
    part("keys", 0, "", siliconeMinor(keys), 0),
    ...sections.map((section) =>
      part("section", section.number, "", shellMinor(section), handsOf(`section-${section.number}`)),
    ),
    ...tasks
      .filter(({ id }) => !own.has(id) && id !== "fills")
      .map(({ name, handsMin }) => part("work", 0, name, 0, hoursMinor(handsMin))),
    part("finish", 0, "", 0, hoursMinor(finishMin)),
  ].filter(({ materialsMinor, handsMinor }) => materialsMinor + handsMinor > 0);
  const all = (of: readonly number[]) => of.reduce((sum, value) => sum + value, 0);
  const kg = (priced: readonly Priced[]) => all(priced.map(({ massG }) => massG)) / 1000;
  const silicones = [...coats, fills, keys];
  const boughtKg = kg(silicones) * (1 + SILICONE.wasteShare.value);
  const shellKg = kg(sections);
  // Several materials have several prices: what a kilogram comes to of them all.
  const at = (minor: number, amount: number, unit: string) =>
    `${unit} at ${rates.currency} ${Number((amount > 0 ? minor / amount / 100 : 0).toFixed(2))}`;
  const hours = (name: string, minutes: number) => ({
    ...{ name, value: minutes / 60, unit: `h at ${rates.currency} ${rates.hourMinor / 100}` },
  });
  return {
    costMinor: Math.round(all(costParts.map(({ materialsMinor, handsMinor }) => materialsMinor + handsMinor))),
    costParts,
    costWorking: {
      formula: "silicone × price + shell × price + hours × rate",
      inputs: [
        { name: "silicone with waste", value: boughtKg, unit: at(all(silicones.map(siliconeMinor)), boughtKg, "kg") },
        { name: "shell", value: shellKg, unit: at(all(sections.map(shellMinor)), shellKg, "kg") },
        hours("finishing every cast", finishMin),
        hours("hands", all(tasks.map(({ handsMin }) => handsMin))),
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
