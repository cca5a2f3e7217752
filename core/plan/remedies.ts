/**
 * What would free a locked section: turn its pull, fill deeper, part a plug where it holds, move its lines, split it in
 * two; and for one that is filled, a plug instead of the fill. Each is tried on the jacket itself, with the same proof as
 * any plan, and only what truly frees the section is offered.
 */
import type { Jacket } from "../jacket/jacket.ts";
import type { JobContext } from "../job/context.ts";
import { siliconeMassG } from "../materials/silicone.ts";
import { fairLine } from "../parting/fair.ts";
import { meshNeighbours } from "../parting/graph.ts";
import { treated, withPull } from "../parting/hand/edit.ts";
import { type Layout, layoutOf, MOST_SECTIONS, takenInHand } from "../parting/hand/layout.ts";
import { networkOf } from "../parting/network.ts";
import { plugPatch } from "../parting/plugPatch.ts";
import type { PullRange } from "../parting/pullRange.ts";
import { type Direction, dot } from "../survey/directions.ts";
import { vertexNormals } from "../survey/survey.ts";
import type { PlannedSection, Sections } from "./assemble.ts";
import type { PlanDocument } from "./document.ts";

export type RemedyKind = "turn" | "fill" | "plug" | "move" | "split";

/** A change of the plan that frees a section; `parting` is what the document would hold. */
export interface Remedy {
  readonly kind: RemedyKind;
  readonly parting: PlanDocument["parting"];
  /** How far the pull turns, degrees; 0 for the others. */
  readonly turnDeg: number;
  /** How deep is filled then, mm. */
  readonly fillDepthMm: number;
  /** How far the lines move at most, mm; 0 for the others. */
  readonly moveMm: number;
  /** More fill over the whole plan, g. */
  readonly moreFillG: number;
  /** More parting line, mm. */
  readonly moreLineMm: number;
  /** Do all sections release then? */
  readonly all: boolean;
}

/** Works out the sections of a plan with another parting. */
export type Trial = (parting: PlanDocument["parting"], ctx: JobContext) => Sections;

/** Layouts to try that a search has to lay. */
export interface Relaid {
  /** The same pulls, the lines between them where they cost least. */
  lines(layout: Layout): Layout;
  /** One section parted in two with pulls of their own, all others as they lie. */
  split(layout: Layout, section: number): Layout;
}

/** Fills are made deeper in steps, mm. */
const DEEPER_MM = 5;
const DEEPEST_MM = 300;
/** Turns smaller than this are no remedy, degrees. */
const LEAST_TURN_DEG = 1;
/** Lines that move less than this stay, mm. */
const LEAST_MOVE_MM = 5;

/**
 * @param number of the section
 * @param range from where it could be pulled
 * @param tell each remedy as it is found
 * @returns what frees it, the least costly in fill and line first
 */
export function remediesFor(
  document: PlanDocument,
  plan: Sections,
  number: number,
  range: () => PullRange,
  jacket: Jacket,
  relaid: Relaid,
  trial: Trial,
  ctx: JobContext,
  tell: (remedy: Remedy) => void = () => {},
): Remedy[] {
  const section = plan.sections[number - 1];
  const layout = inHand(document, plan);
  const found: Remedy[] = [];
  const freeing: (() => Candidate | null)[] = [
    () => turned(document, layout, section, range()),
    () => deeper(document, layout, section),
    () => plugged(document, layout, plan, section, jacket),
    () => moved(document, layout, relaid),
    () => split(document, layout, section, relaid),
  ];
  const candidates = section.releases ? [() => plugged(document, layout, plan, section, jacket)] : freeing;
  candidates.forEach((candidateOf, k) => {
    ctx.checkCancelled();
    ctx.progress("remedies", k / candidates.length);
    const candidate = candidateOf();
    if (!candidate) return;
    const after = trial(candidate.parting, { ...ctx, progress: () => {} });
    const locked = (sections: Sections) => sections.sections.filter(({ releases }) => !releases).length;
    if (section.releases) {
      if (locked(after) > locked(plan) || after.fillMm3 >= plan.fillMm3) return;
    } else {
      // A section that was split has no one heir.
      const own = candidate.kind === "split" ? null : after.sections.find(({ origin }) => origin === number - 1);
      if ((own && !own.releases) || locked(after) >= locked(plan)) return;
    }
    // A section in pieces is no section.
    if (after.troubles.length > plan.troubles.length) return;
    const remedy = {
      ...candidate,
      moreFillG: siliconeMassG(after.fillMm3 - plan.fillMm3),
      moreLineMm: after.partingLengthMm - plan.partingLengthMm,
      all: locked(after) === 0 && after.circle.length === 0,
    };
    found.push(remedy);
    tell(remedy);
  });
  return found.sort((a, b) => Number(b.all) - Number(a.all) || a.moreFillG + a.moreLineMm - b.moreFillG - b.moreLineMm);
}

/** The plan's lines in hand, its sections in its own order: as they were laid, where they were. */
function inHand({ parting: { layout } }: PlanDocument, plan: Sections): Layout {
  const placeOf = plan.sections.map(({ origin }) => origin);
  if (!layout || placeOf.length !== layout.sections.length) {
    const { lines, sections } = takenInHand(plan.drawn, plan.sections);
    return { lines, sections: sections.map(({ pull }, s) => ({ ...layout?.sections[placeOf[s]], pull })) };
  }
  const numbered = (s: number) => placeOf.indexOf(s);
  return {
    sections: placeOf.map((origin) => layout.sections[origin]),
    lines: layout.lines.map((line) => ({ ...line, left: numbered(line.left), right: numbered(line.right) })),
  };
}

type Candidate = Pick<Remedy, "kind" | "parting" | "turnDeg" | "fillDepthMm" | "moveMm">;

function candidate(
  kind: RemedyKind,
  parting: PlanDocument["parting"],
  { turnDeg = 0, moveMm = 0 }: Partial<Candidate> = {},
): Candidate {
  return { kind, parting, turnDeg, moveMm, fillDepthMm: parting.fillDepthMm };
}

/** The same sections with their lines where they cost least. */
function moved({ parting }: PlanDocument, layout: Layout, relaid: Relaid): Candidate | null {
  const next = relaid.lines(layout);
  const moveMm = farthestMm(next, layout);
  return moveMm < LEAST_MOVE_MM ? null : candidate("move", { ...parting, layout: next }, { moveMm });
}

function split(
  { parting }: PlanDocument,
  layout: Layout,
  { number }: PlannedSection,
  relaid: Relaid,
): Candidate | null {
  if (layout.sections.length >= MOST_SECTIONS) return null;
  return candidate("split", { ...parting, layout: relaid.split(layout, number - 1) });
}

/** How far any point of some lines lies from the points of others, mm. */
function farthestMm(from: Layout, to: Layout): number {
  const points = to.lines.flatMap(({ points }) => points);
  let farthest = 0;
  for (const line of from.lines) {
    for (let k = 0; k < line.points.length; k += 3) {
      let least = Infinity;
      for (let o = 0; o < points.length; o += 3) {
        const away =
          (line.points[k] - points[o]) ** 2 +
          (line.points[k + 1] - points[o + 1]) ** 2 +
          (line.points[k + 2] - points[o + 2]) ** 2;
        if (away < least) least = away;
      }
      farthest = Math.max(farthest, least);
    }
  }
  return Math.sqrt(farthest);
}

function turned(
  { parting }: PlanDocument,
  layout: Layout,
  { number, pull }: PlannedSection,
  { best }: PullRange,
): Candidate | null {
  const turnDeg = degreesBetween(pull, best);
  if (turnDeg < LEAST_TURN_DEG) return null;
  return candidate("turn", { ...parting, layout: withPull(layout, number - 1, best) }, { turnDeg });
}

export function degreesBetween(a: Direction, b: Direction): number {
  return (Math.acos(Math.max(-1, Math.min(1, dot(a, b)))) * 180) / Math.PI;
}

/** Filled as deep as it takes; as deep as fills go already where its locks were left open. */
function deeper(
  { parting }: PlanDocument,
  layout: Layout,
  { number, deepestMm, fillWith }: PlannedSection,
): Candidate | null {
  if (fillWith === "open") {
    return candidate("fill", { ...parting, layout: treated(layout, number - 1, { fillWith: "silicone" }) });
  }
  const fillDepthMm = DEEPER_MM * (Math.ceil(deepestMm / DEEPER_MM) + 1);
  if (fillDepthMm <= parting.fillDepthMm || fillDepthMm > DEEPEST_MM) return null;
  return candidate("fill", { ...parting, layout, fillDepthMm });
}

/** The patch about the lock parted as a section of its own, pulled the way it faces. */
function plugged(
  { parting }: PlanDocument,
  layout: Layout,
  plan: Sections,
  section: PlannedSection,
  { request }: Jacket,
): Candidate | null {
  const { surveyMesh: mesh, surveyLabel, surveyNearest, surveyEdgeMm } = plan;
  const fresh = layout.sections.length;
  if (fresh >= MOST_SECTIONS) return null;
  const near = meshNeighbours(mesh);
  const label = surveyLabel.slice();
  const own = section.number - 1;
  const held = verticesAbout(mesh.positions, section.lockPoints, 2 * surveyEdgeMm).filter((v) => label[v] === own);
  const { normals, areasMm2 } = vertexNormals(mesh);
  plugPatch({ label, near, areasMm2, edgeMm: surveyEdgeMm }, held, own, fresh);
  const members = [...label.keys()].filter((v) => label[v] === fresh);
  const left = label.reduce((sum, s) => sum + (s === own ? 1 : 0), 0);
  if (members.length < 12 || left < members.length) return null;
  const sum = [0, 0, 0];
  for (const v of members) for (let a = 0; a < 3; a++) sum[a] += areasMm2[v] * normals[3 * v + a];
  if (request.onBoard) sum[2] = Math.max(0, sum[2]);
  const length = Math.hypot(...sum);
  if (length < 1e-6) return null;
  const pull = sum.map((x) => x / length) as unknown as Direction;
  const inside = members.every((v) =>
    [...near.list.subarray(near.start[v], near.start[v + 1])].every((o) => label[o] === own || label[o] === fresh),
  );
  // A plug that lies within its section is a ring of its own, and no line moves.
  const parted = inside ? label.map((s) => (s === fresh ? 1 : 0)) : label;
  const numberOf = (s: number) => (inside ? [own, fresh][s] : s);
  const rings = networkOf(mesh, parted, near, surveyNearest).map((line) => ({
    ...line,
    points: fairLine({ ...line, points: Float32Array.from(line.points), sections: [0, 0] }, surveyEdgeMm, surveyNearest)
      .points,
    left: numberOf(line.left),
    right: numberOf(line.right),
  }));
  const { lines } = layoutOf(rings, []);
  const sections = [...layout.sections, { pull }];
  return candidate("plug", { ...parting, layout: { sections, lines: inside ? [...layout.lines, ...lines] : lines } });
}

/** Vertices within a reach of the open points of a lock; of all its points where none is open. */
function verticesAbout(p: Float32Array, points: Float32Array, reachMm: number): number[] {
  const open: number[] = [];
  const some = points.some((depth, k) => k % 4 === 3 && depth > 0);
  for (let k = 0; k < points.length; k += 4) {
    if (points[k + 3] > 0 || !some) open.push(points[k], points[k + 1], points[k + 2]);
  }
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
