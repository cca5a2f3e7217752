/** Sections laid out on the jacket as it is before any fill: from a suggestion, or from lines laid by hand. */
import type { NearestField } from "../../field/nearest.ts";
import type { Jacket } from "../../jacket/jacket.ts";
import type { Team } from "../../job/team.ts";
import type { TriangleMesh } from "../../mesh/mesh.ts";
import { vertexNormals } from "../../mesh/normals.ts";
import { vertexNeighbours } from "../../mesh/vertexNeighbours.ts";
import { type FillWith, type Layout, networkOn } from "../../parting/layout/layout.ts";
import { potentialsOf } from "../../parting/layout/potentials.ts";
import { labelsOfLayout, type Trouble, troublesOf } from "../../parting/layout/sections.ts";
import { cornerAt, surfaceOn, vertexAt } from "../../parting/layout/surface.ts";
import { type CutResult, cutSections, lineLengthMm, type PartingLine } from "../../parting/lines/cut.ts";
import { drawnPotentials } from "../../parting/lines/drawn.ts";
import { fairLine, PASSED_SPACINGS, resample } from "../../parting/lines/fair.ts";
import { sidesOf } from "../../parting/lines/network.ts";
import { labelsOf, withoutIslands } from "../../parting/lines/sections.ts";
import type { SuggestRequest } from "../../parting/search/request.ts";
import type { Suggestion } from "../../parting/search/trial.ts";
import type { Direction } from "../../space/directions.ts";
import type { Places } from "./places.ts";

export interface LaidOut {
  readonly pulls: readonly Direction[];
  /** Section of each vertex of the survey's mesh. */
  readonly label: Uint8Array;
  /** Of each section on the vertices of the jacket. */
  readonly potentials: readonly Float32Array[];
  readonly fillWith: readonly FillWith[];
  readonly troubles: readonly Trouble[];
}

/** Height of the board, or null where the piece floats. */
export function boardOf({ request }: Jacket): number | null {
  return request.onBoard ? 0 : null;
}

export function drawnOut(
  { pulls, label }: Suggestion,
  jacket: Jacket,
  { coarse, nearest, clear }: SuggestRequest,
  team: Team,
): LaidOut {
  const p = jacket.mesh.positions;
  const triangles = nearest.trianglesAt(p, team);
  const labels = new Uint8Array(p.length / 3);
  const clearOf = clear && new Uint8Array(labels.length);
  for (let v = 0; v < labels.length; v++) {
    const under = cornerAt(coarse, triangles[v], p[3 * v], p[3 * v + 1], p[3 * v + 2]);
    labels[v] = label[under];
    if (clear && clearOf) clearOf[v] = clear[under];
  }
  const { stepMm } = jacket.request;
  const potentials = drawnPotentials(jacket.mesh, labels, clearOf, pulls, stepMm, boardOf(jacket));
  return { pulls, label, potentials, fillWith: pulls.map(() => "silicone"), troubles: [] };
}

/**
 * Waves in a suggested line that a hand would run straight across, mm: over a fold, not round a limb. The shorter ones
 * serve where the line would else run into a zone that is to be kept clear.
 */
const HAND_WAVES_MM = [110, 70, 45];
/** The same once all that would bite is filled: where a line then may not run straight is measured, and it stays there. */
const LONG_WAVES_MM = [240, 170, ...HAND_WAVES_MM];

/** A ring is no shorter than so many of the waves that are taken out of it: it would close in on itself. */
const RING_WAVES = 3;

/**
 * The same with its lines run on fairly, as a hand would, over the folds whose horizons they kept to.
 * @param stays places about which they stay as they are; null while it is not known what will bite
 */
export function runOn(
  laid: LaidOut,
  { mesh, request: { stepMm } }: Jacket,
  nearest: NearestField,
  survey: SuggestRequest,
  stays: Places | null = null,
): LaidOut {
  const { normals } = vertexNormals(mesh);
  const label = labelsOf(laid.potentials);
  const network = cutSections(mesh, laid.potentials).lines.map((found) => {
    const line = runClear(found, nearest, stepMm, survey, stays);
    const [left, right] = sidesOf(line, mesh, normals, label, nearest);
    return { points: Float64Array.from(line.points), closed: line.closed, left, right };
  });
  if (network.length === 0) return laid;
  const potentials = potentialsOf(mesh, network, laid.pulls.length, stepMm);
  return { ...laid, potentials: withoutIslands(potentials, vertexNeighbours(mesh)) };
}

/** A line with the longest waves taken out that leave it no more in the zones to keep clear than it was. */
function runClear(
  found: PartingLine,
  nearest: NearestField,
  stepMm: number,
  { coarse, nearest: about, clear }: SuggestRequest,
  stays: Places | null,
): PartingLine {
  const withinMm = (line: PartingLine) => {
    if (!clear) return 0;
    const points = resample(line, stepMm);
    let within = 0;
    for (let k = 0; k < points.length; k += 3) {
      within += clear[vertexAt({ mesh: coarse, nearest: about }, points[k], points[k + 1], points[k + 2])];
    }
    return within * stepMm;
  };
  const plain = fairLine(found, stepMm, nearest);
  const most = withinMm(plain) + stepMm;
  const longestMm = stays && found.closed ? lineLengthMm(plain) / RING_WAVES : Number.POSITIVE_INFINITY;
  for (const waveMm of stays ? LONG_WAVES_MM : HAND_WAVES_MM) {
    if (waveMm > longestMm) continue;
    // Points so far apart that the fairing lets waves pass from just that length on.
    const long = fairLine(found, waveMm / PASSED_SPACINGS, nearest, waveMm);
    const line = !stays || stays.none ? long : between(plain, long, stays, nearest);
    if (withinMm(line) <= most) return line;
  }
  return plain;
}

/**
 * A line that goes over from one to another the farther it is from some places. Both were made of one line and have
 * their points at even shares of its length.
 */
function between(from: PartingLine, to: PartingLine, stays: Places, nearest: NearestField): PartingLine {
  const points = Float32Array.from(from.points);
  const [count, others] = [from.points.length / 3, to.points.length / 3];
  const [legs, otherLegs] = from.closed ? [count, others] : [count - 1, others - 1];
  const place = new Float64Array(3);
  for (let k = 0; k < legs; k++) {
    const freedom = stays.freedom(from.points, k);
    if (freedom === 0 || (k === 0 && !from.closed)) continue;
    const at = (k / legs) * otherLegs;
    const leg = Math.floor(at);
    const next = (leg + 1) % others;
    const [x, y, z] = [0, 1, 2].map((a) => {
      const there = to.points[3 * leg + a] + (at - leg) * (to.points[3 * next + a] - to.points[3 * leg + a]);
      return points[3 * k + a] + freedom * (there - points[3 * k + a]);
    });
    nearest.nearest(place, x, y, z);
    points.set(place, 3 * k);
  }
  return { ...from, points };
}

export function laidByHand(layout: Layout, jacket: Jacket, nearest: NearestField, survey: SuggestRequest): LaidOut {
  const { mesh, request } = jacket;
  const surface = surfaceOn(survey.coarse, survey.nearest, survey.boardMm);
  const label = labelsOfLayout(surface, layout);
  const near = vertexNeighbours(mesh);
  const potentials = potentialsOf(mesh, networkOn(layout, nearest), layout.sections.length, request.stepMm);
  // Told on the jacket itself: where two lines run close by each other, the survey's coarse mesh tears what hangs together.
  const troubles = troublesOf({ near, areasMm2: vertexNormals(mesh).areasMm2 }, layout, labelsOf(potentials));
  return {
    pulls: layout.sections.map(({ pull }) => pull),
    label,
    potentials: withoutIslands(potentials, near),
    fillWith: layout.sections.map(({ fillWith }) => fillWith ?? "silicone"),
    troubles,
  };
}

/** A closed line no longer than this is about a single corner of the mesh, steps: nobody lays it. */
const SPECK_STEPS = 6;

/** The lines of a cut, fair, each with the section on its left first. */
export function linesOn(
  mesh: TriangleMesh,
  nearest: NearestField,
  cut: CutResult,
  potentials: readonly Float32Array[],
  stepMm: number,
): PartingLine[] {
  const { normals } = vertexNormals(mesh);
  const label = labelsOf(potentials);
  const laid = cut.lines.filter((line) => !line.closed || lineLengthMm(line) > SPECK_STEPS * stepMm);
  return laid.map((found) => {
    const line = fairLine(found, stepMm, nearest);
    return { ...line, sections: sidesOf(line, mesh, normals, label, nearest) };
  });
}
