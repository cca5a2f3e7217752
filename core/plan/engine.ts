/**
 * From a scan and a plan document to results, in stages. Each stage is kept with the key of its inputs, so that an
 * edit runs only what it touches: a change of shell system computes no field.
 */
import { type Outside, outsideOfParts } from "../field/enclosed.ts";
import { jacketThicknessMm, usualGiveMm } from "../jacket/coat.ts";
import { type Jacket, type JacketRequest, makeJacket } from "../jacket/jacket.ts";
import type { JobContext } from "../job/context.ts";
import { pieceMassG } from "../materials/pieceMaterial.ts";
import { areaAndVolume, boxSize, meshBox, sharedMesh, type TriangleMesh } from "../mesh/mesh.ts";
import { repairScan, type ScanReport } from "../mesh/repair.ts";
import type { Layout } from "../parting/hand/layout.ts";
import { type PullRange, pullRange } from "../parting/pullRange.ts";
import { type SearchEffort, THOROUGH } from "../parting/request.ts";
import { shellTakeoff } from "../shell/index.ts";
import { type ZoneKind, zoneLengthsMm } from "../survey/zones.ts";
import type { Sections } from "./assemble.ts";
import type { SectionsRequest } from "./choosing.ts";
import { type CutOff, cutOffOf } from "./cutOff.ts";
import type { PlanDocument } from "./document.ts";
import { type Estimate, estimate, partingHours, partingPrices, type Rates } from "./estimate.ts";
import { liftCaution } from "./liftCaution.ts";
import { type ComparedPlan, comparePlans, offerOf } from "./offers.ts";
import { type Relaid, type Remedy, remediesFor, type Trial } from "./remedies.ts";
import { splitOff, suggestLines, suggestRest } from "./rest.ts";
import { checked } from "./sane.ts";
import { seatPiece } from "./seat.ts";
import { planSections } from "./sections.ts";
import { SurveyStage, surveyRequestFor } from "./surveyStage.ts";

export interface Piece {
  readonly mesh: TriangleMesh;
  readonly report: ScanReport;
  readonly areaMm2: number;
  readonly volumeMm3: number;
  readonly sizeMm: readonly [number, number, number];
}

export interface PlanResult {
  readonly piece: Piece;
  readonly jacket: Jacket;
  readonly sections: Sections;
  readonly estimate: Estimate;
  /** Where cutting a limb off would be the better way; null where nothing speaks for it, or not all was left to the search. */
  readonly cutOff: CutOff | null;
  /** How much of the lines runs through each kind of zone. */
  readonly zoneMm: Readonly<Record<ZoneKind, number>>;
  readonly warnings: readonly string[];
}

function toldOfParts({ inner, overlapping, thin }: Outside): string[] {
  const told: string[] = [];
  if (thin > 0) told.push(`left out ${thin} ${thin === 1 ? "sheet" : "sheets"} without thickness`);
  if (inner > 0)
    told.push(
      `left out ${inner} inner ${inner === 1 ? "skin" : "skins"}: nothing outside can reach ${inner === 1 ? "it" : "them"}`,
    );
  if (overlapping > 0) told.push(`${overlapping} parts run into others: what they share counts once`);
  return told;
}

/** One stage's last result and the key of the inputs it was made from. */
class Stage<T> {
  private held: { readonly key: string; readonly value: T } | null = null;

  get key(): string {
    return this.held?.key ?? "";
  }

  get value(): T | null {
    return this.held?.value ?? null;
  }

  get(key: string, make: () => T): T {
    if (this.held?.key !== key) this.held = { key, value: make() };
    return this.held.value;
  }
}

/** Was everything left to the search? Only then does a plan that is held mean that no way was found. */
function soughtFreely({ sections, pulls, layout, fills }: PlanDocument["parting"]): boolean {
  return sections === "auto" && !pulls && !layout && !fills.some(({ kind }) => kind === "open");
}

export class PlanEngine {
  private readonly piece = new Stage<Piece>();
  private readonly jacket = new Stage<Jacket>();
  private readonly survey = new Stage<SurveyStage>();
  private readonly sections = new Stage<Sections>();

  /**
   * @param raw triangles as the file has them
   * @param effort how hard to look for a suggestion
   */
  constructor(
    private readonly raw: TriangleMesh,
    private readonly effort: SearchEffort = THOROUGH,
  ) {}

  /** The same scan, looked at harder or less hard. */
  withEffort(effort: SearchEffort): PlanEngine {
    return effort === this.effort ? this : new PlanEngine(this.raw, effort);
  }

  /** Seats and repairs the scan. @throws ScanProblem */
  pieceFor(document: PlanDocument, ctx: JobContext): Piece {
    return this.piece.get(JSON.stringify(document.seat), () => {
      const { mesh: mended, report: found } = repairScan(seatPiece(this.raw, document.seat), ctx);
      const outside = outsideOfParts(mended, ctx);
      const { mesh } = outside;
      const report = { ...found, repairs: [...found.repairs, ...toldOfParts(outside)] };
      return { mesh: sharedMesh(mesh, ctx.team), report, ...areaAndVolume(mesh), sizeMm: boxSize(meshBox(mesh)) };
    });
  }

  /** The piece, where it has been seated and repaired already. */
  pieceKnown(document: PlanDocument): Piece | null {
    return this.piece.key === JSON.stringify(document.seat) ? this.piece.value : null;
  }

  /** The jacket at a grid step. */
  jacketFor(document: PlanDocument, stepMm: number, ctx: JobContext): Jacket {
    const piece = this.pieceFor(document, ctx);
    const { coats, smoothingMm, rimWidthMm, thickerMm, stops, footClayMm } = document.jacket;
    const thicker = { dabs: document.zones.thicker, moreMm: thickerMm };
    const key = JSON.stringify([
      document.seat,
      coats.map((c) => [c.thicknessMm, c.thickened]),
      smoothingMm,
      rimWidthMm,
      thicker.dabs.length > 0 ? thicker : null,
      stops.map(({ loop }) => loop),
      footClayMm,
      stepMm,
    ]);
    const request: JacketRequest = {
      coats,
      smoothingMm,
      rimWidthMm,
      thicker,
      stops,
      footClayMm,
      onBoard: document.seat.onBoard,
      stepMm,
    };
    return this.jacket.get(key, () => makeJacket(piece.mesh, request, ctx));
  }

  /** The survey that a suggestion is looked for in; its table is left out where the pulls are the user's own. */
  private surveyFor(document: PlanDocument, stepMm: number, ctx: JobContext): SurveyStage {
    const jacket = this.jacketFor(document, stepMm, ctx);
    const { draftDeg } = document.survey;
    const { keepClear } = document.zones;
    const key = JSON.stringify([this.jacket.key, draftDeg, keepClear]);
    return this.survey.get(key, () => new SurveyStage(surveyRequestFor(jacket, draftDeg, keepClear, ctx, this.effort)));
  }

  /** Works out what the next edit of the document's lines is measured against. */
  prepare(document: PlanDocument, rates: Rates, stepMm: number, ctx: JobContext): void {
    const jacket = this.jacketFor(document, stepMm, ctx);
    this.surveyFor(document, stepMm, ctx).nearest(jacket, ctx);
    if (document.parting.layout) this.sectionsFor(document, rates, stepMm, ctx);
  }

  /** The sections, suggested or for the user's own pulls. */
  sectionsFor(document: PlanDocument, rates: Rates, stepMm: number, ctx: JobContext): Sections {
    const survey = this.surveyFor(document, stepMm, ctx);
    const jacket = this.jacketFor(document, stepMm, ctx);
    const request = this.sectionsRequest(document, rates);
    const { layout, pulls, sections, prices, shellMm, giveMm, mostSiliconeMm, leastSectionMm2, fills, mayLift } =
      request;
    const key = JSON.stringify([
      ...[this.survey.key, layout, pulls, sections, prices, Math.round(shellMm)],
      ...[giveMm, mostSiliconeMm, leastSectionMm2, fills, mayLift],
    ]);
    return this.sections.get(key, () => planSections(jacket, survey, request, ctx));
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
    const request = this.sectionsRequest(document, rates);
    const quiet = { ...ctx, progress: () => {} };
    return comparePlans(
      (sections) => planSections(jacket, survey, { ...request, sections, pulls: null, layout: null }, quiet),
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
    const { sections, surveyLabel } = this.sectionsFor(document, rates, stepMm, ctx);
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
    const plan = this.sectionsFor(document, rates, stepMm, ctx);
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
      planSections(jacket, survey, this.sectionsRequest({ ...document, parting }, rates), quiet);
    const known = { request: survey.request, table: survey.table(ctx), nearest: survey.nearest(jacket, ctx) };
    const relaid: Relaid = {
      lines: (layout) => suggestLines(jacket, known, { layout, prices }, ctx),
      split: (layout, one) => splitOff(jacket, known, { layout, prices }, one, ctx),
    };
    return remediesFor(document, plan, number, range, relaid, trial, ctx, tell);
  }

  /**
   * The layout with its held sections as they are and everything else suggested anew.
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

  private sectionsRequest(document: PlanDocument, rates: Rates): SectionsRequest {
    const { layout, pulls, sections, mostSiliconeMm, leastSectionMm2, fills } = document.parting;
    const giveMm = document.parting.giveMm ?? usualGiveMm(jacketThicknessMm(document.jacket.coats));
    const mayLift = !document.brief.immovable;
    const { thicknessMm } = shellTakeoff(document.shell.system, document.shell.figures, {
      areasMm2: [],
      flangeLengthsMm: [],
    });
    return {
      layout,
      pulls,
      sections,
      giveMm,
      mostSiliconeMm,
      leastSectionMm2,
      fills,
      mayLift,
      shellMm: thicknessMm,
      prices: partingPrices(document, rates),
    };
  }

  /** The survey's mesh, for pictures of compared plans; null before a comparison. */
  get surveyed(): TriangleMesh | null {
    return this.survey.value?.request.coarse ?? null;
  }

  run(document: PlanDocument, rates: Rates, stepMm: number, ctx: JobContext): PlanResult {
    const piece = this.pieceFor(document, ctx);
    const jacket = this.jacketFor(document, stepMm, ctx);
    const sections = this.sectionsFor(document, rates, stepMm, ctx);
    const figures = estimate(document, jacket, sections, rates);
    const warnings = [...piece.report.warnings, ...sections.warnings];
    const lifted = sections.sections.filter((section) => section.lifted).map(({ number }) => number);
    if (lifted.length > 0) {
      const { surface } = document.brief;
      const massG = pieceMassG(piece.volumeMm3, surface) + figures.siliconeG + figures.shellG;
      warnings.push(liftCaution(lifted, massG, surface));
    }
    if (jacket.thicknessMm > 12)
      warnings.push("The jacket is over 12 mm thick: it wastes silicone and will not stretch off easily.");
    const zoneMm = zoneLengthsMm(document.zones, sections.drawn, jacket.thicknessMm);
    return checked({
      piece,
      jacket,
      sections,
      estimate: figures,
      cutOff: soughtFreely(document.parting)
        ? cutOffOf(sections.sections, sections.fillParts, {
            fillPerMm3: partingPrices(document, rates).fillPerMm3,
            cutOff: (rates.cutOffMin * rates.hourMinor) / 60,
          })
        : null,
      zoneMm,
      warnings,
    });
  }
}
