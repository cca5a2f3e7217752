/** Codes of everything that can be wrong with a scan; the message says what, where and what to do. */
export type ScanProblemCode =
  | "empty-file"
  | "unknown-format"
  | "truncated"
  | "count-lies"
  | "malformed"
  | "bad-coordinate"
  | "too-large"
  | "unsupported"
  | "no-triangles"
  | "flat"
  | "too-fine";

/** The scan cannot be used. Caught where the job was started and passed on as data. */
export class ScanProblem extends Error {
  override readonly name = "ScanProblem";
  constructor(
    readonly code: ScanProblemCode,
    message: string,
  ) {
    super(message);
  }
}
