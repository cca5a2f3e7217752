/** From a jacket to sections: suggest or take pulls, label, measure locks, fill them, cut the filled jacket. */
import { coarsen } from "../field/coarsen.ts";
import { isosurface } from "../field/isosurface.ts";
import { NearestField } from "../field/nearest.ts";
import type { Jacket } from "../jacket/jacket.ts";
import type { JobContext } from "../job/context.ts";
import { clipAbove } from "../mesh/clip.ts";
import { areaAndVolume, boxSize, meshBox, sharedMesh, type TriangleMesh } from "../mesh/mesh.ts";
import { type HiddenStretch, hiddenStretches } from "../parting/bothSides.ts";
import { cutSections, inOrder, lineLengthMm, type PartingLine } from "../parting/cut.ts";
import { sectionsForPulls } from "../parting/givenPulls.ts";
import type { FillWith, Layout } from "../parting/hand/layout.ts";
import { type Trouble, troubleInWords } from "../parting/hand/sections.ts";
import { deepMm3Of } from "../parting/offer.ts";
import { plugHosts } from "../parting/plugs.ts";
import type { PartingPrices } from "../parting/price.ts";
import { meshNeighbours } from "../parting/regions.ts";
import { type SearchEffort, type SuggestRequest, type SurveyTable, surveyPulls, THOROUGH } from "../parting/request.ts";
import { labelsOf } from "../parting/sections.ts";
import { PlanSearch } from "../parting/suggest.ts";
import type { Suggestion } from "../parting/trial.ts";
import type { Cells } from "../release/cells.ts";
import { thickestFillMm } from "../release/fillThickness.ts";
import { type Block, findBlocks, orderOf } from "../release/order.ts";
import { depthField } from "../survey/depth.ts";
import type { Direction } from "../survey/directions.ts";
import { vertexNormals } from "../survey/survey.ts";
import { type Dabs, withinZone } from "../survey/zones.ts";
import { SECTION_COUNTS, type SectionCount } from "./document.ts";
import {
  type FreedSections,
  FreeingMemory,
  type FreeRequest,
  freeSections,
  lockedAlike,
  lockedBare,
  type Round,
  tooDeep,
} from "./freeing.ts";
import { boardOf, drawnOut, type LaidOut, laidByHand, linesOn, runOn } from "./laidOut.ts";

/** What a survey found; the pulls are surveyed when they are first asked for. */
export class SurveyStage {
  private surveyed: SurveyTable | null = null;
  private about: NearestField | null = null;
  /** Of the plans measured before on this jacket. */
  readonly memory = new FreeingMemory();
  private searching: { readonly prices: string; readonly search: PlanSearch } | null = null;

  constructor(readonly request: SuggestRequest) {}

  table(ctx: JobContext): SurveyTable {
    this.surveyed ??= surveyPulls(this.request, ctx);
    return this.surveyed;
  }

  /** The search for plans at some prices: what it found for one question serves the next. */
  search(prices: PartingPrices, ctx: JobContext): PlanSearch {
    const key = JSON.stringify(prices);
    if (this.searching?.prices !== key) {
      const search = new PlanSearch(this.request, this.table(ctx), prices, ctx);
      this.searching = { prices: key, search };
    }
    return this.searching.search;
  }

  /** The places nearest the jacket that was surveyed. */
  nearest(jacket: Jacket, ctx: JobContext): NearestField {
    this.about ??= NearestField.about(jacket.mesh, 2 * jacket.request.stepMm, ctx);
    return this.about;
  }
}

export interface PlannedSection {
  readonly number: number;
  /** Its place among the user's pulls, or the sections laid by hand, that it was made from; of a suggested plan, its own. */
  readonly origin: number;
  readonly pull: Direction;
  readonly areaMm2: number;
  readonly lockMm3: number;
  readonly fillMm3: number;
  readonly fillWith: FillWith;
  /** Number of the section that it is a plug under; null for any other. */
  readonly plugUnder: number | null;
  /** The thickest of its fill; settled plans only. */
  readonly fillThickMm: number;
  readonly openMm3: number;
  readonly deepestMm: number;
  readonly lockAt: readonly [number, number, number] | null;
  readonly releases: boolean;
  readonly skin: TriangleMesh;
  /** Points in the lock, see `SectionLock.points`. */
  readonly lockPoints: Float32Array;
  /** Length of parting line along this section, mm. */
  readonly lineMm: number;
}

export interface Sections {
  /** In the order they are built; taken apart the other way round. */
  readonly sections: readonly PlannedSection[];
  /** Which section, by number, stands in the way of which. */
  readonly blocks: readonly Block[];
  /** Numbers of sections that block each other in a circle. */
  readonly circle: readonly number[];
  /** Each with the section on its left first, then the one on its right, seen from outside; counted from 0. */
  readonly lines: readonly PartingLine[];
  /** The same lines as they run on the jacket before any fill: what is taken in hand. */
  readonly drawn: readonly PartingLine[];
  readonly partingLengthMm: number;
  /** Stretches of line, by numbers of sections, that one of their two sections' pulls does not see; settled plans only. */
  readonly hidden: readonly HiddenStretch[];
  readonly filled: TriangleMesh;
  /** The places nearest the jacket before any fill. */
  readonly bare: NearestField;
  /** Cells of the filled jacket, and the cell of each section. */
  readonly cells: Cells;
  readonly cellOf: readonly number[];
  /** The survey's mesh, and the section of each of its vertices, counted from 0. */
  readonly surveyMesh: TriangleMesh;
  readonly surveyNearest: NearestField;
  /** Its typical edge. */
  readonly surveyEdgeMm: number;
  readonly surveyLabel: Uint8Array;
  readonly fillMm3: number;
  /** Of it, filled with clay. */
  readonly clayMm3: number;
  /** Sections laid by hand, by their place in the layout, that are not one whole piece. */
  readonly troubles: readonly Trouble[];
  readonly warnings: readonly string[];
}

/** The coarse mesh the survey works on. */
function coarseMesh(jacket: Jacket, vertices: number, ctx: JobContext): TriangleMesh {
  const wanted = Math.sqrt((1.4 * jacket.outerAreaMm2) / vertices);
  const factor = Math.max(1, Math.min(6, Math.round(wanted / jacket.request.stepMm)));
  const coarse = coarsen(jacket.grid, jacket.phi, factor);
  const mesh = isosurface(coarse.grid, coarse.values, 0, ctx);
  return sharedMesh(jacket.request.onBoard ? clipAbove(mesh, 0) : mesh, ctx.team);
}

export function surveyRequestFor(
  jacket: Jacket,
  fillDepthMm: number,
  draftDeg: number,
  keepClear: Dabs,
  ctx: JobContext,
  effort: SearchEffort = THOROUGH,
): SuggestRequest {
  const coarse = coarseMesh(jacket, effort.vertices, ctx);
  const meanEdge = Math.sqrt((2 * jacket.outerAreaMm2) / Math.max(1, coarse.triangles.length / 3));
  const overMm = jacket.thicknessMm + 0.5 * jacket.request.stepMm;
  const spacingMm = Math.max(jacket.request.stepMm, meanEdge);
  return {
    coarse,
    depth: depthField(coarse),
    nearest: NearestField.about(coarse, 2 * spacingMm, ctx),
    clear: keepClear.length > 0 ? withinZone(keepClear, coarse.positions, vertexNormals(coarse).normals, overMm) : null,
    fillDepthMm,
    draftDeg,
    boardMm: boardOf(jacket),
    spacingMm,
    effort,
  };
}

export interface SectionsRequest {
  readonly layout: Layout | null;
  readonly pulls: readonly Direction[] | null;
  readonly sections: "auto" | SectionCount;
  readonly fillDepthMm: number;
  readonly shellMm: number;
  readonly prices: PartingPrices;
}

export function planSections(jacket: Jacket, survey: SurveyStage, request: SectionsRequest, ctx: JobContext): Sections {
  const { layout, fillDepthMm, shellMm } = request;
  const { fillRounds: rounds } = survey.request.effort;
  const nearest = survey.nearest(jacket, ctx);
  // From one suggestion to the next all lines differ; from one edit by hand to the next few do.
  const memory = layout && survey.memory;
  const asked = ({ pulls, potentials, fillWith }: LaidOut): FreeRequest => {
    const open = fillWith.map((wanted) => wanted === "open");
    return { jacket, nearest, pulls, potentials, fillDepthMm, open, shellMm, rounds, memory };
  };
  const made = ({ laid, freed }: Proven) => assemble(freed, laid, shellMm, jacket, nearest, survey.request, ctx);
  if (layout) {
    const laid = laidByHand(layout, jacket, nearest, survey.request);
    return made({ laid, freed: freeSections(asked(laid), ctx) });
  }
  const plan = made(provenOf(candidates(survey, request, ctx), survey.request, jacket, nearest, asked, ctx));
  if (request.pulls) return plan;
  return { ...plan, sections: plan.sections.map((section, k) => ({ ...section, origin: k })) };
}

interface Proven {
  readonly laid: LaidOut;
  readonly freed: FreedSections;
}

/**
 * The first suggestion that is proven to come off, for the survey that priced it had only guessed; else the one that is
 * held least.
 */
function provenOf(
  suggestions: Iterable<Suggestion>,
  survey: SuggestRequest,
  jacket: Jacket,
  nearest: NearestField,
  asked: (laid: LaidOut) => FreeRequest,
  ctx: JobContext,
): Proven {
  const { careful, order } = survey.effort;
  const prove = (laid: LaidOut, bare: Round): Proven => ({ laid, freed: freeSections(asked(laid), ctx, bare) });
  const putOff: { readonly laid: LaidOut; readonly bare: Round }[] = [];
  let best: Proven | null = null;
  for (const suggestion of suggestions) {
    const kept = drawnOut(suggestion, jacket, survey);
    let locked: Round | null = null;
    // Lines run on as a hand would; where that locks, they keep to the horizons.
    for (const lay of order ? [() => runOn(kept, jacket, nearest, survey), () => kept] : [() => kept]) {
      const laid = lay();
      const bare = lockedBare(asked(laid), ctx);
      if (careful && (tooDeep(bare) || (locked && lockedAlike(locked, bare)))) {
        putOff.push({ laid, bare });
        continue;
      }
      const proven = prove(laid, bare);
      if (holdingMm3(proven.freed) === 0) return proven;
      best = lessHeld(best, proven);
      locked = bare;
    }
    if (!careful) break;
  }
  for (const { laid, bare } of putOff) best = lessHeld(best, prove(laid, bare));
  if (!best) throw new Error("There was no plan to choose from.");
  return best;
}

function lessHeld(best: Proven | null, other: Proven): Proven {
  return best && holdingMm3(best.freed) <= holdingMm3(other.freed) ? best : other;
}

function holdingMm3(freed: FreedSections): number {
  return freed.last.reduce((sum, lock) => sum + lock.holdingMm3, 0);
}

/** The plans to prove, cheapest first, each with its lines drawn tight when its turn comes. */
function* candidates(survey: SurveyStage, request: SectionsRequest, ctx: JobContext): Generator<Suggestion> {
  const { pulls, sections, prices } = request;
  if (pulls) {
    yield sectionsForPulls(survey.request, pulls, prices, ctx);
    return;
  }
  const search = survey.search(prices, ctx);
  const { careful, counts } = survey.request.effort;
  const drawn = (plan: Suggestion) => (careful ? search.tightened(plan) : plan);
  if (sections !== "auto") {
    yield drawn(search.exactly(sections, ctx));
    return;
  }
  // Those the survey finds free come first: to prove one that locks costs as much time as to prove one that does not.
  const found = everyCount(search, SECTION_COUNTS.slice(0, counts), prices, ctx)
    .map((plan) => ({ plan, locks: deepMm3Of(survey.request, plan) > 0, price: planPrice(plan, prices) }))
    .sort((a, b) => Number(a.locks) - Number(b.locks) || a.price - b.price);
  for (const { plan } of found) yield drawn(plan);
}

/** Plans of two sections, three and so on, until one more gains nothing. */
function everyCount(
  search: PlanSearch,
  counts: readonly SectionCount[],
  prices: PartingPrices,
  ctx: JobContext,
): Suggestion[] {
  const found: Suggestion[] = [];
  for (const count of counts) {
    ctx.progress("parting", (0.5 * found.length) / counts.length);
    const plan = search.best(count, ctx);
    const gained = found.every((other) => planPrice(plan, prices) < planPrice(other, prices));
    // With one more allowed the best may be the one before: it is not proven twice.
    if (!found.includes(plan)) found.push(plan);
    if (!gained) break;
  }
  return found;
}

function planPrice(suggestion: Suggestion, prices: PartingPrices): number {
  const { energy, handling, pulls } = suggestion;
  return energy + handling + pulls.length * (prices.setupPerSection + prices.waitPerSection);
}

/** Sections whose middles differ by less than this share of the piece's height are as high as each other. */
const AS_HIGH = 0.04;

/** From the lowest up; those as high as each other in the order they were given, so that an edit does not renumber them. */
function lowestFirst(sections: readonly number[], heightOf: (section: number) => number, asHighMm: number): number[] {
  const left = sections.map((section) => ({ section, height: heightOf(section) }));
  const out: number[] = [];
  while (left.length > 0) {
    const least = Math.min(...left.map(({ height }) => height));
    const [next] = left.splice(
      left.findIndex(({ height }) => height <= least + asHighMm),
      1,
    );
    out.push(next.section);
  }
  return out;
}

/** Numbers the sections in the order they are built: from the lowest up, and what blocks another after it. */
function assemble(
  freed: FreedSections,
  laid: LaidOut,
  shellMm: number,
  jacket: Jacket,
  bareNearest: NearestField,
  { coarse, nearest: surveyNearest, spacingMm, effort: { order: ordered } }: SuggestRequest,
  ctx: JobContext,
): Sections {
  const { pulls, label: surveyLabel, troubles } = laid;
  const { mesh, potentials, locks, last, nearest, fillsMm3 } = freed;
  const { stepMm } = jacket.request;
  const warnings: string[] = [];
  const label = labelsOf(potentials);
  const lowest = lowestFirst(
    pulls.map((_, s) => s).filter((s) => label.includes(s)),
    (s) => meanHeight(mesh, label, s),
    AS_HIGH * boxSize(meshBox(mesh))[2],
  );
  let cut = cutSections(
    mesh,
    lowest.map((s) => potentials[s]),
  );
  const hosts = plugHosts(coarse, surveyLabel, meshNeighbours(coarse), pulls.length, boardOf(jacket), spacingMm);
  let blocks = !ordered
    ? []
    : findBlocks(
        {
          skins: cut.skins,
          pulls: lowest.map((s) => pulls[s]),
          cells: freed.cells.data,
          sectionOf: pulls.map((_, cell) => lowest.indexOf(cell)),
          shellMm,
          stepMm,
          boardMm: boardOf(jacket),
        },
        ctx,
      );
  const withPlugs = orderOf(lowest.length, [...blocks, ...plugsLast(hosts, lowest, blocks)]);
  const { build, circle } = withPlugs.circle.length > 0 ? orderOf(lowest.length, blocks) : withPlugs;
  const order = build.map((k) => lowest[k]);
  if (build.some((k, n) => k !== n)) {
    cut = inOrder(cut, build);
    blocks = blocks.map((block) => ({ ...block, section: build.indexOf(block.section), by: build.indexOf(block.by) }));
  }
  if (circle.length > 0)
    warnings.push(
      circleWarning(
        circle.map((k) => build.indexOf(k) + 1),
        blocks,
      ),
    );
  const lines = linesOn(
    mesh,
    nearest,
    cut,
    order.map((s) => potentials[s]),
    stepMm,
  );
  const bare = order.map((s) => laid.potentials[s]);
  const drawn = ordered ? linesOn(jacket.mesh, bareNearest, cutSections(jacket.mesh, bare), bare, stepMm) : lines;
  const seen = { mesh, nearest, pulls: order.map((s) => pulls[s]), stepMm };
  const hidden = ordered ? hiddenStretches(lines, seen) : [];
  if (order.length < pulls.length && troubles.length === 0)
    warnings.push("A pull won no part of the jacket and was left out.");
  const numberOf = (s: number | null) => (s === null ? null : order.indexOf(s) + 1);
  for (const trouble of troubles) warnings.push(troubleInWords(trouble, numberOf(trouble.section) || null));
  const sections = order.map((s, k): PlannedSection => {
    // What still holds it is told before what was filled.
    const lock = last[s].holdingMm3 > 0 ? last[s] : locks[s];
    return {
      number: k + 1,
      origin: s,
      pull: pulls[s],
      areaMm2: areaAndVolume(cut.skins[k]).areaMm2,
      lockMm3: locks[s].lockMm3,
      fillMm3: fillsMm3[s],
      fillWith: laid.fillWith[s],
      plugUnder: numberOf(hosts[s]),
      fillThickMm: ordered && fillsMm3[s] > 0 ? thickestFillMm(cut.skins[k], bareNearest, stepMm) : 0,
      openMm3: lock.openMm3,
      deepestMm: lock.deepestMm,
      lockAt: lock.at,
      releases: last[s].holdingMm3 === 0,
      skin: cut.skins[k],
      lockPoints: lock.points,
      lineMm: lines.filter((line) => line.sections.includes(k)).reduce((sum, line) => sum + lineLengthMm(line), 0),
    };
  });
  for (const section of sections) if (!section.releases) warnings.push(lockWarning(section));
  return {
    sections,
    blocks: blocks.map(({ section, by, at, afterMm }) => ({ section: section + 1, by: by + 1, at, afterMm })),
    circle: circle.map((k) => build.indexOf(k) + 1),
    lines,
    drawn,
    hidden: hidden.map(({ sections: [a, b], from, ...rest }) => ({
      sections: [a + 1, b + 1],
      from: from + 1,
      ...rest,
    })),
    filled: mesh,
    bare: bareNearest,
    surveyMesh: coarse,
    surveyNearest,
    surveyEdgeMm: spacingMm,
    surveyLabel: surveyLabel.map((s) => order.indexOf(s)),
    cells: freed.cells,
    cellOf: order,
    partingLengthMm: lines.reduce((sum, line) => sum + lineLengthMm(line), 0),
    fillMm3: sections.reduce((sum, section) => sum + section.fillMm3, 0),
    clayMm3: clayIn(sections),
    troubles,
    warnings,
  };
}

/** Plugs come out after the section over them, unless that one cannot leave before them. */
function plugsLast(
  hosts: readonly (number | null)[],
  order: readonly number[],
  blocks: readonly Block[],
): Pick<Block, "section" | "by">[] {
  return order.flatMap((s, section) => {
    const by = order.indexOf(hosts[s] ?? -1);
    return by < 0 || blocks.some((block) => block.section === by && block.by === section) ? [] : [{ section, by }];
  });
}

/** How much of the fills is clay, mm3. */
export function clayIn(sections: readonly Pick<PlannedSection, "fillMm3" | "fillWith">[]): number {
  return sections.reduce((sum, { fillMm3, fillWith }) => sum + (fillWith === "clay" ? fillMm3 : 0), 0);
}

function circleWarning(circle: readonly number[], blocks: readonly Block[]): string {
  const names = [...circle].sort((a, b) => a - b).join(", ");
  const at = blocks.find(({ section }) => circle.includes(section + 1))?.at.map((value) => Math.round(value));
  return `Sections ${names} block each other: none of them can leave first${at ? ` (they meet near ${at.join(", ")})` : ""}. Turn a pull, or part one of them.`;
}

function lockWarning(section: PlannedSection): string {
  const at = section.lockAt?.map((value) => Math.round(value)).join(", ") ?? "?";
  if (section.fillWith === "open")
    return `Section ${section.number} does not release: its locks are left open, ${Math.round(section.deepestMm)} mm deep near (${at}).`;
  return `Section ${section.number} does not release: a lock ${Math.round(section.deepestMm)} mm deep near (${at}). Turn its pull, add a section or allow a deeper fill.`;
}

function meanHeight(mesh: TriangleMesh, label: Uint8Array, section: number): number {
  let sum = 0;
  let count = 0;
  for (let v = 0; v < label.length; v++) {
    if (label[v] !== section) continue;
    sum += mesh.positions[3 * v + 2];
    count++;
  }
  return sum / Math.max(1, count);
}
