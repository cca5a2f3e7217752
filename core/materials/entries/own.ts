/** Materials of a workshop's own beside those of the catalogue, and which of them a plan takes. */
import type { CatalogueEntry, Family, FigureKey, Group, MaterialUnit, MixPartOf, Pack } from "./entry.ts";
import type { HazardId } from "./hazards.ts";

export type OwnId = `own-${string}`;

export interface OwnEntry {
  readonly id: OwnId;
  readonly name: string;
  readonly unit: MaterialUnit;
  readonly group: Group;
  readonly family: Family;
  readonly figures: Partial<Readonly<Record<FigureKey, number>>>;
  /** What is mixed of it, the base first; none where it has one part. */
  readonly mix: readonly MixPartOf[];
  readonly packs: readonly Pack[];
  readonly hazards: readonly HazardId[];
  readonly supplier: string;
  readonly note: string;
}

export function isOwn(id: string): id is OwnId {
  return id.startsWith("own-");
}

/** An own entry in the form of the catalogue's. */
export function asEntry({ mix, note, ...entry }: OwnEntry): CatalogueEntry {
  return { ...entry, note, ...(mix.length > 0 ? { mix } : {}) };
}
