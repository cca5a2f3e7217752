import { z } from "zod";

/** Greatest scan accepted unless the server is told otherwise. */
export const DEFAULT_SCAN_LIMIT_BYTES = 512 * 1024 * 1024;

export const scan = z.object({ id: z.uuid(), name: z.string(), bytes: z.number().int(), sha256: z.string() });
export type Scan = z.infer<typeof scan>;

/** Key of a cached result: the hash of its inputs. */
export const resultKey = z.string().regex(/^[0-9a-f]{64}$/);
export const RESULT_LIMIT_BYTES = 64 * 1024 * 1024;
