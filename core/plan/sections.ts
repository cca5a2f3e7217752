/** From a jacket to sections: suggest or take pulls, label, measure locks, fill them, cut the filled jacket. */
import { coarsen } from "../field/coarsen.ts";
import { isosurface } from "../field/isosurface.ts";
import { NearestField } from "../field/nearest.ts";
import type { Jacket } from "../jacket/jacket.ts";
import type { JobContext } from "../job/context.ts";
import { clipAbove } from "../mesh/clip.ts";
import { areaAndVolume, type TriangleMesh } from "../mesh/mesh.ts";
import { type CutResult, cutSections, lineLengthMm, type PartingLine } from "../parting/cut.ts";
import { fairLine } from "../parting/fair.ts";
import { labelsOf, sectionPotentials } from "../parting/sections.ts";
import {
  type SuggestRequest,
  type Suggestion,
  type SurveyCrew,
  type SurveyTable,
  sectionsForPulls,
  suggestSections,
  surveyPulls,
  type SearchEffort,
  THOROUGH,
} from "../parting/suggest.ts";
import { fillField } from "../release/fill.ts";
import { Cells, measureLock, type SectionLock } from "../release/locks.ts";
import { visitColumns } from "../survey/columns.ts";
import type { Direction } from "../survey/directions.ts";

/** A lock left after filling no deeper than this many steps is the grid's own roughness. */
const RESIDUE_STEPS = 2;

export interface SurveyStage {
  readonly request: SuggestRequest;
  readonly table: SurveyTable | null;
}

export interface PlannedSection {
  readonly number: number;
  readonly pull: Direction;
  readonly areaMm2: number;
  readonly lockMm3: number;
  readonly fillMm3: number;
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
  readonly sections: readonly PlannedSection[];
  readonly lines: readonly PartingLine[];
  readonly partingLengthMm: number;
  readonly filled: TriangleMesh;
  readonly fillMm3: number;
  readonly warnings: readonly string[];
}

/** The coarse mesh the survey works on. */
export function surveyMesh(jacket: Jacket, vertices: number, ctx: JobContext): TriangleMesh {
  const wanted = Math.sqrt((1.4 * jacket.outerAreaMm2) / vertices);
  const factor = Math.max(1, Math.min(6, Math.round(wanted / jacket.request.stepMm)));
  const coarse = coarsen(jacket.grid, jacket.phi, factor);
  const mesh = isosurface(coarse.grid, coarse.values, 0, ctx);
  return jacket.request.onBoard ? clipAbove(mesh, 0) : mesh;
}

export function surveyRequestFor(
  jacket: Jacket,
  fillDepthMm: number,
  draftDeg: number,
  ctx: JobContext,
  effort: SearchEffort = THOROUGH,
): SuggestRequest {
  const coarse = surveyMesh(jacket, effort.vertices, ctx);
  const meanEdge = Math.sqrt((2 * jacket.outerAreaMm2) / Math.max(1, coarse.triangles.length / 3));
  return {
    coarse,
    fillDepthMm,
    draftDeg,
    boardMm: jacket.request.onBoard ? 0 : null,
    spacingMm: Math.max(jacket.request.stepMm, 0.8 * meanEdge),
    effort,
  };
}

export async function surveyStage(request: SuggestRequest, crew: SurveyCrew, ctx: JobContext): Promise<SurveyTable> {
  return surveyPulls(request, crew, ctx);
}

export interface SectionsRequest {
  readonly pulls: readonly Direction[] | null;
  readonly sections: "auto" | 2 | 3;
  readonly fillDepthMm: number;
  readonly shellMm: number;
  /** What another section costs, in mm3 of fill: decides "auto". */
  readonly sectionWorthMm3: number;
}

export function planSections(jacket: Jacket, survey: SurveyStage, request: SectionsRequest, ctx: JobContext): Sections {
  const suggestion = choose(survey, request, ctx);
  const step = jacket.request.stepMm;
  const boardMm = jacket.request.onBoard ? 0 : null;
  ctx.progress("parting", 0.5);
  const coarseNearest = new NearestField(survey.request.coarse, 2 * step);
  const onJacket = potentialsOn(
    jacket.mesh,
    (x, y, z) => nearestLabel(survey.request.coarse, coarseNearest, suggestion.label, x, y, z),
    suggestion.pulls,
    step,
    boardMm,
  );
  ctx.checkCancelled();
  ctx.progress("parting", 0.65);
  const nearest = new NearestField(jacket.mesh, 2 * step);
  const cells = new Cells(jacket.mesh, nearest, onJacket);
  const locks = suggestion.pulls.map((pull, section) => {
    ctx.checkCancelled();
    return measureLock({
      jacket: jacket.mesh,
      cells,
      section,
      pull,
      spacingMm: step,
      boardMm,
      fillDepthMm: request.fillDepthMm,
      shellMm: request.shellMm,
    });
  });
  ctx.progress("parting", 0.8);
  if (locks.every((lock) => lock.columns.length === 0)) {
    return assemble(
      jacket.mesh,
      onJacket,
      suggestion.pulls,
      locks,
      locks.map((lock) => lock.openMm3 === 0),
      nearest,
      step,
    );
  }
  const swept = fillField(jacket.grid, jacket.phi, locks);
  const mesh = isosurface(swept.grid, swept.phi, 0, ctx);
  const filled = boardMm === null ? mesh : clipAbove(mesh, boardMm);
  const onFilled = potentialsOn(filled, (x, y, z) => cells.at(x, y, z), suggestion.pulls, step, boardMm);
  ctx.progress("parting", 0.9);
  const nearestFilled = new NearestField(filled, 2 * step);
  const filledCells = new Cells(filled, nearestFilled, onFilled);
  const releases = suggestion.pulls.map((pull, section) => {
    ctx.checkCancelled();
    const left = measureLock({
      jacket: filled,
      cells: filledCells,
      section,
      pull,
      spacingMm: step,
      boardMm,
      fillDepthMm: RESIDUE_STEPS * step,
      shellMm: request.shellMm,
    });
    return left.openMm3 === 0;
  });
  return assemble(filled, onFilled, suggestion.pulls, locks, releases, nearestFilled, step);
}

function choose(survey: SurveyStage, request: SectionsRequest, ctx: JobContext): Suggestion {
  if (request.pulls) return sectionsForPulls(survey.request, request.pulls);
  if (!survey.table) throw new Error("A suggestion needs a survey first.");
  if (request.sections !== "auto") return suggestSections(survey.request, survey.table, request.sections, ctx);
  const two = suggestSections(survey.request, survey.table, 2, ctx);
  const three = suggestSections(survey.request, survey.table, 3, ctx);
  return three.energy + request.sectionWorthMm3 < two.energy ? three : two;
}

function nearestLabel(
  mesh: TriangleMesh,
  nearest: NearestField,
  label: Uint8Array,
  x: number,
  y: number,
  z: number,
): number {
  const triangle = nearest.nearest(scratch, x, y, z);
  let best = 0;
  let least = Infinity;
  for (let c = 0; c < 3; c++) {
    const v = mesh.triangles[3 * triangle + c];
    const d =
      (mesh.positions[3 * v] - x) ** 2 + (mesh.positions[3 * v + 1] - y) ** 2 + (mesh.positions[3 * v + 2] - z) ** 2;
    if (d < least) {
      least = d;
      best = label[v];
    }
  }
  return best;
}

const scratch = new Float64Array(3);

function potentialsOn(
  mesh: TriangleMesh,
  labelAt: (x: number, y: number, z: number) => number,
  pulls: readonly Direction[],
  stepMm: number,
  boardMm: number | null,
): Float32Array[] {
  const p = mesh.positions;
  const label = Uint8Array.from({ length: p.length / 3 }, (_, v) => labelAt(p[3 * v], p[3 * v + 1], p[3 * v + 2]));
  const locked = pulls.map((pull) => lockedVertices(mesh, pull, stepMm, boardMm));
  return sectionPotentials(mesh, label, pulls, locked, stepMm);
}

/** 1 at the vertices at either end of a column deeper than the mesh's own roughness. */
function lockedVertices(mesh: TriangleMesh, pull: Direction, stepMm: number, boardMm: number | null): Uint8Array {
  const out = new Uint8Array(mesh.positions.length / 3);
  const t = mesh.triangles;
  visitColumns(mesh, pull, stepMm, boardMm, (_line, from, to, first, last) => {
    if (to - from < stepMm) return;
    for (let c = 0; c < 3; c++) {
      if (first >= 0) out[t[3 * first + c]] = 1;
      out[t[3 * last + c]] = 1;
    }
  });
  return out;
}

/** Numbers the sections from the lowest up, the order they are built in. */
function assemble(
  mesh: TriangleMesh,
  potentials: readonly Float32Array[],
  pulls: readonly Direction[],
  locks: readonly SectionLock[],
  releases: readonly boolean[],
  nearest: NearestField,
  stepMm: number,
): Sections {
  const warnings: string[] = [];
  const label = labelsOf(potentials);
  const order = pulls.map((_, s) => s).filter((s) => label.includes(s));
  const height = new Map(order.map((s) => [s, meanHeight(mesh, label, s)]));
  order.sort((a, b) => (height.get(a) ?? 0) - (height.get(b) ?? 0) || a - b);
  const cut: CutResult = cutSections(
    mesh,
    order.map((s) => potentials[s]),
  );
  const lines = cut.lines.map((line) => fairLine(line, stepMm, nearest));
  if (order.length < pulls.length) warnings.push("A pull won no part of the jacket and was left out.");
  const sections = order.map((s, k): PlannedSection => {
    const lock = locks[s];
    return {
      number: k + 1,
      pull: pulls[s],
      areaMm2: areaAndVolume(cut.skins[k]).areaMm2,
      lockMm3: lock.lockMm3,
      fillMm3: lock.fillMm3,
      openMm3: lock.openMm3,
      deepestMm: lock.deepestMm,
      lockAt: lock.at,
      releases: lock.openMm3 === 0 && releases[s],
      skin: cut.skins[k],
      lockPoints: lock.points,
      lineMm: lines.filter((line) => line.sections.includes(k)).reduce((sum, line) => sum + lineLengthMm(line), 0),
    };
  });
  for (const section of sections) if (!section.releases) warnings.push(lockWarning(section));
  return {
    sections,
    lines,
    filled: mesh,
    partingLengthMm: lines.reduce((sum, line) => sum + lineLengthMm(line), 0),
    fillMm3: sections.reduce((sum, section) => sum + section.fillMm3, 0),
    warnings,
  };
}

function lockWarning(section: PlannedSection): string {
  const at = section.lockAt?.map((value) => Math.round(value)).join(", ") ?? "?";
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
