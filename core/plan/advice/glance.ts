/**
 * What a layout comes to at a glance: fast enough for a line under the finger. Sections' locks are read off the
 * survey of their pulls on the survey's own mesh; nothing here proves that a section comes off.
 */
import type { JobContext } from "../../job/context.ts";
import type { TriangleMesh } from "../../mesh/mesh.ts";
import { type Layout, networkOn, placesAlong } from "../../parting/layout/layout.ts";
import { labelsOfLayout, type Trouble, troublesOf } from "../../parting/layout/sections.ts";
import { type Surface, surfaceOf } from "../../parting/layout/surface.ts";
import { deepFloorMm3 } from "../../parting/search/pullRange.ts";
import type { FillKind } from "../../release/fills.ts";
import type { Direction } from "../../space/directions.ts";
import { type DepthField, depthField } from "../../survey/depth.ts";
import { type SurveyCost, surveyOne } from "../../survey/survey.ts";
import { type ZoneKind, type Zones, zoneLengthsMm } from "../../survey/zones.ts";
import type { Rates } from "../../takeoff/rates.ts";
import type { PlanDocument } from "../document/document.ts";
import { notSilicone } from "../proof/parting.ts";
import type { BundleFigures } from "../results/bundle.ts";
import { figuresOf, type PlanFigures } from "../results/figures.ts";

export interface GlanceSection {
  readonly areaMm2: number;
  readonly lineMm: number;
  readonly fillMm3: number;
  /** Space too thick to fill: above 0 the section seems locked. */
  readonly deepMm3: number;
}

export interface GlanceResult {
  /** In the layout's order. */
  readonly sections: readonly GlanceSection[];
  readonly partingLengthMm: number;
  readonly fillMm3: number;
  /** Length of line in each kind of zone. */
  readonly zoneMm: Readonly<Record<ZoneKind, number>>;
  readonly troubles: readonly Trouble[];
}

/** Surveys of this many pulls are kept. */
const MOST_PULLS = 24;

/** Glances at layouts on one survey mesh. */
export class Glance {
  readonly surface: Surface;
  private readonly depth: DepthField;
  private readonly surveys = new Map<string, SurveyCost>();

  constructor(
    readonly mesh: TriangleMesh,
    private readonly boardMm: number | null,
    ctx: JobContext,
  ) {
    this.surface = surfaceOf(mesh, boardMm, ctx);
    this.depth = depthField(mesh, ctx);
  }

  look(layout: Layout, zones: Zones, overMm: number): GlanceResult {
    const { surface } = this;
    const label = labelsOfLayout(surface, layout);
    const network = networkOn(layout, surface.nearest);
    const lengths = network.map((line) => placesAlong(line.points, line.closed).at(-1) ?? 0);
    const sections = layout.sections.map(({ pull }, s): GlanceSection => {
      const cost = this.surveyOf(pull);
      let [areaMm2, lock, deep] = [0, 0, 0];
      for (let v = 0; v < label.length; v++) {
        if (label[v] !== s) continue;
        areaMm2 += surface.areasMm2[v];
        lock += cost.lockMm3[v];
        deep += cost.deepMm3[v];
      }
      const lineMm = lengths.reduce((sum, mm, n) => (bordersOn(layout.lines[n], s) ? sum + mm : sum), 0);
      const deepMm3 = deep > deepFloorMm3(surface.edgeMm) ? deep : 0;
      return { areaMm2, lineMm, fillMm3: Math.max(0, lock - deep), deepMm3 };
    });
    return {
      sections,
      partingLengthMm: lengths.reduce((sum, mm) => sum + mm, 0),
      fillMm3: sections.reduce((sum, { fillMm3 }) => sum + fillMm3, 0),
      zoneMm: zoneLengthsMm(zones, network, overMm),
      troubles: troublesOf(surface, layout, label),
    };
  }

  private surveyOf(pull: Direction): SurveyCost {
    const key = pull.join();
    const held = this.surveys.get(key);
    if (held) return held;
    const { mesh, depth, boardMm, surface } = this;
    const vertices = mesh.positions.length / 3;
    const cost = { lockMm3: new Float32Array(vertices), deepMm3: new Float32Array(vertices) };
    surveyOne({ mesh, directions: [], spacingMm: surface.edgeMm, boardMm, depth }, pull, cost);
    if (this.surveys.size >= MOST_PULLS) this.surveys.delete(this.surveys.keys().next().value as string);
    this.surveys.set(key, cost);
    return cost;
  }
}

/** A report's fills, told in litres, in mm3. */
function inMm3({ fills: f }: { readonly fills: Readonly<Record<FillKind, number>> }) {
  return { fills: { silicone: 1e6 * f.silicone, clay: 1e6 * f.clay, web: 1e6 * f.web, plug: 1e6 * f.plug } };
}

function bordersOn({ left, right }: { readonly left: number; readonly right: number }, section: number): boolean {
  return left === section || right === section;
}

/** The figures of a plan as a glance sees them; what a glance does not look at stays as it was settled. */
export function figuresAtAGlance(
  settled: BundleFigures & Partial<Pick<PlanFigures, "ids">>,
  glance: GlanceResult,
  layout: Layout,
  document: PlanDocument,
  rates: Rates,
): PlanFigures {
  const { report } = settled;
  const found = glance.sections.map((section, origin) => {
    const held = report.sections.find(
      (other) => other.origin === origin && report.sections.length === layout.sections.length,
    );
    const fillWith = layout.sections[origin].fillWith ?? "silicone";
    // What is left open holds, filled or not.
    const filled = fillWith === "open" ? 0 : section.fillMm3;
    const litres = filled / 1e6;
    const isClay = fillWith === "clay";
    const fills = { silicone: isClay ? 0 : litres, clay: isClay ? litres : 0, web: 0, plug: 0 };
    return { ...section, fillMm3: filled, fills, fillWith, origin, number: held?.number ?? origin + 1, held };
  });
  found.sort((a, b) => a.number - b.number);
  const { partingLengthMm } = glance;
  const fillMm3 = found.reduce((sum, section) => sum + section.fillMm3, 0);
  const sections = found.map(({ areaMm2, lineMm, fillMm3: fill, fills, fillWith, deepMm3, origin, number, held }) => ({
    number,
    origin,
    pull: layout.sections[origin].pull,
    areaMm2,
    bends: held?.bends ?? { meanMm: 0, gauss: 0 },
    fillMm3: fill,
    fillWith,
    plugUnder: held?.plugUnder ?? null,
    fillThickMm: fillWith === "open" ? 0 : (held?.fillThickMm ?? 0),
    releases: deepMm3 === 0 && !(fillWith === "open" && held?.releases === false),
    lineMm,
    // A glance sees no foot: it stays as it was.
    footMm: held?.footMm ?? 0,
    footAreasMm2: held?.footAreasMm2 ?? [],
    fills,
    travelMm: held?.travelMm ?? 0,
    lifted: held?.lifted ?? false,
    biteMm: held?.biteMm ?? 0,
    biteAt: held?.biteAt ?? null,
  }));
  // A glance knows how much fill there is, not which fills.
  const totals = { sections, partingLengthMm, walls: [], fillMm3, ...notSilicone(found.map(inMm3)), fillParts: [] };
  const ids = found.map(({ held }) => (held && settled.ids?.sections[report.sections.indexOf(held)]) ?? "");
  return {
    ...figuresOf({ ...settled, report: { ...report, ...totals, zoneMm: glance.zoneMm } }, document, rates),
    ids: { sections: ids, lines: [], fills: [] },
  };
}
