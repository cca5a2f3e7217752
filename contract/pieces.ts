/** Pieces on the shelf, their parts, and the parts' plans. */
import { z } from "zod";
import { planDocument } from "./plan.ts";

/** Where a piece stands in the course; which stations there are the page knows. */
const station = z.string().regex(/^[a-z-]{1,20}$/, "A station has a plain, short name.");

const name = z.string().trim().min(1, "Give the piece a name.").max(120, "A name has at most 120 characters.");

/** What of a piece is scanned, planned and moulded by itself: the whole of it, or a limb that was cut off. */
export const part = z.object({
  id: z.uuid(),
  name: z.string(),
  scanId: z.uuid(),
  scanName: z.string(),
  scanBytes: z.number().int(),
  scanSha256: z.string(),
});
export type Part = z.infer<typeof part>;

export const piece = z.object({
  id: z.uuid(),
  name: z.string(),
  parts: z.array(part).min(1),
  station,
  away: z.boolean(),
  hasCover: z.boolean(),
  summary: z.string(),
  createdAt: z.iso.datetime(),
  updatedAt: z.iso.datetime(),
});
export type Piece = z.infer<typeof piece>;

export const pieceList = z.object({ pieces: z.array(piece) });
export const createPiece = z.object({ name, scanId: z.uuid(), document: planDocument });
export const changePiece = z
  .object({
    name: name.optional(),
    away: z.boolean().optional(),
    station: station.optional(),
    summary: z.string().max(200).optional(),
  })
  .refine((change) => Object.keys(change).length > 0, "Nothing to change.");

/** Where a part's plan, its revisions and what is built from it stand. */
export const partPath = (pieceId: string, partId: string) => `/pieces/${pieceId}/parts/${partId}`;

export const storedPlan = z.object({
  partId: z.uuid(),
  revision: z.number().int(),
  document: planDocument,
  updatedAt: z.iso.datetime(),
  updatedBy: z.object({ id: z.uuid(), name: z.string() }).nullable(),
  /** The latest revision cannot be read any more: this is the last that can; the other is there as a download. */
  unreadableRevision: z.number().int().optional(),
});
export type StoredPlan = z.infer<typeof storedPlan>;

/** `revision` is the one the edit was made on; another on the server answers 409 with the plan that stands there. */
export const savePlan = z.object({ revision: z.number().int().min(1), document: planDocument });
export const planConflict = z.object({
  error: z.object({ code: z.literal("conflict"), message: z.string() }),
  current: storedPlan,
});

/** A plan's document as a request is no larger than this. */
export const PLAN_LIMIT_BYTES = 8 * 1024 * 1024;
