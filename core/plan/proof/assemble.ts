/** Freed sections as they are built: in their order, with their skins, lines, fills and what holds them. */

import type { NearestField } from "../../field/nearest.ts";
import { alongBoard } from "../../foot/along.ts";
import type { Jacket } from "../../jacket/jacket.ts";
import type { JobContext } from "../../job/context.ts";
import { curvatureSums } from "../../mesh/curvature.ts";
import { areaAndVolume } from "../../mesh/mesh.ts";
import { vertexNeighbours } from "../../mesh/vertexNeighbours.ts";
import { meshNeighbours } from "../../parting/graph/graph.ts";
import type { FillWith } from "../../parting/layout/layout.ts";
import { troubleInWords } from "../../parting/layout/sections.ts";
import { hiddenStretches } from "../../parting/lines/bothSides.ts";
import { cutSections, lineLengthMm } from "../../parting/lines/cut.ts";
import { labelsOf, withoutIslands } from "../../parting/lines/sections.ts";
import { plugHosts } from "../../parting/search/plugs.ts";
import type { SuggestRequest } from "../../parting/search/request.ts";
import { FILL_KINDS, type FillKind, type FillPart, fillsOf } from "../../release/fills.ts";
import { thickestFillMm } from "../../release/fillThickness.ts";
import { buildingOrder } from "./buildingOrder.ts";
import type { ProofRequest } from "./choosing.ts";
import type { FreedSections } from "./freeing.ts";
import { boardOf, type LaidOut, linesOn } from "./laidOut.ts";
import { notSilicone, type PlannedSection, type ProvenParting } from "./parting.ts";
import type { PlanWarning } from "./warning.ts";

/** What sections are assembled from. */
export interface Assembly {
  readonly freed: FreedSections;
  readonly laid: LaidOut;
  readonly request: ProofRequest;
  readonly jacket: Jacket;
  /** The places nearest the jacket before any fill. */
  readonly nearest: NearestField;
  readonly survey: SuggestRequest;
}

/** The sections numbered in the order they are built, and all that is told of them. */
export function assemble(assembly: Assembly, ctx: JobContext): ProvenParting {
  const { freed, laid, request, jacket, nearest: bare, survey } = assembly;
  const { pulls, troubles, fillWith } = laid;
  const { mesh, potentials } = freed;
  const [nearest, cells] = [freed.nearest(), freed.cells()];
  const { coarse, spacingMm } = survey;
  const settled = survey.effort.order;
  const { giveMm, shellMm } = request;
  const { stepMm } = jacket.request;
  const surveyLabel = labelsOf(cells.carried(coarse));
  const hosts = plugHosts(coarse, surveyLabel, meshNeighbours(coarse), pulls.length, boardOf(jacket), spacingMm);
  const built = buildingOrder({ freed, pulls, hosts, jacket, shellMm, blocked: settled }, ctx);
  const { order, cut, travels, blocks, circle } = built;
  const numberOf = (s: number | null) => (s === null ? null : order.indexOf(s) + 1);
  const inOrder = order.map((s) => potentials[s]);
  const lines = linesOn(mesh, nearest, cut, inOrder, stepMm);
  const drawn = settled ? drawnOnBare(assembly, order) : lines;
  const seen = { mesh, nearest, pulls: order.map((s) => pulls[s]), stepMm };
  const hidden = settled ? hiddenStretches(lines, seen) : [];
  const fills = fillsOfSections(assembly);
  const foot = jacket.request.onBoard && settled ? alongBoard(cut.skins, 0, stepMm) : null;
  const sections = order.map((s, k): PlannedSection => {
    const bite = freed.bites[s];
    return {
      number: k + 1,
      origin: s,
      pull: pulls[s],
      areaMm2: areaAndVolume(cut.skins[k]).areaMm2,
      bends: curvatureSums(cut.skins[k]),
      fillMm3: FILL_KINDS.reduce((sum, kind) => sum + fills.under[s][kind], 0),
      fills: fills.under[s],
      fillWith: fillWith[s],
      plugUnder: numberOf(hosts[s]),
      fillThickMm: settled && fills.totalMm3 > 0 ? thickestFillMm(cut.skins[k], bare, stepMm) : 0,
      biteMm: bite.biteMm,
      biteAt: bite.at,
      ...travels[k],
      releases: bite.biteMm <= giveMm,
      skin: cut.skins[k],
      lockPoints: deeperThan(bite.points, giveMm),
      footMm: foot?.lengthsMm[k] ?? 0,
      footAreasMm2: foot?.areasMm2[k] ?? [],
      lineMm: lines.filter((line) => line.sections.includes(k)).reduce((sum, line) => sum + lineLengthMm(line), 0),
    };
  });
  const warnings: PlanWarning[] = [];
  if (circle.length > 0)
    warnings.push({
      kind: "circle",
      sections: circle.map((k) => k + 1),
      at: blocks.find(({ section }) => circle.includes(section))?.at ?? null,
    });
  if (order.length < pulls.length && troubles.length === 0)
    warnings.push({ kind: "lines", text: "A pull won no part of the jacket and was left out." });
  for (const trouble of troubles)
    warnings.push({ kind: "lines", text: troubleInWords(trouble, numberOf(trouble.section) || null) });
  for (const { number, releases, biteMm, biteAt } of sections)
    if (!releases) warnings.push({ kind: "held", section: number, biteMm, at: biteAt });
  return {
    sections,
    blocks: blocks.map((block) => ({ ...block, section: block.section + 1, by: block.by + 1 })),
    circle: circle.map((k) => k + 1),
    lines,
    drawn,
    hidden: hidden.map(({ sections: [a, b], from, ...rest }) => ({
      sections: [a + 1, b + 1],
      from: from + 1,
      ...rest,
    })),
    giveMm,
    filled: mesh,
    body: freed.body,
    filledNearest: nearest,
    filledLabel: labelsOf(potentials).map((s) => order.indexOf(s)),
    bare,
    surveyMesh: coarse,
    surveyNearest: survey.nearest,
    surveyEdgeMm: spacingMm,
    surveyLabel: surveyLabel.map((s) => order.indexOf(s)),
    cells,
    cellOf: order,
    partingLengthMm: lines.reduce((sum, line) => sum + lineLengthMm(line), 0),
    fillMm3: sections.reduce((sum, section) => sum + section.fillMm3, 0),
    ...notSilicone(sections),
    fillParts: fills.parts.map(({ bySection, ...part }) => ({ ...part, bySection: order.map((s) => bySection[s]) })),
    fillKindAt: fills.kindAt,
    troubles,
    warnings,
  };
}

/**
 * The lines as they run on the jacket before any fill. Where a section is one piece only by way of a fill, its largest
 * patch of the bare jacket stays, so that lines taken in hand part it as they stand.
 */
function drawnOnBare({ freed, jacket, nearest }: Assembly, order: readonly number[]) {
  const bare = freed.cells().carried(jacket.mesh);
  const inOrder = withoutIslands(
    order.map((s) => bare[s]),
    vertexNeighbours(jacket.mesh),
  );
  return linesOn(jacket.mesh, nearest, cutSections(jacket.mesh, inOrder), inOrder, jacket.request.stepMm);
}

/** The fills part by part, and what of them lies under each section, by its place among the pulls, mm3. */
function fillsOfSections({ freed, laid, jacket, request: { mostSiliconeMm, fills: choices } }: Assembly) {
  const totalMm3 = Math.max(0, areaAndVolume(freed.mesh).volumeMm3 - areaAndVolume(jacket.mesh).volumeMm3);
  const { parts, kindAt } = fillsOf({
    ...{ filled: freed.body, bare: jacket, cells: freed.cells(), sections: laid.pulls.length },
    ...{ totalMm3, mostSiliconeMm, choices },
  });
  const under = laid.pulls.map((_, s) => {
    const sums = { silicone: 0, clay: 0, web: 0, plug: 0 };
    for (const part of parts) sums[kindUnder(part, laid.fillWith[s])] += part.bySection[s];
    return sums;
  });
  return { totalMm3, parts, kindAt, under };
}

/** Of places xyz and how deep they bite, 4 per place, those that bite deeper than the give. */
function deeperThan(points: Float32Array, giveMm: number): Float32Array {
  const out: number[] = [];
  for (let k = 0; k < points.length; k += 4) if (points[k + 3] > giveMm) out.push(...points.subarray(k, k + 4));
  return Float32Array.from(out);
}

/** What a part of the fills is made of under a section whose fills were chosen to be clay. */
function kindUnder({ kind, chosen }: FillPart, fillWith: FillWith): FillKind {
  return fillWith === "clay" && kind === "silicone" && !chosen ? "clay" : kind;
}
