/** Runs stages and keeps their results: the latest of each, and as many earlier ones as there is room for. */
import type { JobContext } from "../../job/context.ts";
import type { PlanDocument } from "../document/document.ts";
import type { Given, Terms } from "./stage.ts";
import { type ResultOf, type StageName, stageKey, stageOf } from "./table.ts";

/** Typed arrays of earlier results may take so much room, bytes. */
const KEPT_BYTES = 150e6;

interface Kept {
  readonly name: StageName;
  readonly value: unknown;
}

export class Stages {
  /** By key, the one used last at the end. */
  private readonly kept = new Map<string, Kept>();

  constructor(
    private readonly given: Given,
    private readonly mostBytes = KEPT_BYTES,
  ) {}

  /** The result of a stage, worked out with all it depends on where it is not kept. */
  get<Name extends StageName>(name: Name, document: PlanDocument, terms: Terms, ctx: JobContext): ResultOf<Name> {
    const key = stageKey(name, document, terms);
    const found = this.kept.get(key);
    if (found) {
      this.kept.delete(key);
      this.kept.set(key, found);
      return found.value as ResultOf<Name>;
    }
    const { after, reads, make } = stageOf(name);
    const earlier: Record<string, unknown> = {};
    for (const before of after) earlier[before] = this.get(before as StageName, document, terms, ctx);
    const value = make(reads(document, terms), { ...earlier, ...this.given }, ctx);
    this.kept.set(key, { name, value });
    this.makeRoom();
    return value as ResultOf<Name>;
  }

  /** The result of a stage where it is kept; null where it would have to be worked out. */
  known<Name extends StageName>(name: Name, document: PlanDocument, terms: Terms): ResultOf<Name> | null {
    return (this.kept.get(stageKey(name, document, terms))?.value as ResultOf<Name> | undefined) ?? null;
  }

  /** Lets go of what was used least lately, but for the latest of every stage. */
  private makeRoom(): void {
    const counted = new Set<object>();
    const latest = new Set<StageName>();
    let bytes = 0;
    for (const [key, { name, value }] of [...this.kept].reverse()) {
      bytes += bytesOf(value, counted);
      if (!latest.has(name)) latest.add(name);
      else if (bytes > this.mostBytes) this.kept.delete(key);
    }
  }
}

/** Bytes of the typed arrays that can be reached from a value; what was counted before counts for nothing. */
export function bytesOf(value: unknown, counted: Set<object> = new Set()): number {
  if (typeof value !== "object" || value === null || counted.has(value)) return 0;
  counted.add(value);
  if (ArrayBuffer.isView(value)) {
    if (counted.has(value.buffer)) return 0;
    counted.add(value.buffer);
    return value.byteLength;
  }
  const inside = value instanceof Map ? value.values() : Object.values(value);
  let bytes = 0;
  for (const each of inside) {
    // Long lists of numbers hold nothing more.
    if (typeof each === "number" && Array.isArray(value)) break;
    bytes += bytesOf(each, counted);
  }
  return bytes;
}
