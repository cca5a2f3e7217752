/** Data sheets and photos that are kept with a material of the store. */
import { z } from "zod";

/** What may be kept, by what its first bytes say it is. */
export const SHEET_TYPES = {
  "application/pdf": "PDF",
  "image/png": "PNG",
  "image/jpeg": "JPEG",
} as const;
export type SheetType = keyof typeof SHEET_TYPES;

/** One is no larger, bytes; a material has no more of them. */
export const SHEET_LIMIT_BYTES = 12 * 1024 * 1024;
export const MOST_SHEETS = 20;

export const sheetOf = z.object({
  material: z.string().trim().min(1).max(60),
  name: z.string().trim().min(1, "The file has no name.").max(160),
});

export const sheet = sheetOf.extend({
  id: z.uuid(),
  type: z.enum(Object.keys(SHEET_TYPES) as [SheetType, ...SheetType[]]),
  bytes: z.number().int().min(0),
  addedAt: z.iso.datetime(),
});
export type Sheet = z.infer<typeof sheet>;

export const sheetList = z.object({ sheets: z.array(sheet) });
