/** The survey of a jacket, held for as many plans as are made on it. */
import { coarsened } from "../../field/coarsen.ts";
import { isosurface } from "../../field/isosurface.ts";
import { NearestField } from "../../field/nearest.ts";
import type { Jacket } from "../../jacket/jacket.ts";
import type { JobContext } from "../../job/context.ts";
import { clipAbove } from "../../mesh/clip.ts";
import { sharedMesh, type TriangleMesh } from "../../mesh/mesh.ts";
import { vertexNormals } from "../../mesh/normals.ts";
import { SPECK_MM3, withoutPockets } from "../../mesh/pockets.ts";
import type { Layout } from "../../parting/layout/layout.ts";
import type { PartingPrices } from "../../parting/search/price.ts";
import {
  type SearchEffort,
  type SuggestRequest,
  type SurveyTable,
  surveyPulls,
  THOROUGH,
} from "../../parting/search/request.ts";
import { PlanSearch } from "../../parting/search/suggest.ts";
import type { BodyData } from "../../release/body.ts";
import type { Direction } from "../../space/directions.ts";
import { depthField } from "../../survey/depth.ts";
import { type Dabs, withinZone } from "../../survey/zones.ts";
import { bareBody, type Filled, hullOf } from "./freeing.ts";
import { boardOf, type LaidOut, laidByHand } from "./laidOut.ts";

/** The survey's edges are told to this, mm: a hair more or less of surface makes no other mesh of it. */
const SPACING_MM = 0.5;
/** They are no longer than this, mm, however large the piece, for plans sought on a coarser mesh are up to a tenth dearer, */
const LONGEST_MM = 12;
/** unless it would have more than so many times the vertices that are wanted. */
const MOST_TIMES = 2;
/** And no longer than so many steps of the jacket's grid: farther out its field is not known. */
const MOST_STEPS = 6;
/** What encloses no more than so many cells, cut off at the board, is a crumb. */
const CRUMB_CELLS = 8;
/** An isosurface has so many vertices for every square of its grid's step that its area comes to. */
const VERTICES_PER_CELL = 1.4;

/** The mesh the survey works on: as coarse as it may be, and the same one whatever grid the jacket was worked out on. */
function coarseMesh(jacket: Jacket, vertices: number, ctx: JobContext): TriangleMesh {
  const spacingFor = (count: number) => Math.sqrt((VERTICES_PER_CELL * jacket.outerAreaMm2) / count);
  const wantedMm = Math.max(spacingFor(MOST_TIMES * vertices), Math.min(LONGEST_MM, spacingFor(vertices)));
  const spacingMm = SPACING_MM * Math.round(wantedMm / SPACING_MM);
  const coarse = coarsened(jacket.grid, jacket.phi, Math.min(MOST_STEPS * jacket.request.stepMm, spacingMm));
  const { mesh } = withoutPockets(isosurface(coarse.grid, coarse.values, 0, ctx), SPECK_MM3);
  // Where the jacket comes down on the board, crumbs of it may lie by themselves: each would have to have a section.
  const crumbMm3 = CRUMB_CELLS * coarse.grid.stepMm ** 3;
  return sharedMesh(jacket.request.onBoard ? withoutPockets(clipAbove(mesh, 0), crumbMm3).mesh : mesh, ctx.team);
}

export function surveyRequestFor(
  jacket: Jacket,
  draftDeg: number,
  keepClear: Dabs,
  ctx: JobContext,
  effort: SearchEffort = THOROUGH,
): SuggestRequest {
  const coarse = coarseMesh(jacket, effort.vertices, ctx);
  const meanEdge = Math.sqrt((2 * jacket.outerAreaMm2) / Math.max(1, coarse.triangles.length / 3));
  const overMm = jacket.thicknessMm + 0.5 * jacket.request.stepMm;
  const spacingMm = Math.max(jacket.request.stepMm, meanEdge);
  return {
    coarse,
    depth: depthField(coarse, ctx),
    nearest: NearestField.about(coarse, 2 * spacingMm, ctx),
    clear: keepClear.length > 0 ? withinZone(keepClear, coarse.positions, vertexNormals(coarse).normals, overMm) : null,
    draftDeg,
    mayLift: true,
    boardMm: boardOf(jacket),
    spacingMm,
    effort,
  };
}

const KEPT_LAYOUTS = 2;

/** What a survey found; the pulls are surveyed when they are first asked for. */
export class SurveyStage {
  private surveyed: SurveyTable | null = null;
  private about: NearestField | null = null;
  private bare: BodyData | null = null;
  private lastHull: { readonly key: string; readonly filled: Filled } | null = null;
  /** The layouts that were laid out last. */
  private readonly laidOut = new Map<Layout, LaidOut>();
  private readonly searching = new Map<boolean, { readonly prices: string; readonly search: PlanSearch }>();

  constructor(readonly request: SuggestRequest) {}

  table(ctx: JobContext): SurveyTable {
    this.surveyed ??= surveyPulls(this.request, ctx);
    return this.surveyed;
  }

  /**
   * The search for plans at some prices: what it found for one question serves the next.
   * @param mayLift may sections leave downwards past the board?
   */
  search(prices: PartingPrices, mayLift: boolean, ctx: JobContext): PlanSearch {
    const key = JSON.stringify(prices);
    const held = this.searching.get(mayLift);
    if (held?.prices === key) return held.search;
    const search = new PlanSearch({ ...this.request, mayLift }, this.table(ctx), prices, ctx);
    this.searching.set(mayLift, { prices: key, search });
    return search;
  }

  /** The jacket as a field to follow ways through. */
  body(jacket: Jacket, ctx: JobContext): BodyData {
    this.bare ??= bareBody(jacket, ctx);
    return this.bare;
  }

  /** The visible hull under some pulls; the last one is kept, for a line that is moved moves no pull. */
  hull(jacket: Jacket, pulls: readonly Direction[], giveMm: number, ctx: JobContext): Filled {
    const key = JSON.stringify([pulls, giveMm]);
    if (this.lastHull?.key !== key)
      this.lastHull = { key, filled: hullOf(jacket, this.body(jacket, ctx), pulls, giveMm, ctx) };
    return this.lastHull.filled;
  }

  /** Lines laid by hand on the jacket that was surveyed; the last two layouts are kept, for moved lines are held against those before. */
  laid(layout: Layout, jacket: Jacket, ctx: JobContext): LaidOut {
    const made = this.laidOut.get(layout) ?? laidByHand(layout, jacket, this.nearest(jacket, ctx), this.request);
    this.laidOut.delete(layout);
    this.laidOut.set(layout, made);
    for (const oldest of [...this.laidOut.keys()].slice(0, -KEPT_LAYOUTS)) this.laidOut.delete(oldest);
    return made;
  }

  /** The places nearest the jacket that was surveyed. */
  nearest(jacket: Jacket, ctx: JobContext): NearestField {
    this.about ??= NearestField.about(jacket.mesh, 2 * jacket.request.stepMm, ctx);
    return this.about;
  }
}
