/**
 * What would free a locked section: turn its pull, fill deeper, part a plug where it holds. Each is tried on the jacket
 * itself, with the same proof as any plan, and only what truly frees the section is offered.
 */
import type { Jacket } from "../jacket/jacket.ts";
import type { JobContext } from "../job/context.ts";
import { siliconeMassG } from "../materials/silicone.ts";
import { withPull } from "../parting/hand/edit.ts";
import { type Layout, layoutOf, MOST_SECTIONS, takenInHand } from "../parting/hand/layout.ts";
import { vertexGraph } from "../parting/labelling.ts";
import { networkOf } from "../parting/network.ts";
import type { PullRange } from "../parting/pullRange.ts";
import { neighbours } from "../parting/regions.ts";
import { type Direction, dot } from "../survey/directions.ts";
import { vertexNormals } from "../survey/survey.ts";
import type { PlanDocument } from "./document.ts";
import type { PlannedSection, Sections } from "./sections.ts";

/** A change of the plan that frees a section; `parting` is what the document would hold. */
export interface Remedy {
  readonly kind: "turn" | "fill" | "plug";
  readonly parting: PlanDocument["parting"];
  /** How far the pull turns, degrees; 0 for the others. */
  readonly turnDeg: number;
  /** How deep is filled then, mm. */
  readonly fillDepthMm: number;
  /** More fill over the whole plan, g. */
  readonly moreFillG: number;
  /** More parting line, mm. */
  readonly moreLineMm: number;
  /** Do all sections release then? */
  readonly all: boolean;
}

/** Works out the sections of a plan with another parting. */
export type Trial = (parting: PlanDocument["parting"], ctx: JobContext) => Sections;

/** Fills are made deeper in steps, mm. */
const DEEPER_MM = 5;
const DEEPEST_MM = 300;
/** A plug reaches so many edges of the survey's mesh beyond the lock it takes. */
const PLUG_RINGS = 3;
/** Turns smaller than this are no remedy, degrees. */
const LEAST_TURN_DEG = 1;

/**
 * @param number of the section
 * @param range from where it could be pulled
 * @returns what frees it, the least costly in fill and line first
 */
export function remediesFor(
  document: PlanDocument,
  plan: Sections,
  number: number,
  range: PullRange,
  jacket: Jacket,
  trial: Trial,
  ctx: JobContext,
): Remedy[] {
  const section = plan.sections[number - 1];
  const layout = takenInHand(plan.drawn, plan.sections);
  const found: Remedy[] = [];
  const candidates = [
    turned(document, layout, section, range),
    deeper(document, layout, section),
    plugged(document, layout, plan, section, jacket),
  ];
  candidates.forEach((candidate, k) => {
    ctx.checkCancelled();
    ctx.progress("remedies", k / candidates.length);
    if (!candidate) return;
    const after = trial(candidate.parting, { ...ctx, progress: () => {} });
    const own = after.sections.find(({ origin }) => origin === number - 1);
    if (own && !own.releases) return;
    const locked = (sections: Sections) => sections.sections.filter(({ releases }) => !releases).length;
    if (locked(after) >= locked(plan)) return;
    found.push({
      ...candidate,
      moreFillG: siliconeMassG(after.fillMm3 - plan.fillMm3),
      moreLineMm: after.partingLengthMm - plan.partingLengthMm,
      all: locked(after) === 0 && after.circle.length === 0,
    });
  });
  return found.sort((a, b) => Number(b.all) - Number(a.all) || a.moreFillG + a.moreLineMm - b.moreFillG - b.moreLineMm);
}

type Candidate = Pick<Remedy, "kind" | "parting" | "turnDeg" | "fillDepthMm">;

function turned(
  { parting }: PlanDocument,
  layout: Layout,
  { number, pull }: PlannedSection,
  { best }: PullRange,
): Candidate | null {
  const turnDeg = degreesBetween(pull, best);
  if (turnDeg < LEAST_TURN_DEG) return null;
  const { fillDepthMm } = parting;
  return { kind: "turn", parting: { ...parting, layout: withPull(layout, number - 1, best) }, turnDeg, fillDepthMm };
}

export function degreesBetween(a: Direction, b: Direction): number {
  return (Math.acos(Math.max(-1, Math.min(1, dot(a, b)))) * 180) / Math.PI;
}

function deeper({ parting }: PlanDocument, layout: Layout, { deepestMm }: PlannedSection): Candidate | null {
  const fillDepthMm = DEEPER_MM * (Math.ceil(deepestMm / DEEPER_MM) + 1);
  if (fillDepthMm <= parting.fillDepthMm || fillDepthMm > DEEPEST_MM) return null;
  return { kind: "fill", parting: { ...parting, layout, fillDepthMm }, turnDeg: 0, fillDepthMm };
}

/** The patch about the lock parted as a section of its own, pulled the way it faces. */
function plugged(
  { parting }: PlanDocument,
  layout: Layout,
  plan: Sections,
  section: PlannedSection,
  { request }: Jacket,
): Candidate | null {
  const { surveyMesh: mesh, surveyLabel, surveyNearest } = plan;
  const fresh = layout.sections.length;
  if (fresh >= MOST_SECTIONS) return null;
  const near = neighbours(vertexGraph(mesh));
  const label = surveyLabel.slice();
  const own = section.number - 1;
  let front = verticesAbout(mesh.positions, section.lockPoints, 2 * plan.surveyEdgeMm).filter((v) => label[v] === own);
  for (let ring = 0; ring < PLUG_RINGS; ring++) {
    const next: number[] = [];
    for (const v of front) label[v] = fresh;
    for (const v of front) {
      for (let k = near.start[v]; k < near.start[v + 1]; k++) if (label[near.list[k]] === own) next.push(near.list[k]);
    }
    front = [...new Set(next)];
  }
  const members = [...label.keys()].filter((v) => label[v] === fresh);
  const left = label.reduce((sum, s) => sum + (s === own ? 1 : 0), 0);
  if (members.length < 12 || left < members.length) return null;
  const { normals, areasMm2 } = vertexNormals(mesh);
  const sum = [0, 0, 0];
  for (const v of members) for (let a = 0; a < 3; a++) sum[a] += areasMm2[v] * normals[3 * v + a];
  if (request.onBoard) sum[2] = Math.max(0, sum[2]);
  const length = Math.hypot(...sum);
  if (length < 1e-6) return null;
  const pull = sum.map((x) => x / length) as unknown as Direction;
  const pulls = [...layout.sections.map((held) => held.pull), pull];
  const lines = networkOf(mesh, label, near, surveyNearest);
  const { fillDepthMm } = parting;
  return { kind: "plug", parting: { ...parting, layout: layoutOf(lines, pulls) }, turnDeg: 0, fillDepthMm };
}

/** Vertices within a reach of the open points of a lock. */
function verticesAbout(p: Float32Array, points: Float32Array, reachMm: number): number[] {
  const open: number[] = [];
  for (let k = 0; k < points.length; k += 4) if (points[k + 3] > 0) open.push(points[k], points[k + 1], points[k + 2]);
  const out: number[] = [];
  for (let v = 0; v < p.length / 3; v++) {
    for (let k = 0; k < open.length; k += 3) {
      const away = (p[3 * v] - open[k]) ** 2 + (p[3 * v + 1] - open[k + 1]) ** 2 + (p[3 * v + 2] - open[k + 2]) ** 2;
      if (away > reachMm * reachMm) continue;
      out.push(v);
      break;
    }
  }
  return out;
}
