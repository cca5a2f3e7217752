/** Freed sections as they are built: in their order, with their skins, lines and what holds them. */
import type { NearestField } from "../../field/nearest.ts";
import type { Jacket } from "../../jacket/jacket.ts";
import type { JobContext } from "../../job/context.ts";
import { areaAndVolume, boxSize, meshBox, type TriangleMesh } from "../../mesh/mesh.ts";
import { meshNeighbours } from "../../parting/graph/graph.ts";
import type { FillWith } from "../../parting/layout/layout.ts";
import { type Trouble, troubleInWords } from "../../parting/layout/sections.ts";
import { type HiddenStretch, hiddenStretches } from "../../parting/lines/bothSides.ts";
import { cutSections, inOrder, lineLengthMm, type PartingLine } from "../../parting/lines/cut.ts";
import { labelsOf } from "../../parting/lines/sections.ts";
import { plugHosts } from "../../parting/search/plugs.ts";
import type { SuggestRequest } from "../../parting/search/request.ts";
import { type Block, findBlocks } from "../../release/blocks.ts";
import type { Cells } from "../../release/cells.ts";
import { FILL_KINDS, type FillKind, type FillPart, fillsOf } from "../../release/fills.ts";
import { thickestFillMm } from "../../release/fillThickness.ts";
import { orderOf } from "../../release/order.ts";
import { travelOf } from "../../release/travel.ts";
import type { Direction } from "../../space/directions.ts";
import type { ProofRequest } from "./choosing.ts";
import type { FreedSections } from "./freeing.ts";
import { boardOf, type LaidOut, linesOn } from "./laidOut.ts";
import type { PlanWarning } from "./warning.ts";

export interface PlannedSection {
  readonly number: number;
  /** Its place among the user's pulls, or the sections laid by hand, that it was made from; of a suggested plan, its own. */
  readonly origin: number;
  readonly pull: Direction;
  readonly areaMm2: number;
  readonly fillMm3: number;
  readonly fillWith: FillWith;
  /** Number of the section that it is a plug under; null for any other. */
  readonly plugUnder: number | null;
  /** The thickest of its fill; settled plans only. */
  readonly fillThickMm: number;
  /** How deep it presses into the rubber on its way out at most, mm. */
  readonly biteMm: number;
  /** The place of its inner face that presses so deep; null where none does. */
  readonly biteAt: readonly [number, number, number] | null;
  /** How far it moves along its pull before it stands clear, mm; settled plans only. */
  readonly travelMm: number;
  /** Does it leave only after the piece, in its mould, has been lifted off the board or laid over? */
  readonly lifted: boolean;
  /** Its fills by what they are made of, mm3. */
  readonly fills: Readonly<Record<FillKind, number>>;
  readonly releases: boolean;
  readonly skin: TriangleMesh;
  /** Places that bite deeper than the give, xyz and how deep, mm, 4 per place. */
  readonly lockPoints: Float32Array;
  /** Length of parting line along this section, mm. */
  readonly lineMm: number;
}

export interface Sections {
  /** How deep a section may press into the rubber and still come off, mm. */
  readonly giveMm: number;
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
  /** Of it, hard plugs. */
  readonly plugMm3: number;
  /** The fills part by part, largest first; what of each lies under every section, in their order. */
  readonly fillParts: readonly FillPart[];
  /** What the fill at a place is made of; null where there is none. */
  readonly fillKindAt: (x: number, y: number, z: number) => FillKind | null;
  /** Sections laid by hand, by their place in the layout, that are not one whole piece. */
  readonly troubles: readonly Trouble[];
  readonly warnings: readonly PlanWarning[];
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
export function assemble(
  freed: FreedSections,
  laid: LaidOut,
  { shellMm, giveMm, mostSiliconeMm, fills: choices }: ProofRequest,
  jacket: Jacket,
  bareNearest: NearestField,
  { coarse, nearest: surveyNearest, spacingMm, effort: { order: ordered } }: SuggestRequest,
  ctx: JobContext,
): Sections {
  const { pulls, troubles } = laid;
  const { mesh, potentials, nearest, bites } = freed;
  const { stepMm } = jacket.request;
  const warnings: PlanWarning[] = [];
  const label = labelsOf(potentials);
  const lowest = lowestFirst(
    pulls.map((_, s) => s).filter((s) => label.includes(s)),
    (s) => meanHeight(mesh, label, s),
    AS_HIGH * boxSize(meshBox(mesh))[2],
  );
  let cut = cutSections(
    mesh,
    lowest.map((s) => potentials[s]),
    freed.ties,
  );
  const bare = freed.cells.carried(jacket.mesh);
  const surveyLabel = labelsOf(freed.cells.carried(coarse));
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
          boardMm: boardOf(jacket),
        },
        ctx,
      );
  const travels = cut.skins.map((skin, k) => travelOf(skin, pulls[lowest[k]], freed.body, shellMm));
  const lifted = travels.map((travel) => travel.lifted);
  const withPlugs = orderOf(lowest.length, [...blocks, ...plugsLast(hosts, lowest, blocks)], lifted);
  const { build, circle } = withPlugs.circle.length > 0 ? orderOf(lowest.length, blocks, lifted) : withPlugs;
  const order = build.map((k) => lowest[k]);
  if (build.some((k, n) => k !== n)) {
    cut = inOrder(cut, build);
    blocks = blocks.map((block) => ({ ...block, section: build.indexOf(block.section), by: build.indexOf(block.by) }));
  }
  if (circle.length > 0)
    warnings.push({
      kind: "circle",
      sections: circle.map((k) => build.indexOf(k) + 1),
      at: blocks.find(({ section }) => circle.includes(build[section]))?.at ?? null,
    });
  const lines = linesOn(
    mesh,
    nearest,
    cut,
    order.map((s) => potentials[s]),
    stepMm,
  );
  const bareInOrder = order.map((s) => bare[s]);
  const drawn = ordered
    ? linesOn(jacket.mesh, bareNearest, cutSections(jacket.mesh, bareInOrder), bareInOrder, stepMm)
    : lines;
  const seen = { mesh, nearest, pulls: order.map((s) => pulls[s]), stepMm };
  const hidden = ordered ? hiddenStretches(lines, seen) : [];
  if (order.length < pulls.length && troubles.length === 0)
    warnings.push({ kind: "lines", text: "A pull won no part of the jacket and was left out." });
  const numberOf = (s: number | null) => (s === null ? null : order.indexOf(s) + 1);
  for (const trouble of troubles)
    warnings.push({ kind: "lines", text: troubleInWords(trouble, numberOf(trouble.section) || null) });
  const totalMm3 = Math.max(0, areaAndVolume(mesh).volumeMm3 - areaAndVolume(jacket.mesh).volumeMm3);
  const { parts, kindAt } = fillsOf({
    ...{
      filled: freed.body,
      bare: jacket,
      cells: freed.cells,
      sections: pulls.length,
      totalMm3,
      mostSiliconeMm,
      choices,
    },
  });
  const fillUnder = (s: number) => {
    const sums = { silicone: 0, clay: 0, web: 0, plug: 0 };
    for (const part of parts) sums[kindUnder(part, laid.fillWith[s])] += part.bySection[s];
    return sums;
  };
  const sections = order.map((s, k): PlannedSection => {
    const fills = fillUnder(s);
    return {
      number: k + 1,
      origin: s,
      pull: pulls[s],
      areaMm2: areaAndVolume(cut.skins[k]).areaMm2,
      fillMm3: FILL_KINDS.reduce((sum, kind) => sum + fills[kind], 0),
      fills,
      fillWith: laid.fillWith[s],
      plugUnder: numberOf(hosts[s]),
      fillThickMm: ordered && totalMm3 > 0 ? thickestFillMm(cut.skins[k], bareNearest, stepMm) : 0,
      biteMm: bites[s].biteMm,
      biteAt: bites[s].at,
      ...travels[build[k]],
      releases: bites[s].biteMm <= giveMm,
      skin: cut.skins[k],
      lockPoints: deeperThan(bites[s].points, giveMm),
      lineMm: lines.filter((line) => line.sections.includes(k)).reduce((sum, line) => sum + lineLengthMm(line), 0),
    };
  });
  for (const { number, releases, biteMm, biteAt } of sections)
    if (!releases) warnings.push({ kind: "held", section: number, biteMm, at: biteAt });
  return {
    sections,
    blocks: blocks.map((block) => ({ ...block, section: block.section + 1, by: block.by + 1 })),
    circle: circle.map((k) => build.indexOf(k) + 1),
    lines,
    drawn,
    hidden: hidden.map(({ sections: [a, b], from, ...rest }) => ({
      sections: [a + 1, b + 1],
      from: from + 1,
      ...rest,
    })),
    giveMm,
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
    ...notSilicone(sections),
    fillParts: parts.map(({ bySection, ...part }) => ({ ...part, bySection: order.map((s) => bySection[s]) })),
    fillKindAt: kindAt,
    troubles,
    warnings,
  };
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

/** How much of the fills is clay, and how much hard plugs, mm3. */
export function notSilicone(sections: readonly Pick<PlannedSection, "fills">[]) {
  return {
    clayMm3: sections.reduce((sum, { fills }) => sum + fills.clay + fills.web, 0),
    plugMm3: sections.reduce((sum, { fills }) => sum + fills.plug, 0),
  };
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
