/** The one shape of every error the API answers with, and the catalogue of its codes. */
import { z } from "zod";

export const errorCodes = [
  "bad-request",
  "not-found",
  "conflict",
  "too-large",
  "unsupported",
  "forbidden",
  "unavailable",
  "internal",
] as const;

export const apiError = z.object({
  error: z.object({
    code: z.enum(errorCodes),
    /** What happened, what is safe, what to do: shown to people as it is. */
    message: z.string(),
    /** Where in the request, for forms. */
    fields: z.record(z.string(), z.string()).optional(),
  }),
});

export type ErrorCode = (typeof errorCodes)[number];
export type ApiError = z.infer<typeof apiError>;
