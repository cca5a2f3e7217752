/** A plan that is worked out while its scan is still being put on the shelf. */

import type { PlanDocument } from "../../core/plan/document/document.ts";
import { RESULTS_VERSION } from "../../core/plan/results/bundle.ts";
import { resultKeyText } from "../../core/plan/stages/keys.ts";
import type { Fineness } from "../../core/plan/stages/steps.ts";
import type { Rates } from "../../core/takeoff/rates.ts";
import { type Answer, type Geometry, proxied } from "./geometry.ts";

type Report = (stage: string, fraction: number) => void;
export type Quality = "coarse" | "settled";

/** What a plan is worked out for, beside its document. */
export interface Terms {
  readonly rates: Rates;
  readonly fineness: Fineness;
}

/** Names a plan of a scan by all it depends on. */
export function planKey(scanSha256: string, document: PlanDocument, terms: Terms): string {
  return resultKeyText(scanSha256, document, terms, RESULTS_VERSION);
}

/** The worker that reads a scan, and the answers it was asked for before there was a piece to show them. */
export class Begun {
  private report: Report = () => {};
  private readonly answers: Record<Quality, Promise<Answer<Uint8Array>>>;

  constructor(
    readonly geometry: Geometry,
    private readonly document: PlanDocument,
    private readonly terms: Terms,
  ) {
    const relay = proxied((stage: string, fraction: number) => this.report(stage, fraction));
    void geometry.api.lookOver(document);
    const ask = (quality: Quality) => geometry.api.plan(geometry.ticket(), document, terms.rates, quality, relay);
    this.answers = { coarse: ask("coarse"), settled: ask("settled") };
  }

  /** The answer to the same question, on its way or here already; its progress is told from now on. Else null. */
  answer(scanSha256: string, key: string, quality: Quality, report: Report): Promise<Answer<Uint8Array>> | null {
    if (planKey(scanSha256, this.document, this.terms) !== key) return null;
    this.report = report;
    return this.answers[quality];
  }
}

/** What was begun on for a scan just put on the shelf, kept for the course of its piece that opens next. */
let kept: { readonly scanId: string; readonly begun: Begun } | null = null;

export function keepFor(scanId: string, begun: Begun): void {
  kept?.begun.geometry.end();
  kept = { scanId, begun };
}

/** What was kept for a scan, if anything was; anything else is ended. */
export function takeKept(scanId: string): Begun | null {
  const held = kept;
  kept = null;
  if (held && held.scanId !== scanId) held.begun.geometry.end();
  return held?.scanId === scanId ? held.begun : null;
}
