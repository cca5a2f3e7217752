/**
 * From a scan and a plan document to results, by the stages of `stages/table.ts`, and what is asked about a plan: plans
 * compared, from where a section could be pulled, what would free it, the rest suggested again.
 */
import { THICK_JACKET_MM } from "../jacket/coat.ts";
import type { Jacket } from "../jacket/jacket.ts";
import type { JobContext } from "../job/context.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import type { Layout } from "../parting/layout/layout.ts";
import { type PullRange, pullRange } from "../parting/search/pullRange.ts";
import { type SearchEffort, THOROUGH } from "../parting/search/request.ts";
import { partingHours, partingPrices } from "../takeoff/prices.ts";
import { type Rates, TYPICAL_RATES } from "../takeoff/rates.ts";
import { type ComparedPlan, comparePlans, offerOf } from "./advice/offers.ts";
import { type Relaid, type Remedy, remediesFor, type Trial } from "./advice/remedies.ts";
import { splitOff, suggestLines, suggestRest } from "./advice/rest.ts";
import type { PlanDocument } from "./document/document.ts";
import type { ProvenParting } from "./proof/parting.ts";
import { checked } from "./proof/sane.ts";
import { planSections } from "./proof/sections.ts";
import { type LastProven, provenOnStandingFills, type StandingProof } from "./proof/standing.ts";
import type { SurveyStage } from "./proof/surveyStage.ts";
import type { PlanWarning } from "./proof/warning.ts";
import type { PlanResult } from "./results/planResult.ts";
import { partingStage, searchRequest } from "./stages/parting.ts";
import type { Piece } from "./stages/piece.ts";
import type { Terms } from "./stages/stage.ts";
import { Stages } from "./stages/stages.ts";

export type { PlanResult } from "./results/planResult.ts";
export type { Piece } from "./stages/piece.ts";

export class PlanEngine {
  private readonly stages: Stages;
  /** The lines laid by hand that were proven last, and the jacket they lie on. */
  private lastLaid: (LastProven & { readonly jacket: Jacket }) | null = null;

  /**
   * @param scan triangles as the file has them
   * @param effort how hard to look for a suggestion
   */
  constructor(
    private readonly scan: TriangleMesh,
    private readonly effort: SearchEffort = THOROUGH,
  ) {
    this.stages = new Stages({ scan });
  }

  /** The same scan, looked at harder or less hard. */
  withEffort(effort: SearchEffort): PlanEngine {
    return effort === this.effort ? this : new PlanEngine(this.scan, effort);
  }

  /** Seats and mends the scan. @throws ScanProblem */
  pieceFor(document: PlanDocument, ctx: JobContext): Piece {
    return this.stages.get("piece", document, this.pieceTerms, ctx);
  }

  /** The piece, where it has been seated and mended already. */
  pieceKnown(document: PlanDocument): Piece | null {
    return this.stages.known("piece", document, this.pieceTerms);
  }

  /** The jacket at a grid step. */
  jacketFor(document: PlanDocument, stepMm: number, ctx: JobContext): Jacket {
    return this.stages.get("jacket", document, { ...this.pieceTerms, stepMm }, ctx);
  }

  /** The survey that a suggestion is looked for in. */
  private surveyFor(document: PlanDocument, stepMm: number, ctx: JobContext): SurveyStage {
    return this.stages.get("survey", document, { ...this.pieceTerms, stepMm }, ctx);
  }

  /** Works out what the next edit of the document's lines is measured against. */
  prepare(document: PlanDocument, rates: Rates, stepMm: number, ctx: JobContext): void {
    const jacket = this.jacketFor(document, stepMm, ctx);
    this.surveyFor(document, stepMm, ctx).nearest(jacket, ctx);
    if (document.parting.layout) this.partingFor(document, rates, stepMm, ctx);
  }

  /** The sections, suggested or for the user's own pulls or lines. */
  partingFor(document: PlanDocument, rates: Rates, stepMm: number, ctx: JobContext): ProvenParting {
    const parting = this.stages.get("parting", document, this.terms(rates, stepMm), ctx);
    const { layout } = document.parting;
    if (layout) this.lastLaid = { layout, parting, jacket: this.jacketFor(document, stepMm, ctx) };
    return parting;
  }

  /**
   * What lines that were moved come to with the fills of those that were proven last, well before they are proven whole.
   * Null where nothing is known of them that way: another jacket, other sections, fills that are to stay open.
   */
  standing(document: PlanDocument, rates: Rates, stepMm: number, ctx: JobContext): StandingProof | null {
    const terms = this.terms(rates, stepMm);
    const request = partingStage.reads(document, terms);
    const last = this.lastLaid;
    if (!request.layout || !last || this.stages.known("parting", document, terms)) return null;
    const { sections } = request.layout;
    const isOpen =
      sections.some(({ fillWith }) => fillWith === "open") || request.fills.some(({ kind }) => kind === "open");
    if (isOpen || sections.length !== last.layout.sections.length) return null;
    const jacket = this.jacketFor(document, stepMm, ctx);
    if (jacket !== last.jacket) return null;
    return provenOnStandingFills(jacket, this.surveyFor(document, stepMm, ctx), last, request, ctx);
  }

  /** The best plan of every number of sections, proven; each is told as it is found. */
  async compare(
    document: PlanDocument,
    rates: Rates,
    stepMm: number,
    ctx: JobContext,
    tell?: (plan: ComparedPlan) => Promise<void> | void,
  ): Promise<ComparedPlan[]> {
    const survey = this.surveyFor(document, stepMm, ctx);
    const jacket = this.jacketFor(document, stepMm, ctx);
    const request = searchRequest(document, { rates });
    const quiet = { ...ctx, progress: () => {} };
    return comparePlans(
      (sections) => planSections(jacket, survey, { ...request, sections, pulls: null }, quiet),
      (plan) => offerOf(plan, survey.request, request.prices),
      (plan) => partingHours(plan, document, rates),
      ctx,
      tell,
    );
  }

  /**
   * From where every section of the plan could be pulled, in their order.
   * Plans first where the plan is not held.
   */
  rangesFor(document: PlanDocument, rates: Rates, stepMm: number, ctx: JobContext): PullRange[] {
    const { sections, surveyLabel } = this.partingFor(document, rates, stepMm, ctx);
    const survey = this.surveyFor(document, stepMm, ctx);
    const table = survey.table(ctx);
    const prices = partingPrices(document, rates);
    return sections.map(({ pull }, k) => {
      ctx.checkCancelled();
      return pullRange(survey.request, table, prices, surveyLabel, k, pull, { ...ctx, progress: () => {} });
    });
  }

  /**
   * What would free a section, or do without its fill, each tried and proven; none where it releases without any.
   * @param number of the section in the settled plan
   * @param tell each remedy as it is found
   */
  remediesFor(
    document: PlanDocument,
    rates: Rates,
    stepMm: number,
    number: number,
    ctx: JobContext,
    tell?: (remedy: Remedy) => void,
  ): Remedy[] {
    const plan = this.partingFor(document, rates, stepMm, ctx);
    const section = plan.sections[number - 1];
    if (!section || (section.releases && section.fillMm3 === 0)) return [];
    const survey = this.surveyFor(document, stepMm, ctx);
    const jacket = this.jacketFor(document, stepMm, ctx);
    const prices = partingPrices(document, rates);
    const range = () =>
      pullRange(survey.request, survey.table(ctx), prices, plan.surveyLabel, number - 1, section.pull, {
        ...ctx,
        progress: () => {},
      });
    // On the survey of the plan as it is: a deeper fill changes what a lock weighs there, not where lines laid run.
    const trial: Trial = (parting, quiet) =>
      planSections(jacket, survey, partingStage.reads({ ...document, parting }, this.terms(rates, stepMm)), quiet);
    const known = { request: survey.request, table: survey.table(ctx), nearest: survey.nearest(jacket, ctx) };
    const relaid: Relaid = {
      lines: (layout) => suggestLines(jacket, known, { layout, prices }, ctx),
      split: (layout, one) => splitOff(jacket, known, { layout, prices }, one, ctx),
    };
    return remediesFor({ document, plan, number, range, relaid, trial }, ctx, tell);
  }

  /**
   * The layout with its held sections as they are and everything else suggested again.
   * @param count sections wanted in all
   * @throws Error where no layout is in hand
   */
  restFor(document: PlanDocument, rates: Rates, stepMm: number, count: number, ctx: JobContext): Layout {
    const { layout } = document.parting;
    if (!layout) throw new Error("There are no lines in hand to suggest the rest of.");
    const survey = this.surveyFor(document, stepMm, ctx);
    const jacket = this.jacketFor(document, stepMm, ctx);
    const known = { request: survey.request, table: survey.table(ctx), nearest: survey.nearest(jacket, ctx) };
    return suggestRest(jacket, known, { layout, sections: count, prices: partingPrices(document, rates) }, ctx);
  }

  /** The survey's mesh of a document, for pictures of its compared plans; null before a comparison. */
  surveyed(document: PlanDocument, stepMm: number): TriangleMesh | null {
    return this.stages.known("survey", document, { ...this.pieceTerms, stepMm })?.request.coarse ?? null;
  }

  run(document: PlanDocument, rates: Rates, stepMm: number, ctx: JobContext): PlanResult {
    const terms = this.terms(rates, stepMm);
    const piece = this.pieceFor(document, ctx);
    const jacket = this.jacketFor(document, stepMm, ctx);
    const parting = this.partingFor(document, rates, stepMm, ctx);
    const zoneMm = this.stages.get("zones", document, terms, ctx);
    const walls = this.stages.get("walls", document, terms, ctx);
    const cavity = this.stages.get("cavity", document, terms, ctx);
    const ways = this.stages.get("ways", document, terms, ctx);
    const spans = this.stages.get("ribs", document, terms, ctx);
    const warnings: PlanWarning[] = [
      ...piece.report.warnings.map((text) => ({ kind: "scan", text }) as const),
      ...parting.warnings,
    ];
    if (jacket.thicknessMm > THICK_JACKET_MM) {
      const text = `The jacket is over ${THICK_JACKET_MM} mm thick: it wastes silicone and will not stretch off easily.`;
      warnings.push({ kind: "jacket", text });
    }
    return checked({ piece, jacket, parting, walls, cavity, ways, spans, zoneMm, warnings });
  }

  private terms(rates: Rates, stepMm: number): Terms {
    return { rates, stepMm, effort: this.effort };
  }

  /** For stages that read no rates. */
  private get pieceTerms(): Terms {
    return this.terms(TYPICAL_RATES, 0);
  }
}
