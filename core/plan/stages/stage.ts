/**
 * A stage of a plan: what it reads of the document and of earlier stages, and the function that makes its result. Its key
 * follows from that alone, and `make` is given nothing else: what a stage does not declare it cannot depend on.
 */
import type { JobContext } from "../../job/context.ts";
import type { TriangleMesh } from "../../mesh/mesh.ts";
import type { SearchEffort } from "../../parting/search/request.ts";
import type { Rates } from "../../takeoff/rates.ts";
import type { PlanDocument } from "../document/document.ts";

/** What stages may read beside the document. */
export interface Terms {
  readonly rates: Rates;
  /** Grid step, mm. */
  readonly stepMm: number;
  /** How hard to look for a suggestion. */
  readonly effort: SearchEffort;
}

/** What is there before the first stage. */
export interface Given {
  /** Triangles as the file has them. */
  readonly scan: TriangleMesh;
}

/**
 * @template Out what it makes
 * @template Reads what it reads of document and terms: plain data, for its text is the stage's key
 * @template From results of the earlier stages it reads, by name
 */
export interface Stage<Out = unknown, Reads = unknown, From extends object = object> {
  readonly name: string;
  readonly after: readonly (keyof From & string)[];
  reads(document: PlanDocument, terms: Terms): Reads;
  /** What it reports on as it goes, and each one's share of a whole plan; all stages together come to 1. */
  readonly progress: Readonly<Record<string, number>>;
  make(reads: Reads, earlier: From & Given, ctx: JobContext): Out;
}

/** States a stage's types from its own functions. */
export function stage<Out, Reads, From extends object = object>(
  definition: Stage<Out, Reads, From>,
): Stage<Out, Reads, From> {
  return definition;
}

export type OutOf<S> = S extends Stage<infer Out, infer _Reads, infer _From> ? Out : never;
