/**
 * The materials that quantities are told of, by what they are. An id is kept with whatever refers to a material; the
 * name is for people, and may change. To add one: its entry in a file of `entries/`.
 */
import { ADDITIVES } from "./entries/additives.ts";
import { CLAYS } from "./entries/clays.ts";
import type { CatalogueEntry } from "./entries/entry.ts";
import { GYPSUMS } from "./entries/gypsums.ts";
import { HARDWARE } from "./entries/hardware.ts";
import { asEntry, isOwn, type OwnEntry, type OwnId } from "./entries/own.ts";
import { REINFORCEMENT } from "./entries/reinforcement.ts";
import { RELEASES } from "./entries/releases.ts";
import { RESINS } from "./entries/resins.ts";
import { SILICONES } from "./entries/silicones.ts";
import { SUNDRIES } from "./entries/sundries.ts";

export const MATERIALS = {
  ...SILICONES,
  ...ADDITIVES,
  ...GYPSUMS,
  ...REINFORCEMENT,
  ...RESINS,
  ...CLAYS,
  ...RELEASES,
  ...HARDWARE,
  ...SUNDRIES,
} as const;

export type MaterialId = keyof typeof MATERIALS;
export const MATERIAL_IDS = Object.keys(MATERIALS) as MaterialId[];

export type SiliconeId = keyof typeof SILICONES;
export const SILICONE_IDS = Object.keys(SILICONES) as SiliconeId[];

/** A material of the catalogue, or one of the workshop's own. */
export type MaterialKey = MaterialId | OwnId;
export type SiliconeKey = SiliconeId | OwnId;

/**
 * @param own entries of the workshop that are known where it is asked
 * @throws RangeError for an own entry that is not among them
 */
export function entryOf(id: MaterialKey, own: readonly OwnEntry[] = []): CatalogueEntry {
  if (!isOwn(id)) return MATERIALS[id];
  const entry = own.find((each) => each.id === id);
  if (!entry) throw new RangeError(`There is no own material "${id}" among those that the plan keeps.`);
  return asEntry(entry);
}

/** Names of what older plans that were built from speak of. */
export const RETIRED: Readonly<Record<string, string>> = {
  "silicone-base": "Silicone base",
  "silicone-catalyst": "Silicone catalyst",
};

/** What a material is used for, where one material has several uses. */
export const MATERIAL_USES = {
  jacket: "",
  shell: "",
  walls: "for parting walls",
  faces: "for jacket and flanges",
  fills: "for fills",
  webs: "for webs",
  foot: "for the foot",
  holes: "for through-holes",
  seam: "for the jacket's seam",
  flanges: "for flanges",
  board: "for the foot and its board",
  bench: "",
  sealing: "to keep apart what must not touch",
} as const;

export type MaterialUse = keyof typeof MATERIAL_USES;

/** What people see of a line. */
export function materialName(
  { material, use }: { readonly material: MaterialKey; readonly use: MaterialUse },
  own: readonly OwnEntry[] = [],
): string {
  const name = nameOf(material, own);
  return [name, MATERIAL_USES[use]].filter((part) => part.length > 0).join(" ");
}

/** A name for any material, also for those that are no longer in the catalogue. */
export function nameOf(material: string, own: readonly OwnEntry[] = []): string {
  const shipped = (MATERIALS as Readonly<Record<string, CatalogueEntry>>)[material];
  return shipped?.name ?? own.find(({ id }) => id === material)?.name ?? RETIRED[material] ?? material;
}

/** The entries of the catalogue that some lines speak of, as they stand: kept with what is built from. */
export function entriesOf(
  lines: readonly { readonly material: MaterialKey }[],
  own: readonly OwnEntry[] = [],
): Record<string, { readonly name: string; readonly unit: string }> {
  return Object.fromEntries(
    lines.map(({ material }) => {
      const { name, unit } = entryOf(material, own);
      return [material, { name, unit }];
    }),
  );
}
