/** The workshop's store: its lots, its own entries beside the shipped ones, and what it changed of those. */
import { entryOf, MATERIAL_IDS } from "./catalogue.ts";
import type { CatalogueEntry, MixPartOf, Pack } from "./entries/entry.ts";
import type { OwnEntry } from "./entries/own.ts";

export interface Lot {
  readonly id: string;
  /** Of the catalogue, shipped or own. */
  readonly material: string;
  /** What is left of it, in its material's unit. */
  readonly amount: number;
  /** Dates as 2026-11-30; null where it is closed, or where nothing is written on it. */
  readonly openedOn: string | null;
  readonly expiresOn: string | null;
  readonly place: string;
}

/** What a workshop says otherwise of a shipped entry. */
export interface EntryEdit {
  readonly packs: readonly Pack[];
  readonly supplier: string;
  /** What was shipped when it was changed: a later catalogue that says otherwise is shown. */
  readonly shipped: readonly Pack[];
}

export interface Store {
  readonly lots: readonly Lot[];
  readonly edits: Readonly<Record<string, EntryEdit>>;
  readonly own: readonly OwnEntry[];
}

export const EMPTY_STORE: Store = { lots: [], edits: {}, own: [] };

export interface StoredEntry extends Pick<CatalogueEntry, "name" | "unit" | "group" | "family" | "figures" | "packs"> {
  readonly id: string;
  readonly note: string;
  readonly mix: readonly MixPartOf[];
  readonly hazards: CatalogueEntry["hazards"];
  /** The workshop's own words. */
  readonly supplier: string;
  readonly isOwn: boolean;
  /** The shipped packs, where they have changed since the workshop put in its own. */
  readonly shippedNow: readonly Pack[] | null;
}

/** All entries as the workshop has them: shipped ones with its changes, then its own. */
export function storedEntries({ edits, own }: Pick<Store, "edits" | "own">): StoredEntry[] {
  const shipped = MATERIAL_IDS.map((id): StoredEntry => {
    const { name, unit, group, family, figures, packs, hazards, mix = [], note = "" } = entryOf(id);
    const edit = edits[id];
    return {
      ...{ id, name, unit, group, family, figures, mix, hazards, note, isOwn: false },
      packs: edit?.packs ?? packs,
      supplier: edit?.supplier ?? "",
      shippedNow: edit && !samePacks(edit.shipped, packs) ? packs : null,
    };
  });
  return [...shipped, ...ownEntries(own)];
}

/** Own entries in the form of the others. */
export function ownEntries(own: readonly OwnEntry[]): StoredEntry[] {
  return own.map((entry): StoredEntry => ({ ...entry, isOwn: true, shippedNow: null }));
}

/** The packs of what the workshop prices itself, by its entries' ids. */
export function ownPacks({ edits, own }: Pick<Store, "edits" | "own">): Record<string, readonly Pack[]> {
  const priced = [...Object.entries(edits), ...own.map((entry) => [entry.id, entry] as const)];
  return Object.fromEntries(priced.map(([id, { packs }]) => [id, packs]));
}

function samePacks(a: readonly Pack[], b: readonly Pack[]): boolean {
  return (
    a.length === b.length &&
    a.every(
      ({ amount, priceMinor, from }, k) =>
        amount === b[k].amount && priceMinor === b[k].priceMinor && from === b[k].from,
    )
  );
}

/** How a lot stands on a day. */
export type LotState =
  | { readonly kind: "good" }
  | { readonly kind: "expired" }
  /** Opened longer ago than it keeps. */
  | { readonly kind: "old"; readonly months: number };

/** Months are told in whole ones. */
const MONTH_DAYS = 30.44;
const DAY_MS = 86_400_000;

/** @param today as 2026-11-30 */
export function lotState(
  { openedOn, expiresOn }: Pick<Lot, "openedOn" | "expiresOn">,
  entry: Pick<StoredEntry, "figures"> | undefined,
  today: string,
): LotState {
  if (expiresOn !== null && expiresOn < today) return { kind: "expired" };
  const keeps = entry?.figures.shelfOpenMonths;
  if (openedOn === null || keeps === undefined) return { kind: "good" };
  const months = Math.floor((Date.parse(today) - Date.parse(openedOn)) / DAY_MS / MONTH_DAYS);
  return months > keeps ? { kind: "old", months } : { kind: "good" };
}

export interface Taken {
  readonly lot: Lot;
  readonly amount: number;
  readonly state: LotState;
}

/**
 * What a need takes of the lots: first what expires first, then what was opened first. What has expired is left.
 * @returns what is taken, and what is still to buy
 */
export function takeFromStock(
  need: number,
  lots: readonly Lot[],
  entry: Pick<StoredEntry, "figures"> | undefined,
  today: string,
): { readonly taken: readonly Taken[]; readonly missing: number } {
  const never = "9999-12-31";
  const usable = lots
    .map((lot) => ({ lot, state: lotState(lot, entry, today) }))
    .filter(({ lot, state }) => state.kind !== "expired" && lot.amount > 0)
    .sort(
      (a, b) =>
        (a.lot.expiresOn ?? never).localeCompare(b.lot.expiresOn ?? never) ||
        (a.lot.openedOn ?? never).localeCompare(b.lot.openedOn ?? never) ||
        a.lot.id.localeCompare(b.lot.id),
    );
  const taken: Taken[] = [];
  let missing = Math.max(0, need);
  for (const { lot, state } of usable) {
    if (missing <= 0) break;
    const amount = Math.min(missing, lot.amount);
    taken.push({ lot, amount, state });
    missing -= amount;
  }
  return { taken, missing };
}
