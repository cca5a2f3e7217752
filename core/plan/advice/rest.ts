/** The rest suggested again round what is held: sections as they lie, or only their pulls. */
import type { NearestField } from "../../field/nearest.ts";
import type { Jacket } from "../../jacket/jacket.ts";
import type { JobContext } from "../../job/context.ts";
import { floodFrom } from "../../mesh/flood.ts";
import { meshNeighbours, type Neighbours } from "../../parting/graph/graph.ts";
import { regionsOf } from "../../parting/graph/regions.ts";
import { type Layout, type Treatment, takenInHand } from "../../parting/layout/layout.ts";
import { cutSections } from "../../parting/lines/cut.ts";
import { sectionsForPulls } from "../../parting/search/givenPulls.ts";
import type { HeldSection } from "../../parting/search/held.ts";
import type { PartingPrices } from "../../parting/search/price.ts";
import type { SuggestRequest, SurveyTable } from "../../parting/search/request.ts";
import { PlanSearch } from "../../parting/search/suggest.ts";
import type { Direction } from "../../space/directions.ts";
import { drawnOut, laidByHand, linesOn } from "../proof/laidOut.ts";

/** A held section's lines outweigh those that are suggested: the cut runs where they were laid. */
const HELD_WEIGHT = 1000;

export interface RestRequest {
  readonly layout: Layout;
  /** How many sections in all; at least what is held and one more. */
  readonly sections: number;
  readonly prices: PartingPrices;
}

export interface RestSurvey {
  readonly request: SuggestRequest;
  readonly table: SurveyTable;
  /** The places nearest the jacket's outside. */
  readonly nearest: NearestField;
}

/** @returns the layout with what was held as it was, and the rest of the jacket parted again for least money */
export function suggestRest(
  jacket: Jacket,
  known: RestSurvey,
  { layout, sections, prices }: RestRequest,
  ctx: JobContext,
): Layout {
  const { request: survey, table, nearest } = known;
  const laid = laidByHand(layout, jacket, nearest, survey);
  const near = meshNeighbours(survey.coarse);
  const found = heldIn(layout, laid.label, near);
  const stays = found.map(({ section }) => section);
  const held = found.map((one) => one.held);
  const pulls = layout.sections.map(({ pull }, s) => (stays.includes(s) ? stays.indexOf(s) : pull));
  const search = new PlanSearch(survey, table, prices, ctx, { held, pulls, label: laid.label });
  const suggestion = search.tightened(search.exactly(Math.max(search.fewest, sections), ctx));
  // Under what is held the others reach on, so that its own lines alone bound them.
  const kept = suggestion.held.map((h) => h !== null && held[h].whole);
  const drawn = drawnOut({ ...suggestion, label: spread(suggestion.label, kept, near) }, jacket, survey, ctx.team);
  const potentials = drawn.potentials.map((potential, r) => {
    const h = suggestion.held[r];
    return h !== null && held[h].whole ? leadOf(stays[h], laid.potentials) : potential;
  });
  const treatments = suggestion.held.map((h) => (h === null ? {} : layout.sections[stays[h]]));
  return laidAlong(jacket, nearest, suggestion.pulls, potentials, treatments);
}

/** Labels with every vertex of a kept section given to whatever other section is nearest over the mesh. */
function spread(label: Uint8Array, kept: readonly boolean[], near: Neighbours): Uint8Array {
  const out = label.slice();
  const told = Uint8Array.from(label, (s) => (kept[s] ? 0 : 1));
  floodFrom(told, near, (v, from) => {
    out[v] = out[from];
  });
  return out;
}

/** By how much a section's potential leads the others', weighed so that its lines stay where they were laid. */
function leadOf(section: number, potentials: readonly Float32Array[]): Float32Array {
  return potentials[section].map((own, v) => {
    let most = -Infinity;
    potentials.forEach((other, s) => {
      if (s !== section && other[v] > most) most = other[v];
    });
    return HELD_WEIGHT * (own - most);
  });
}

/** @returns the layout with one section parted in two for least money, and all others as they lie */
export function splitOff(
  jacket: Jacket,
  known: RestSurvey,
  { layout, prices }: Omit<RestRequest, "sections">,
  section: number,
  ctx: JobContext,
): Layout {
  const held = layout.sections.map(({ hold: _hold, ...own }, s) =>
    s === section ? own : { ...own, hold: "section" as const },
  );
  const split = suggestRest(
    jacket,
    known,
    { layout: { ...layout, sections: held }, sections: held.length + 1, prices },
    ctx,
  );
  const holdOf = (pull: Direction) => layout.sections.find((before) => before.pull === pull)?.hold;
  return { ...split, sections: split.sections.map((own) => ({ ...own, hold: holdOf(own.pull) })) };
}

/** @returns the layout with its sections' pulls as they are, and the lines between them where they cost least */
export function suggestLines(
  jacket: Jacket,
  { request: survey, nearest }: Omit<RestSurvey, "table">,
  { layout, prices }: Omit<RestRequest, "sections">,
  ctx: JobContext,
): Layout {
  const pulls = layout.sections.map(({ pull }) => pull);
  const { potentials } = drawnOut(sectionsForPulls(survey, pulls, prices, ctx), jacket, survey, ctx.team);
  return laidAlong(jacket, nearest, pulls, potentials, layout.sections);
}

/** A layout of the lines where potentials tie. */
function laidAlong(
  jacket: Jacket,
  nearest: NearestField,
  pulls: readonly Direction[],
  potentials: readonly Float32Array[],
  treatments: readonly Treatment[],
): Layout {
  const { mesh, request } = jacket;
  const lines = linesOn(mesh, nearest, cutSections(mesh, potentials), potentials, request.stepMm);
  const fresh = takenInHand(
    lines,
    pulls.map((pull) => ({ pull })),
  );
  return { ...fresh, sections: fresh.sections.map(({ pull }, s) => ({ ...treatments[s], pull })) };
}

/** The held sections of a layout, in its order. */
export function heldIn(
  layout: Layout,
  label: ArrayLike<number>,
  near: Neighbours,
): { section: number; held: HeldSection }[] {
  const regions = regionsOf(label, near);
  const sizes = regions.label.map(() => 0);
  for (const region of regions.of) sizes[region]++;
  return layout.sections.flatMap(({ pull, hold }, section) => {
    if (hold === undefined) return [];
    // Scraps beside a line, smaller than the mesh can tell, are not its own.
    const largest = regions.label.reduce(
      (best, l, r) => (l === section && (best < 0 || sizes[r] > sizes[best]) ? r : best),
      -1,
    );
    const own: number[] = [];
    for (let v = 0; v < label.length; v++) if (regions.of[v] === largest) own.push(v);
    if (own.length === 0) return [];
    const whole = hold === "section";
    return [{ section, held: { pull, whole, members: whole ? own : innermost(own, label, near) } }];
  });
}

/** The vertices of a section that are farthest from its border: half as deep as any, breadth first. */
function innermost(own: readonly number[], label: ArrayLike<number>, near: Neighbours): number[] {
  const section = label[own[0]];
  const depth = new Uint32Array(label.length);
  const border = new Uint8Array(label.length);
  for (const v of own) {
    if (near.list.subarray(near.start[v], near.start[v + 1]).some((other) => label[other] !== section)) border[v] = 1;
  }
  floodFrom(
    border,
    near,
    (v, from) => {
      depth[v] = depth[from] + 1;
    },
    (v) => label[v] === section,
  );
  const deepest = own.reduce((most, v) => Math.max(most, depth[v]), 0);
  return own.filter((v) => 2 * depth[v] > deepest);
}
