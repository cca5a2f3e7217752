/** The workshop's store on the wire: lots, own entries, and what was changed of shipped ones. */
import { z } from "zod";
import { MATERIAL_IDS } from "../core/materials/catalogue.ts";
import { FAMILIES, FIGURES, type FigureKey, GROUPS, type Group } from "../core/materials/entries/entry.ts";
import { HAZARDS, type HazardId } from "../core/materials/entries/hazards.ts";
import type { OwnId } from "../core/materials/entries/own.ts";
import type { Store } from "../core/materials/stock.ts";
import { packs } from "./rates.ts";

const date = z.iso.date("A date is like 2026-11-30.").nullable();
const id = z.string().trim().min(1).max(60);
const amount = z.number().min(0, "An amount is not less than nothing.").max(1_000_000);

const supplier = z.string().trim().max(80);

const lot = z.object({
  id,
  material: id,
  amount,
  openedOn: date,
  expiresOn: date,
  place: z.string().trim().max(120),
});

const figures = z.partialRecord(
  z.enum(Object.keys(FIGURES) as [FigureKey, ...FigureKey[]]),
  z.number().min(0).max(100_000),
);

export const ownId = z.custom<OwnId>(
  (value) => typeof value === "string" && /^own-[a-z0-9-]{1,50}$/.test(value),
  "An own entry's name begins with own-.",
);

/** Parts of a mix; the base first. */
const mix = z
  .array(
    z.object({
      name: z.string().trim().min(1).max(40),
      parts: z.number().gt(0).max(10_000),
      densityGPerCm3: z.number().gt(0).max(20).optional(),
    }),
  )
  .max(6)
  .refine((parts) => parts.length !== 1, "A mix has at least two parts.");

/** Entries of before have no mix, and no hazards. */
export const ownEntry = z.object({
  id: ownId,
  name: z.string().trim().min(1, "Give it a name.").max(80),
  unit: z.enum(["kg", "l", "m2", "m", "pcs"]),
  group: z.enum(Object.keys(GROUPS) as [Group, ...Group[]]),
  family: z.enum(FAMILIES),
  figures,
  mix: mix.default([]),
  packs,
  hazards: z
    .array(z.enum(Object.keys(HAZARDS) as [HazardId, ...HazardId[]]))
    .max(20)
    .default([]),
  supplier,
  note: z.string().trim().max(400),
});

export const store = z
  .object({
    lots: z.array(lot).max(2000),
    edits: z.partialRecord(
      z.enum(MATERIAL_IDS as [string, ...string[]]),
      z.object({ packs, supplier, shipped: packs }),
    ),
    own: z.array(ownEntry).max(300),
  })
  .refine(
    ({ own, lots }) => {
      const known = new Set<string>([...MATERIAL_IDS, ...own.map((entry) => entry.id)]);
      return lots.every(({ material }) => known.has(material));
    },
    { message: "A lot is of a material that is not in the catalogue.", path: ["lots"] },
  ) as unknown as z.ZodType<Store>;

export const storedStore = z.object({ store, revision: z.number().int().min(0) });
export type StoredStore = z.infer<typeof storedStore>;
