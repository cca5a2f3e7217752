/**
 * What would free a section that is held: turn its pull, fill what was left open, part a plug where it is held, move its
 * lines, split it in two; and for one that comes off by a fill, what would do with less of it. Each is tried on the jacket
 * itself, with the same proof as any plan, and only what truly frees the section, or truly saves fill, is offered.
 */
import type { JobContext } from "../../job/context.ts";
import { siliconeMassG } from "../../materials/silicone.ts";
import { facingOf, vertexNormals } from "../../mesh/normals.ts";
import { meshNeighbours } from "../../parting/graph/graph.ts";
import { plugPatch } from "../../parting/graph/plugPatch.ts";
import { treated, withPull } from "../../parting/layout/edit.ts";
import { type Layout, layoutOf, MOST_SECTIONS, takenInHand } from "../../parting/layout/layout.ts";
import { fairLine } from "../../parting/lines/fair.ts";
import { networkOf } from "../../parting/lines/network.ts";
import type { PullRange } from "../../parting/search/pullRange.ts";
import type { Cells } from "../../release/cells.ts";
import { type Direction, dot } from "../../space/directions.ts";
import type { PlanDocument } from "../document/document.ts";
import type { PlannedSection, ProvenParting } from "../proof/parting.ts";

export type RemedyKind = "turn" | "fill" | "plug" | "move" | "split";

/** A change of the plan that frees a section; `parting` is what the document would hold. */
export interface Remedy {
  readonly kind: RemedyKind;
  readonly parting: PlanDocument["parting"];
  /** How far the pull turns, degrees; 0 for the others. */
  readonly turnDeg: number;
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
export type Trial = (parting: PlanDocument["parting"], ctx: JobContext) => ProvenParting;

/** Layouts to try that a search has to lay. */
export interface Relaid {
  /** The same pulls, the lines between them where they cost least. */
  lines(layout: Layout): Layout;
  /** One section parted in two with pulls of their own, all others as they lie. */
  split(layout: Layout, section: number): Layout;
}

/** Turns smaller than this are no remedy, degrees. */
const LEAST_TURN_DEG = 1;
/** Less fill than this is not worth a change of the plan, mm3. */
const LEAST_FILL_MM3 = 5000;
/** What saves fill leaves no more of it than this share. */
const LESS_SHARE = 0.9;
/** Lines that move less than this stay, mm. */
const LEAST_MOVE_MM = 5;

/** A section that remedies are sought for, in the plan that it stands in. */
export interface RemedyRequest {
  readonly document: PlanDocument;
  readonly plan: ProvenParting;
  /** Number of the section. */
  readonly number: number;
  /** From where it could be pulled; worked out when it is asked for. */
  readonly range: () => PullRange;
  readonly relaid: Relaid;
  readonly trial: Trial;
}

/** The section with the lines and sections of its plan in hand: what every remedy begins from. */
interface Held {
  readonly parting: PlanDocument["parting"];
  readonly layout: Layout;
  readonly plan: ProvenParting;
  readonly section: PlannedSection;
}

/**
 * @param tell each remedy as it is found
 * @returns what frees it, or saves fill where it comes off, the least costly in fill and line first
 */
export function remediesFor(
  { document, plan, number, range, relaid, trial }: RemedyRequest,
  ctx: JobContext,
  tell: (remedy: Remedy) => void = () => {},
): Remedy[] {
  const section = plan.sections[number - 1];
  const held: Held = { parting: document.parting, layout: inHand(document, plan), plan, section };
  const found: Remedy[] = [];
  const freeing: (() => Candidate | null)[] = [
    () => turned(held, range()),
    () => filled(held),
    () => plugged(held),
    () => moved(held, relaid),
    () => split(held, relaid),
  ];
  if (section.releases && section.fillMm3 < LEAST_FILL_MM3) return found;
  freeing.forEach((candidateOf, k) => {
    ctx.checkCancelled();
    ctx.progress("remedies", k / freeing.length);
    const candidate = candidateOf();
    if (!candidate) return;
    const after = trial(candidate.parting, { ...ctx, progress: () => {} });
    const locked = (parting: ProvenParting) => parting.sections.filter(({ releases }) => !releases).length;
    if (section.releases) {
      if (locked(after) > locked(plan) || after.fillMm3 > LESS_SHARE * plan.fillMm3) return;
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
function inHand({ parting: { layout } }: PlanDocument, plan: ProvenParting): Layout {
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

type Candidate = Pick<Remedy, "kind" | "parting" | "turnDeg" | "moveMm">;

function candidate(
  kind: RemedyKind,
  parting: PlanDocument["parting"],
  { turnDeg = 0, moveMm = 0 }: Partial<Candidate> = {},
): Candidate {
  return { kind, parting, turnDeg, moveMm };
}

/** The same sections with their lines where they cost least. */
function moved({ parting, layout }: Held, relaid: Relaid): Candidate | null {
  const next = relaid.lines(layout);
  const moveMm = farthestMm(next, layout);
  return moveMm < LEAST_MOVE_MM ? null : candidate("move", { ...parting, layout: next }, { moveMm });
}

function split({ parting, layout, section: { number } }: Held, relaid: Relaid): Candidate | null {
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

function turned({ parting, layout, section: { number, pull } }: Held, { best }: PullRange): Candidate | null {
  const turnDeg = degreesBetween(pull, best);
  if (turnDeg < LEAST_TURN_DEG) return null;
  return candidate("turn", { ...parting, layout: withPull(layout, number - 1, best) }, { turnDeg });
}

export function degreesBetween(a: Direction, b: Direction): number {
  return (Math.acos(Math.max(-1, Math.min(1, dot(a, b)))) * 180) / Math.PI;
}

/** Filled where it was left open. */
function filled({ parting, layout, section: { number, fillWith } }: Held): Candidate | null {
  if (fillWith !== "open") return null;
  return candidate("fill", { ...parting, layout: treated(layout, number - 1, { fillWith: "silicone" }) });
}

/** A patch smaller than so many vertices is no section. */
const LEAST_PLUG_VERTICES = 12;

/** The patch that is held, or that is filled where nothing is, parted as a section of its own, pulled the way it faces. */
function plugged({ parting, layout, plan, section }: Held): Candidate | null {
  const fresh = layout.sections.length;
  if (fresh >= MOST_SECTIONS) return null;
  const own = section.number - 1;
  const label = labelledWithPlug(plan, section, fresh);
  const members = [...label.keys()].filter((v) => label[v] === fresh);
  const left = label.reduce((sum, s) => sum + (s === own ? 1 : 0), 0);
  if (members.length < LEAST_PLUG_VERTICES || left < members.length) return null;
  const pull = facingOf(vertexNormals(plan.surveyMesh), members);
  if (!pull) return null;
  const sections = [...layout.sections, { pull }];
  return candidate("plug", {
    ...parting,
    layout: { sections, lines: linesRoundPlug(plan, layout, label, own, fresh) },
  });
}

/** The sections of the survey's vertices, with the patch about what is held in a section as one of its own. */
function labelledWithPlug(plan: ProvenParting, section: PlannedSection, fresh: number): Uint8Array {
  const { surveyMesh: mesh, surveyLabel, surveyEdgeMm } = plan;
  const own = section.number - 1;
  const label = surveyLabel.slice();
  const held = section.releases
    ? verticesCovered(mesh.positions, plan.cells)
    : verticesAbout(mesh.positions, section.lockPoints, 2 * surveyEdgeMm);
  const { areasMm2 } = vertexNormals(mesh);
  const surface = { label, near: meshNeighbours(mesh), areasMm2, edgeMm: surveyEdgeMm };
  plugPatch(
    surface,
    held.filter((v) => label[v] === own),
    own,
    fresh,
  );
  return label;
}

/** The lines with the plug's own; where it lies within its section that is a ring, and no other line moves. */
function linesRoundPlug(plan: ProvenParting, layout: Layout, label: Uint8Array, own: number, fresh: number) {
  const { surveyMesh: mesh, surveyNearest: nearest, surveyEdgeMm } = plan;
  const near = meshNeighbours(mesh);
  const inside = label.every(
    (s, v) =>
      s !== fresh ||
      near.list.subarray(near.start[v], near.start[v + 1]).every((o) => label[o] === own || label[o] === fresh),
  );
  const parted = inside ? label.map((s) => (s === fresh ? 1 : 0)) : label;
  const numberOf = (s: number) => (inside ? [own, fresh][s] : s);
  const rings = networkOf(mesh, parted, near, nearest).map((line) => {
    const found = { ...line, points: Float32Array.from(line.points), sections: [0, 0] as const };
    const { points } = fairLine(found, surveyEdgeMm, nearest);
    return { ...line, points, left: numberOf(line.left), right: numberOf(line.right) };
  });
  const { lines } = layoutOf(rings, []);
  return inside ? [...layout.lines, ...lines] : lines;
}

/** Under a fill thicker than this a vertex is covered, mm. */
const COVERED_MM = 4;

/** Vertices of the jacket that lie under a fill. */
function verticesCovered(p: Float32Array, filled: Cells): number[] {
  const point = new Float64Array(3);
  return Array.from({ length: p.length / 3 }, (_, v) => v).filter((v) => {
    point.set(p.subarray(3 * v, 3 * v + 3));
    return filled.distance(point) > COVERED_MM;
  });
}

/** Vertices within a reach of places that bite, xyz and how deep, 4 per place. */
function verticesAbout(p: Float32Array, points: Float32Array, reachMm: number): number[] {
  const out: number[] = [];
  for (let v = 0; v < p.length / 3; v++) {
    for (let k = 0; k < points.length; k += 4) {
      const away =
        (p[3 * v] - points[k]) ** 2 + (p[3 * v + 1] - points[k + 1]) ** 2 + (p[3 * v + 2] - points[k + 2]) ** 2;
      if (away > reachMm * reachMm) continue;
      out.push(v);
      break;
    }
  }
  return out;
}
