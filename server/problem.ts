import type { ErrorCode } from "../contract/error.ts";

const STATUS: Readonly<Record<ErrorCode, number>> = {
  "bad-request": 400,
  "not-found": 404,
  conflict: 409,
  "too-large": 413,
  unsupported: 415,
  forbidden: 403,
  unavailable: 503,
  internal: 500,
};

/** An error a person can be told. Anything else thrown is a bug and answers 500 without its text. */
export class Problem extends Error {
  override readonly name = "Problem";
  constructor(
    readonly code: ErrorCode,
    message: string,
    readonly more: { readonly fields?: Record<string, string>; readonly body?: object } = {},
  ) {
    super(message);
  }
  get status(): number {
    return STATUS[this.code];
  }
}
