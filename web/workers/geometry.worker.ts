/** The geometry worker: holds one scan and its stages, and answers with bundles. One per open piece. */
import * as Comlink from "comlink";
import { type NamedPart, writeGlb } from "../../core/export/glb.ts";
import { linesAsData, writeDxf } from "../../core/export/lines.ts";
import { linearRgb, SECTION_PIGMENTS } from "../../core/export/palette.ts";
import { drawPortrait, type Portrait } from "../../core/export/portrait.ts";
import { writeStl } from "../../core/export/stl.ts";
import { NearestField } from "../../core/field/nearest.ts";
import { Cancelled, type JobContext, plainContext } from "../../core/job/context.ts";
import { ALONE, SharedTeam, type Team } from "../../core/job/team.ts";
import { readScan } from "../../core/mesh/io/index.ts";
import { boxSize, meshBox, type TriangleMesh } from "../../core/mesh/mesh.ts";
import { ScanProblem } from "../../core/mesh/problem.ts";
import type { Place } from "../../core/parting/hand/handles.ts";
import type { Layout } from "../../core/parting/hand/layout.ts";
import { type RouteRequest, type SeamRoute, seamRoute } from "../../core/parting/hand/seamRoute.ts";
import { wayThrough } from "../../core/parting/hand/sections.ts";
import { type Surface, surfaceOf } from "../../core/parting/hand/surface.ts";
import type { PullRange } from "../../core/parting/pullRange.ts";
import { BUNDLE_VERSION, bundleOf, type PlanBundle, packBundle } from "../../core/plan/bundle.ts";
import { coarseEngineOf, coarsePlan, practise } from "../../core/plan/coarse.ts";
import type { PlanDocument } from "../../core/plan/document.ts";
import { PlanEngine, type PlanResult } from "../../core/plan/engine.ts";
import type { Rates } from "../../core/plan/estimate.ts";
import type { ComparedPlan } from "../../core/plan/offers.ts";
import type { Remedy } from "../../core/plan/remedies.ts";
import { effortOf, type Fineness, resultKeyText, settledStepMm } from "../../core/plan/steps.ts";
import { type Decision, decisionsOf } from "../../core/survey/decisions.ts";
import { type Direction, pullDirections } from "../../core/survey/directions.ts";
import { throughHoles } from "../../core/survey/holes.ts";
import { freeCounts, surveyMap } from "../../core/survey/map.ts";
import { type StretchCheck, stretchCheck } from "../../core/survey/stretch.ts";
import { airTips } from "../../core/survey/tips.ts";
import { type NarrowPlace, narrowClasses, narrowPlaces, wallsOf } from "../../core/survey/walls.ts";
import { proposeUnit, type UnitProposal } from "../../core/units/index.ts";

import { call } from "../lib/http.ts";
import { ARE_YOU_THERE, ENDS } from "./signals.ts";

export type Answer<T> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly cancelled: boolean; readonly message: string };

export type PlanFile = "glb" | "dxf" | "json" | "stl";

/** A compared plan as the page shows it. */
export interface ShownOffer extends Omit<ComparedPlan, "label" | "lines"> {
  readonly picture: Blob;
}

export interface ScanFacts {
  readonly triangles: number;
  readonly size: readonly [number, number, number];
  readonly up: "y" | "z";
  readonly proposal: UnitProposal;
  readonly warnings: readonly string[];
}

/** What a scan comes to at a first glance. */
export interface FirstGlance {
  readonly heightMm: number;
  readonly sections: number;
  readonly siliconeG: number;
  readonly costMinor: number;
  /** The piece, seated and thinned. */
  readonly mesh: TriangleMesh;
}

/** Walls nearer to each other than a limit: 2 within it, 1 near it, 0 else, at every vertex; and the places within it. */
export interface NarrowWalls {
  readonly classes: Uint8Array;
  readonly places: readonly NarrowPlace[];
}

export interface ShownWalls {
  readonly gaps: NarrowWalls;
  readonly thin: NarrowWalls;
}

type Progress = (stage: string, fraction: number) => void;

const MAP_PULLS = 48;
/** Narrow places smaller than this are the scan's own roughness. */
const LEAST_PLACE_MM2 = 150;
/** Progress is told this often at most: every time, the page is painted, which a plain laptop feels. */
const PROGRESS_MS = 250;
const COVER = { width: 480, height: 400, from: [-0.6, -1, 0.3] as Direction };
const OFFER = { width: 150, height: 150 };
const PLASTER = [232, 226, 214] as const;

/**
 * A helper for the second core, waited for until it has answered: a worker's worker is only started, and what was sent to
 * it before only passed on, while nothing is computed here. Without shared memory, or where it cannot be had, the work is
 * done alone.
 */
function startTeam(): Promise<Team> {
  if (typeof SharedArrayBuffer === "undefined") return Promise.resolve(ALONE);
  const worker = new Worker(new URL("./helper.worker.ts", import.meta.url), { type: "module" });
  return new Promise((resolve) => {
    worker.onmessage = () => resolve(new SharedTeam([{ ready: () => true, post: (task) => worker.postMessage(task) }]));
    worker.onerror = () => resolve(ALONE);
    worker.postMessage(ARE_YOU_THERE);
  });
}

/** A bundle as bytes that are handed over, not copied. */
function packed(bundle: PlanBundle): Uint8Array {
  const bytes = packBundle(bundle);
  return Comlink.transfer(bytes, [bytes.buffer as ArrayBuffer]);
}

function png({ width, height, pixels }: Portrait): Promise<Blob> {
  const canvas = new OffscreenCanvas(width, height);
  const image = new ImageData(pixels as Uint8ClampedArray<ArrayBuffer>, width, height);
  canvas.getContext("2d")?.putImageData(image, 0, 0);
  return canvas.convertToBlob({ type: "image/png" });
}

/** sRGB of each vertex by its section's pigment. */
function labelTints(label: Uint8Array): Uint8Array {
  const pigments = SECTION_PIGMENTS.map(({ css }) => [1, 3, 5].map((at) => Number.parseInt(css.slice(at, at + 2), 16)));
  const out = new Uint8Array(3 * label.length);
  for (let v = 0; v < label.length; v++) out.set(pigments[label[v] % pigments.length], 3 * v);
  return out;
}

class GeometryWorker {
  private fine: PlanEngine | null = null;
  /** The triangles as the file has them. */
  private scan: TriangleMesh | null = null;
  /** The engine of the coarse answer: of the scan thinned, before it is mended. */
  private coarse: PlanEngine | null = null;
  /** The last settled plan, and what it was made from. */
  private last: { readonly madeFrom: string; readonly result: PlanResult } | null = null;
  /** The engine of which a settled plan has been packed to be shown. */
  private shown: PlanEngine | null = null;
  private flags: Int32Array | null = null;
  private team: Team = ALONE;
  private readonly started = startTeam();
  private fineness: Fineness = "usual";

  /** @param flags shared memory, an int for each of `ENDS`: anything but 0 ends what it stands for */
  connect(flags: SharedArrayBuffer | null): void {
    this.flags = flags ? new Int32Array(flags) : null;
  }

  /** Gets quick by working for nobody, until it is told to end that. */
  async practise(): Promise<void> {
    this.team = await this.started;
    await this.guarded(async () => practise(this.context(() => {}, ENDS.practice)));
  }

  /** How finely plans are settled from now on. */
  setFineness(fineness: Fineness): void {
    this.fineness = fineness;
    this.fine = this.fine?.withEffort(effortOf(fineness)) ?? null;
  }

  async open(bytes: Uint8Array, name: string, onProgress: Progress): Promise<Answer<ScanFacts>> {
    return this.guarded(async () => {
      this.team = await this.started;
      const scan = readScan(bytes, name, this.context(onProgress));
      this.scan = scan.mesh;
      this.fine = new PlanEngine(scan.mesh, effortOf(this.fineness));
      this.coarse = null;
      const size = boxSize(meshBox(scan.mesh));
      return {
        triangles: scan.mesh.triangles.length / 3,
        size,
        up: scan.up,
        proposal: proposeUnit(Math.max(...size), scan.unitHint),
        warnings: scan.warnings,
      };
    });
  }

  /** A whole plan, coarse or settled, packed. */
  async plan(
    document: PlanDocument,
    rates: Rates,
    quality: "coarse" | "settled",
    onProgress: Progress,
  ): Promise<Answer<Uint8Array>> {
    return this.guarded(async () => {
      const started = performance.now();
      const ctx = this.context(onProgress);
      if (!this.fine) throw new Error("No scan is open.");
      const timings = () => ({ readMs: 0, planMs: 0, totalMs: performance.now() - started });
      if (quality === "coarse") {
        const { result, wholePiece } = this.atFirst(document, rates, ctx);
        return packed(await bundleOf(result, timings(), wholePiece));
      }
      const piece = this.fine.pieceFor(document, ctx);
      const result = this.fine.run(document, rates, this.settledStep(document, piece.areaMm2), ctx);
      this.last = { madeFrom: this.madeFrom(document, rates), result };
      this.shown = this.fine;
      return packed(await bundleOf(result, timings()));
    });
  }

  /** The coarse answer in short, for a scan that is not on the shelf yet; kept for when it is asked for in full. */
  async glance(document: PlanDocument, rates: Rates): Promise<Answer<FirstGlance>> {
    return this.guarded(async () => {
      const silent = this.context(() => {});
      const { piece, sections, estimate } = this.atFirst(document, rates, silent).result;
      return {
        heightMm: piece.sizeMm[2],
        sections: sections.sections.length,
        siliconeG: estimate.siliconeG,
        costMinor: estimate.costMinor,
        mesh: piece.mesh,
      };
    });
  }

  /** Seats and mends the scan, so that it is done when its plan is asked for. */
  async lookOver(document: PlanDocument): Promise<Answer<null>> {
    return this.guarded(async () => {
      this.fine?.pieceFor(
        document,
        this.context(() => {}),
      );
      return null;
    });
  }

  /** The coarse answer; what it says of the piece itself is not coarse where the piece has been looked over. */
  private atFirst(document: PlanDocument, rates: Rates, ctx: JobContext): { result: PlanResult; wholePiece: boolean } {
    if (!this.scan) throw new Error("No scan is open.");
    this.coarse ??= coarseEngineOf(this.scan);
    const result = coarsePlan(this.coarse, document, rates, this.fineness, ctx);
    const others = result.warnings.filter((warning) => !result.piece.report.warnings.includes(warning));
    const whole = this.fine?.pieceKnown(document);
    if (!whole) return { result: { ...result, warnings: others }, wholePiece: false };
    const piece = { ...whole, mesh: result.piece.mesh };
    return {
      result: { ...result, piece, warnings: [...whole.report.warnings, ...others] },
      wholePiece: true,
    };
  }

  /** The best plan of every number of sections; each is told, with its picture, as it is found. */
  async compare(
    document: PlanDocument,
    rates: Rates,
    onProgress: Progress,
    onPlan: (plan: ShownOffer) => void,
  ): Promise<Answer<number>> {
    return this.guarded(async () => {
      if (!this.fine) throw new Error("No scan is open.");
      const engine = this.fine;
      const ctx = this.context(onProgress);
      const settledMm = this.settledStep(document, engine.pieceFor(document, ctx).areaMm2);
      const plans = await engine.compare(document, rates, settledMm, ctx, async (plan) => {
        const mesh = engine.surveyed;
        if (!mesh) return;
        const { label, lines: _lines, ...offer } = plan;
        const portrait = drawPortrait(mesh, OFFER.width, OFFER.height, COVER.from, labelTints(label));
        onPlan({ ...offer, picture: await png(portrait) });
      });
      return plans.length;
    });
  }

  /** From where every section of the settled plan could be pulled; plans first where the plan is not held here. */
  async ranges(document: PlanDocument, rates: Rates, onProgress: Progress): Promise<Answer<PullRange[]>> {
    return this.guarded(async () => {
      if (!this.fine) throw new Error("No scan is open.");
      const ctx = this.context(onProgress);
      const settledMm = this.settledStep(document, this.fine.pieceFor(document, ctx).areaMm2);
      return this.fine.rangesFor(document, rates, settledMm, ctx);
    });
  }

  /** What would free a section of the settled plan, or do without its fill; each tried, proven and told as it is found. */
  async remedies(
    document: PlanDocument,
    rates: Rates,
    section: number,
    onProgress: Progress,
    onRemedy: (remedy: Remedy) => void,
  ): Promise<Answer<Remedy[]>> {
    return this.guarded(async () => {
      if (!this.fine) throw new Error("No scan is open.");
      const ctx = this.context(onProgress);
      const settledMm = this.settledStep(document, this.fine.pieceFor(document, ctx).areaMm2);
      return this.fine.remediesFor(document, rates, settledMm, section, ctx, onRemedy);
    });
  }

  /** Works out what the next edit of the document's lines is measured against. */
  async prepare(document: PlanDocument, rates: Rates, onProgress: Progress): Promise<Answer<null>> {
    return this.guarded(async () => {
      if (!this.fine) throw new Error("No scan is open.");
      const ctx = this.context(onProgress);
      const stepMm = this.settledStep(document, this.fine.pieceFor(document, ctx).areaMm2);
      this.fine.prepare(document, rates, stepMm, ctx);
      if (document.parting.layout && this.shown !== this.fine) {
        // What stays the same from edit to edit is thinned but once: before the first.
        await bundleOf(this.fine.run(document, rates, stepMm, ctx), { readMs: 0, planMs: 0, totalMs: 0 });
        this.shown = this.fine;
      }
      return null;
    });
  }

  /** The lines in hand with what is held as it is, and the rest suggested anew. */
  async rest(document: PlanDocument, rates: Rates, sections: number, onProgress: Progress): Promise<Answer<Layout>> {
    return this.guarded(async () => {
      if (!this.fine) throw new Error("No scan is open.");
      const ctx = this.context(onProgress);
      const settledMm = this.settledStep(document, this.fine.pieceFor(document, ctx).areaMm2);
      return this.fine.restFor(document, rates, settledMm, sections, ctx);
    });
  }

  /** Leaves a packed result on the server; losing it costs only time. */
  async keep(hash: string, bytes: Uint8Array): Promise<void> {
    await call(`/results/${hash}`, {
      method: "PUT",
      headers: { "content-type": "application/octet-stream" },
      body: bytes as Uint8Array<ArrayBuffer>,
    }).catch(() => undefined);
  }

  /** Is the settled plan of this worked out here, so that files can be taken of it? */
  holds(document: PlanDocument, rates: Rates): boolean {
    return this.last?.madeFrom === this.madeFrom(document, rates);
  }

  /** All that a plan of the open scan depends on. */
  private madeFrom(document: PlanDocument, rates: Rates): string {
    return resultKeyText("", document, { rates, fineness: this.fineness }, BUNDLE_VERSION);
  }

  /** A file of the settled plan for taking elsewhere; the plan must be held. */
  async exportFile(kind: PlanFile): Promise<Answer<Uint8Array | string>> {
    return this.guarded(async () => {
      if (!this.last) throw new Error("There is no settled plan to write out.");
      const { jacket, sections } = this.last.result;
      if (kind === "dxf") return writeDxf(sections.lines);
      if (kind === "json") return JSON.stringify(linesAsData(sections.lines));
      if (kind === "stl") return writeStl(sections.filled);
      const parts = sections.sections.map(
        (section): NamedPart => ({
          name: `section-${section.number}`,
          mesh: section.skin,
          colour: [...linearRgb(SECTION_PIGMENTS[(section.number - 1) % SECTION_PIGMENTS.length].css), 1],
        }),
      );
      return writeGlb([{ name: "jacket", mesh: jacket.mesh, colour: [0.45, 0.6, 0.75, 0.35] }, ...parts]);
    });
  }

  /** The survey's map of a shown mesh for a pull; needs no scan. */
  map(mesh: TriangleMesh, pull: Direction, draftDeg: number, spacingMm: number, onBoard: boolean): Uint8Array {
    return surveyMap(mesh, pull, draftDeg, spacingMm, onBoard ? 0 : null);
  }

  /** From how many of an even set of pulls each vertex of a shown mesh is free. */
  counts(
    mesh: TriangleMesh,
    draftDeg: number,
    spacingMm: number,
    onBoard: boolean,
    onProgress: (fraction: number) => void,
  ): { counts: Uint8Array; pulls: number } {
    const pulls = pullDirections(MAP_PULLS, onBoard);
    return {
      counts: freeCounts(mesh, pulls, draftDeg, spacingMm, onBoard ? 0 : null, onProgress),
      pulls: pulls.length,
    };
  }

  /** How far apart the walls of a shown mesh stand, in front and behind, and where they are nearer than the limits. */
  walls(mesh: TriangleMesh, gapLimitMm: number, thinLimitMm: number, onBoard: boolean): ShownWalls {
    const widestMm = 2 * Math.max(gapLimitMm, thinLimitMm);
    const { gapMm, thickMm } = wallsOf(mesh, NearestField.about(mesh, 4, this.lookUp()), widestMm, onBoard ? 0 : null);
    return {
      gaps: {
        classes: narrowClasses(gapMm, gapLimitMm),
        places: narrowPlaces(mesh, gapMm, gapLimitMm, LEAST_PLACE_MM2),
      },
      thin: {
        classes: narrowClasses(thickMm, thinLimitMm),
        places: narrowPlaces(mesh, thickMm, thinLimitMm, LEAST_PLACE_MM2),
      },
    };
  }

  /** What the jacket of a shown piece must stretch to come off uncut. */
  stretch(mesh: TriangleMesh, allowed: number): StretchCheck {
    return stretchCheck(mesh, allowed);
  }

  /** A route for the jacket's seam over a shown survey mesh. */
  seamRoute(mesh: TriangleMesh, onBoard: boolean, request: RouteRequest): SeamRoute {
    return seamRoute(this.surfaceOn(mesh, onBoard), request);
  }

  /** The shortest way over a shown survey mesh through places that were picked; xyz per point. */
  wayThrough(mesh: TriangleMesh, onBoard: boolean, picked: readonly Place[]): number[] {
    return wayThrough(this.surfaceOn(mesh, onBoard), picked, { kind: "shortest" });
  }

  private surfaceOn(mesh: TriangleMesh, onBoard: boolean): Surface {
    return surfaceOf(mesh, onBoard ? 0 : null, this.lookUp());
  }

  /** What of a shown piece and the jacket over it needs a decision. */
  decisions(
    mesh: TriangleMesh,
    jacket: TriangleMesh,
    gapLimitMm: number,
    thinLimitMm: number,
    onBoard: boolean,
  ): Decision[] {
    const { gaps, thin } = this.walls(mesh, gapLimitMm, thinLimitMm, onBoard);
    const nearest = NearestField.about(jacket, 8, this.lookUp());
    return decisionsOf({
      holes: throughHoles(jacket, nearest),
      gaps: gaps.places,
      thin: thin.places,
      tips: airTips(mesh, onBoard ? 0 : null),
    });
  }

  /** A picture of a shown mesh for the shelf, as PNG. */
  async cover(mesh: TriangleMesh): Promise<Blob> {
    return png(drawPortrait(mesh, COVER.width, COVER.height, COVER.from, PLASTER));
  }

  private settledStep(document: PlanDocument, areaMm2: number): number {
    return settledStepMm(document, areaMm2, this.fineness);
  }

  /** For what is soon looked up on shown meshes: to cancel a plan does not cancel this. */
  private lookUp(): JobContext {
    return { ...plainContext, team: this.team };
  }

  private context(onProgress: Progress, ends: number = ENDS.work): JobContext {
    let last = 0;
    return {
      progress: (stage, fraction) => {
        const now = performance.now();
        if (now - last < PROGRESS_MS) return;
        last = now;
        onProgress(stage, fraction);
      },
      checkCancelled: () => {
        if (this.flags && Atomics.load(this.flags, ends) !== 0) throw new Cancelled();
      },
      nowMs: () => performance.now(),
      team: this.team,
    };
  }

  /** Failures travel as data. */
  private async guarded<T>(work: () => Promise<T>): Promise<Answer<T>> {
    try {
      return { ok: true, value: await work() } as Answer<T>;
    } catch (error) {
      if (error instanceof Cancelled) return { ok: false, cancelled: true, message: "Cancelled." };
      const message =
        error instanceof ScanProblem ? error.message : `This could not be worked out: ${(error as Error).message}`;
      return { ok: false, cancelled: false, message };
    }
  }
}

export type GeometryApi = GeometryWorker;
Comlink.expose(new GeometryWorker());
