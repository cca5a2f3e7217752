/** What is to be bought for a plan: its need, less what the store has, in packs at the lowest price. */
import type { OwnEntry } from "../materials/entries/own.ts";
import type { MaterialLine } from "../materials/property.ts";
import {
  ownEntries,
  type Store,
  type StoredEntry,
  storedEntries,
  type Taken,
  takeFromStock,
} from "../materials/stock.ts";
import { type Bought, cheapestPacks } from "./packs.ts";

export interface BuyingRow {
  /** All uses of one material. */
  readonly lines: readonly MaterialLine[];
  readonly material: MaterialLine["material"];
  readonly unit: MaterialLine["unit"];
  readonly need: number;
  readonly taken: readonly Taken[];
  /** Still to buy, in the material's unit. */
  readonly missing: number;
  /** Null where it is not sold in packs that are known. */
  readonly bought: Bought | null;
  /** What is left of the packs, in the material's unit. */
  readonly leftOver: number;
  readonly supplier: string;
}

/** Entries by their names, of a store that was asked before: whoever compares asks many times. */
const knownEntries = new WeakMap<Store, ReadonlyMap<string, StoredEntry>>();

function entriesOf(store: Store): ReadonlyMap<string, StoredEntry> {
  const held = knownEntries.get(store) ?? new Map(storedEntries(store).map((entry) => [entry.id, entry]));
  knownEntries.set(store, held);
  return held;
}

/** Water is at hand. */
const AT_HAND = new Set(["mixing-water"]);

/**
 * @param today as 2026-11-30
 * @param own entries that the plan keeps: they go for those that the store no longer has
 */
export function buyingRows(
  lines: readonly MaterialLine[],
  store: Store,
  today: string,
  own: readonly OwnEntry[] = [],
): BuyingRow[] {
  const entries = entriesOf(store);
  const kept = new Map(ownEntries(own).map((entry) => [entry.id, entry]));
  const materials = [...new Set(lines.map(({ material }) => material))];
  return materials.map((material): BuyingRow => {
    const uses = lines.filter((line) => line.material === material);
    const need = uses.reduce((sum, { quantity }) => sum + quantity, 0);
    const entry = entries.get(material) ?? kept.get(material);
    const { taken, missing } = takeFromStock(
      need,
      store.lots.filter((lot) => lot.material === material),
      entry,
      today,
    );
    const wanted = AT_HAND.has(material) ? 0 : missing;
    const bought = cheapestPacks(uses[0].unit === "pcs" ? Math.ceil(wanted - 1e-9) : wanted, entry?.packs ?? []);
    return {
      ...{ lines: uses, material, unit: uses[0].unit, need, taken, missing: wanted, bought },
      leftOver: bought ? Math.max(0, bought.amount - wanted) : 0,
      supplier: entry?.supplier ?? "",
    };
  });
}

/** What all of it costs, minor units. */
export function buyingMinor(rows: readonly BuyingRow[]): number {
  return rows.reduce((sum, { bought }) => sum + (bought?.priceMinor ?? 0), 0);
}
