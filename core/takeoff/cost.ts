/** Money: what every material comes to at what the workshop pays for it, and hours, part by part. */
import { entryOf, type MaterialKey, type SiliconeKey } from "../materials/catalogue.ts";
import type { OwnEntry } from "../materials/entries/own.ts";
import type { MaterialLine, Working } from "../materials/property.ts";
import { SILICONE, siliconeMassG } from "../materials/silicone.ts";
import { coatSilicones, type PlanDocument } from "../plan/document/document.ts";
import type { FillPart } from "../release/fills.ts";
import type { Task } from "../schedule/line.ts";
import type { ShellLayer, ShellTakeoff } from "../shell/index.ts";
import { MM3_PER_LITRE } from "../units/index.ts";
import { cheapestPacks } from "./packs.ts";
import type { Quantities } from "./quantities.ts";
import type { Rates } from "./rates.ts";

export interface Cost {
  readonly costMinor: number;
  readonly costWorking: Working;
  /** What it comes to, part by part: together they are the whole. */
  readonly costParts: readonly CostPart[];
  readonly units: UnitPrices;
}

/**
 * What money goes into: a coat or a section by its number, all fills, the keys on the jacket, what else is bought, other work,
 * and finishing the casts.
 */
export const COST_KINDS = ["coat", "fills", "keys", "section", "sundries", "work", "finish"] as const;

export interface CostTake {
  readonly material: MaterialKey;
  readonly quantity: number;
}

export interface CostPart {
  readonly kind: (typeof COST_KINDS)[number];
  /** Of the coat or the section; 0 for all others. */
  readonly number: number;
  /** Of the work. */
  readonly name: string;
  /** What it takes of every material, in its unit, and of hands, minutes. */
  readonly takes: readonly CostTake[];
  readonly handsMin: number;
  /** Minor units of money, not rounded. */
  readonly materialsMinor: number;
  readonly handsMinor: number;
}

export interface CostRequest {
  readonly document: PlanDocument;
  readonly quantities: Pick<Quantities, "coatsG" | "fillG" | "keysG">;
  readonly shell: Pick<ShellTakeoff, "sectionTakes">;
  /** Numbers of the sections, in their order. */
  readonly sections: readonly number[];
  /** Everything that is bought. */
  readonly materials: readonly MaterialLine[];
  readonly tasks: readonly Task[];
  /** Finishing the seams of all casts, minutes. */
  readonly finishMin: number;
}

/** What a unit of every material comes to, minor units, by its id. */
export type UnitPrices = Readonly<Record<string, number>>;

/**
 * A unit costs what it does in the packs that would be bought for all of it: what is left over of those keeps its value. Without
 * regard to what is in store, which was paid for as well.
 */
export function unitPrices(
  lines: readonly MaterialLine[],
  { packs = {} }: Rates,
  own: readonly OwnEntry[],
): UnitPrices {
  const needs = new Map<MaterialKey, number>();
  for (const { material, quantity } of lines) needs.set(material, (needs.get(material) ?? 0) + quantity);
  return Object.fromEntries(
    [...needs].map(([material, need]) => {
      const entry = entryOf(material, own);
      const bought = cheapestPacks(
        entry.unit === "pcs" ? Math.ceil(need - 1e-9) : need,
        packs[material] ?? entry.packs,
      );
      return [material, bought && bought.amount > 0 ? bought.priceMinor / bought.amount : 0];
    }),
  );
}

/** What a coat costs with what stays in pots and brushes, minor units. @param massG on the piece */
export function coatMinor(silicone: SiliconeKey, massG: number, units: UnitPrices): number {
  return (massG / 1000) * (1 + SILICONE.wasteShare.value) * (units[silicone] ?? 0);
}

/** What a square metre of a layer of the shell takes costs, minor units. */
export function layerMinorPerM2({ takes }: Pick<ShellLayer, "takes">, units: UnitPrices): number {
  return sum(takes.map(({ material, perM2 }) => perM2 * (units[material] ?? 0)));
}

export function costOf(request: CostRequest, rates: Rates): Cost {
  const { document, sections, materials, tasks, finishMin } = request;
  const units = unitPrices(materials, rates, document.materials.own);
  const hoursMinor = (minutes: number) => (minutes / 60) * rates.hourMinor;
  const minorOf = (takes: readonly CostTake[]) =>
    sum(takes.map(({ material, quantity }) => quantity * units[material]));
  const minutesOf = (id: string) => sum(tasks.filter((task) => task.id === id).map(({ handsMin }) => handsMin));
  const part = (
    kind: CostPart["kind"],
    number: number,
    takes: readonly CostTake[],
    handsMin: number,
    name = "",
  ): CostPart => ({
    ...{ kind, number, name, takes, handsMin },
    materialsMinor: minorOf(takes),
    handsMinor: hoursMinor(handsMin),
  });
  const { coats, fills, keys } = jacketShares(request);
  const inShell = request.shell.sectionTakes.map((takes) =>
    [...takes].map(([material, quantity]): CostTake => ({ material, quantity })),
  );
  const told = new Set(["fills", ...coats.map((_, k) => `coat-${k + 1}`), ...sections.map((n) => `section-${n}`)]);
  const costParts = [
    ...coats.map((takes, k) => part("coat", k + 1, takes, minutesOf(`coat-${k + 1}`))),
    part("fills", 0, fills, minutesOf("fills")),
    part("keys", 0, keys, 0),
    ...sections.map((number, k) => part("section", number, inShell[k], minutesOf(`section-${number}`))),
    part("sundries", 0, leftOf(materials, [...coats, fills, keys, ...inShell]), 0),
    ...tasks.filter(({ id }) => !told.has(id)).map(({ name, handsMin }) => part("work", 0, [], handsMin, name)),
    part("finish", 0, [], finishMin),
  ].filter(({ materialsMinor, handsMinor }) => materialsMinor + handsMinor > 0);
  const hours = (name: string, minutes: number) => ({
    ...{ name, value: minutes / 60, unit: `h at ${rates.currency} ${rates.hourMinor / 100}` },
  });
  const of = (name: string, kinds: readonly CostPart["kind"][]) => {
    const own = costParts.filter(({ kind }) => kinds.includes(kind));
    return { name, value: sum(own.map(({ materialsMinor }) => materialsMinor)) / 100, unit: rates.currency };
  };
  return {
    costMinor: Math.round(sum(costParts.map(({ materialsMinor, handsMinor }) => materialsMinor + handsMinor))),
    ...{ costParts, units },
    costWorking: {
      formula: "materials, each × what a unit of it costs, + hours × rate",
      inputs: [
        of("jacket", ["coat", "fills", "keys"]),
        of("shell", ["section"]),
        of("sundries", ["sundries"]),
        hours("finishing every cast", finishMin),
        hours("hands", sum(tasks.map(({ handsMin }) => handsMin))),
      ],
    },
  };
}

/** What of everything that is bought is in none of some parts. */
function leftOf(materials: readonly MaterialLine[], parts: readonly (readonly CostTake[])[]): CostTake[] {
  const left = new Map<MaterialKey, number>();
  for (const { material, quantity } of materials) left.set(material, (left.get(material) ?? 0) + quantity);
  for (const { material, quantity } of parts.flat()) left.set(material, (left.get(material) ?? 0) - quantity);
  return [...left]
    .filter(([, quantity]) => quantity > LEFT)
    .map(([material, quantity]): CostTake => ({ material, quantity }));
}

/** Less than this of a unit is what sums in another order differ by. */
const LEFT = 1e-9;

/**
 * What every coat, the fills and the keys take: silicones and pigment by what is laid of them, thickener by what is thickened,
 * gauze by the coats that have it.
 */
function jacketShares({ document, quantities, materials }: CostRequest): {
  readonly coats: CostTake[][];
  readonly fills: CostTake[];
  readonly keys: CostTake[];
} {
  const { jacket } = document;
  const silicones = coatSilicones(jacket);
  const laid = [
    ...jacket.coats.map(({ thickened, gauze }, k) => ({
      ...{ g: quantities.coatsG[k] ?? 0, silicone: silicones[k], thickened, gauze },
    })),
    { g: quantities.fillG, silicone: jacket.silicone, thickened: true, gauze: false },
    { g: quantities.keysG, silicone: jacket.silicone, thickened: false, gauze: false },
  ];
  const takes = laid.map((): CostTake[] => []);
  for (const { material, quantity, group: use, unit } of materials) {
    if (use !== "jacket") continue;
    const { group } = entryOf(material, document.materials.own);
    const isOf = (each: (typeof laid)[number]) => {
      if (group === "silicones") return each.silicone === material;
      if (unit === "m2") return each.gauze;
      return material === "silicone-pigment" || each.thickened;
    };
    const weights = laid.map((each) => (isOf(each) ? each.g : 0));
    const whole = sum(weights) || 1;
    weights.forEach((weight, k) => {
      if (weight > 0) takes[k].push({ material, quantity: (quantity * weight) / whole });
    });
  }
  const coats = jacket.coats.length;
  return { coats: takes.slice(0, coats), fills: takes[coats], keys: takes[coats + 1] };
}

function sum(values: readonly number[]): number {
  return values.reduce((total, value) => total + value, 0);
}

/**
 * What a fill costs, in minor units: silicone by its price, anything else by the work of laying it.
 * @param siliconePerKgMinor as the search weighs fills by, where it is left out
 */
export function fillMinor(
  { kind, volumeMm3 }: Pick<FillPart, "kind" | "volumeMm3">,
  rates: Rates,
  siliconePerKgMinor = rates.siliconePerKgMinor,
): number {
  return kind === "silicone"
    ? (siliconeMassG(volumeMm3) / 1000) * siliconePerKgMinor
    : ((volumeMm3 / MM3_PER_LITRE) * rates.fillMinPerL * rates.hourMinor) / 60;
}
