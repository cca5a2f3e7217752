/** Freed sections as they are built: in their order, with their skins, lines and what holds them. */
import type { NearestField } from "../field/nearest.ts";
import type { Jacket } from "../jacket/jacket.ts";
import type { JobContext } from "../job/context.ts";
import { areaAndVolume, boxSize, meshBox, type TriangleMesh } from "../mesh/mesh.ts";
import { type HiddenStretch, hiddenStretches } from "../parting/bothSides.ts";
import { cutSections, inOrder, lineLengthMm, type PartingLine } from "../parting/cut.ts";
import { meshNeighbours } from "../parting/graph.ts";
import type { FillWith } from "../parting/hand/layout.ts";
import { type Trouble, troubleInWords } from "../parting/hand/sections.ts";
import { plugHosts } from "../parting/plugs.ts";
import type { SuggestRequest } from "../parting/request.ts";
import { labelsOf } from "../parting/sections.ts";
import type { Cells } from "../release/cells.ts";
import { thickestFillMm } from "../release/fillThickness.ts";
import { type Block, findBlocks, orderOf } from "../release/order.ts";
import type { Direction } from "../survey/directions.ts";
import type { FreedSections } from "./freeing.ts";
import { boardOf, type LaidOut, linesOn } from "./laidOut.ts";

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
