/**
 * The order that sections are built in, and taken apart in the other way round: from the lowest up, what blocks another
 * after it, plugs before the section over them.
 */
import type { Jacket } from "../../jacket/jacket.ts";
import type { JobContext } from "../../job/context.ts";
import { boxSize, meshBox, type TriangleMesh } from "../../mesh/mesh.ts";
import { type CutResult, cutSections, inOrder } from "../../parting/lines/cut.ts";
import { labelsOf } from "../../parting/lines/sections.ts";
import { type Block, findBlocks } from "../../release/blocks.ts";
import { orderOf } from "../../release/order.ts";
import { type Travel, travelOf } from "../../release/travel.ts";
import type { Direction } from "../../space/directions.ts";
import type { FreedSections } from "./freeing.ts";
import { boardOf } from "./laidOut.ts";

export interface OrderRequest {
  readonly freed: FreedSections;
  readonly pulls: readonly Direction[];
  /** Of each section, the one that it is a plug under. */
  readonly hosts: readonly (number | null)[];
  readonly jacket: Jacket;
  readonly shellMm: number;
  /** Is it worked out what stands in whose way? A hasty plan goes by height alone. */
  readonly blocked: boolean;
}

export interface BuildingOrder {
  /** The sections that won a part of the jacket, by their place among the pulls, first built first. */
  readonly order: readonly number[];
  /** The sections as they are cut, in this order; likewise all that follows. */
  readonly cut: CutResult;
  readonly travels: readonly Travel[];
  /** Places in this order, counted from 0. */
  readonly blocks: readonly Block[];
  /** Sections that block each other in a circle. */
  readonly circle: readonly number[];
}

/** @returns the order; where a circle blocks it, what it would be without the circle's blocks */
export function buildingOrder(
  { freed, pulls, hosts, jacket, shellMm, blocked }: OrderRequest,
  ctx: JobContext,
): BuildingOrder {
  const { mesh, potentials, body, cells, ties } = freed;
  const label = labelsOf(potentials);
  const lowest = lowestFirst(
    pulls.map((_, s) => s).filter((s) => label.includes(s)),
    (s) => meanHeight(mesh, label, s),
    AS_HIGH * boxSize(meshBox(mesh))[2],
  );
  const cut = cutSections(
    mesh,
    lowest.map((s) => potentials[s]),
    ties,
  );
  const blocks = !blocked
    ? []
    : findBlocks(
        {
          skins: cut.skins,
          pulls: lowest.map((s) => pulls[s]),
          cells: cells().data,
          sectionOf: pulls.map((_, cell) => lowest.indexOf(cell)),
          shellMm,
          boardMm: boardOf(jacket),
        },
        ctx,
      );
  const travels = cut.skins.map((skin, k) => travelOf(skin, pulls[lowest[k]], body, shellMm));
  const lifted = travels.map((travel) => travel.lifted);
  const withPlugs = orderOf(lowest.length, [...blocks, ...plugsLast(hosts, lowest, blocks)], lifted);
  const { build, circle } = withPlugs.circle.length > 0 ? orderOf(lowest.length, blocks, lifted) : withPlugs;
  const placeOf = (k: number) => build.indexOf(k);
  return {
    order: build.map((k) => lowest[k]),
    cut: build.every((k, n) => k === n) ? cut : inOrder(cut, build),
    travels: build.map((k) => travels[k]),
    blocks: blocks.map((block) => ({ ...block, section: placeOf(block.section), by: placeOf(block.by) })),
    circle: circle.map(placeOf),
  };
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
