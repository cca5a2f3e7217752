/** Which materials a plan takes: own entries of the workshop, and what stands in for a material that a rule asks for. */
import { entryOf, type MaterialId, type MaterialKey } from "./catalogue.ts";
import type { CatalogueEntry } from "./entries/entry.ts";
import type { OwnEntry } from "./entries/own.ts";

export interface ChosenMaterials {
  /** Entries of the workshop's own that the plan speaks of, as they were when they were chosen: a plan stands by itself. */
  readonly own: readonly OwnEntry[];
  /** By the material that is usual: what is taken in its place. */
  readonly instead: Readonly<Partial<Record<MaterialId, MaterialKey>>>;
}

export const AS_USUAL: ChosenMaterials = { own: [], instead: {} };

export interface ChosenMaterial extends CatalogueEntry {
  readonly id: MaterialKey;
  /** Does it stand in for another? */
  readonly isInstead: boolean;
}

/** What is taken where `usual` is asked for. */
export function chosenFor(usual: MaterialId, { own, instead }: ChosenMaterials): ChosenMaterial {
  const id = instead[usual] ?? usual;
  return { ...entryOf(id, own), id, isInstead: id !== usual };
}

/** May one stand in for the other? What is counted alike and stands on the same shelf. */
export function standsIn(
  usual: Pick<CatalogueEntry, "unit" | "group">,
  other: Pick<CatalogueEntry, "unit" | "group">,
): boolean {
  return usual.unit === other.unit && usual.group === other.group;
}

/** @param entry an own entry where `id` is of one; kept with the plan */
export function withInstead(
  chosen: ChosenMaterials,
  usual: MaterialId,
  id: MaterialKey,
  entry: OwnEntry | null = null,
): ChosenMaterials {
  const { [usual]: _before, ...others } = chosen.instead;
  return { own: withOwn(chosen.own, entry), instead: id === usual ? others : { ...others, [usual]: id } };
}

/** Own entries with one added, or replaced. */
export function withOwn(own: readonly OwnEntry[], entry: OwnEntry | null): readonly OwnEntry[] {
  return entry ? [...own.filter(({ id }) => id !== entry.id), entry] : own;
}
