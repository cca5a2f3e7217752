/** The geometry worker: holds one scan and its stages, and answers with bundles. One per open piece. */

import * as Comlink from "comlink";
import dracoWasm from "draco3dgltf/draco_decoder_gltf.wasm?url";
import solidWasm from "manifold-3d/manifold.wasm?url";
import { thinned } from "../../core/display/thin.ts";
import { Cancelled, type JobContext } from "../../core/job/context.ts";
import { ALONE, SharedTeam, type Team } from "../../core/job/team.ts";
import { provideDraco } from "../../core/mesh/io/glbReader.ts";
import { readScan } from "../../core/mesh/io/index.ts";
import { boxSize, meshBox, type TriangleMesh } from "../../core/mesh/mesh.ts";
import { ScanProblem } from "../../core/mesh/problem.ts";
import type { Layout } from "../../core/parting/layout/layout.ts";
import type { PullRange } from "../../core/parting/search/pullRange.ts";
import type { ComparedPlan } from "../../core/plan/advice/offers.ts";
import type { Remedy } from "../../core/plan/advice/remedies.ts";
import { builtWalls } from "../../core/plan/builtWalls.ts";
import { coarseEngineOf, coarsePlan, practise } from "../../core/plan/coarse.ts";
import type { PlanDocument } from "../../core/plan/document/document.ts";
import { PlanEngine, type PlanResult } from "../../core/plan/engine.ts";
import type { StandingProof } from "../../core/plan/proof/standing.ts";
import { bundleOf, type PlanBundle, packBundle, RESULTS_VERSION } from "../../core/plan/results/bundle.ts";
import type { PlanIds } from "../../core/plan/results/figures.ts";
import { type SectionsAsBuilt, sectionsAsBuilt } from "../../core/plan/sectionsAsBuilt.ts";
import { resultKeyText } from "../../core/plan/stages/keys.ts";
import { effortOf, type Fineness, settledStepMm } from "../../core/plan/stages/steps.ts";
import { NotASolid, provideSolidKernel } from "../../core/solids/kernel.ts";
import type { Rates } from "../../core/takeoff/rates.ts";
import { takeoff } from "../../core/takeoff/takeoff.ts";
import { proposeUnit, type UnitProposal } from "../../core/units/index.ts";

import { call } from "../lib/http.ts";
import { seldom } from "../lib/progress.ts";
import { LookUps } from "./lookUps.ts";
import { offerPicture } from "./pictures.ts";
import { type PlanFile, planFileOf } from "./planFile.ts";
import { ARE_YOU_THERE, ENDS } from "./signals.ts";

export type Answer<T> =
  | {
      readonly ok: true;
      readonly value: T;
      /** Something that whoever looks at it should know of how it was worked out. */
      readonly notice?: string;
    }
  | { readonly ok: false; readonly cancelled: boolean; readonly message: string };

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

type Progress = (stage: string, fraction: number) => void;

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

const HELPER_LOST =
  "The second thread was lost, most likely for want of memory: this page goes on with one, more slowly. Closing other tabs and opening the piece again may help.";

/** The sections as bodies, whole, and thinned to what the stage shows. */
export interface ShownSolids extends SectionsAsBuilt {
  readonly shown: readonly TriangleMesh[];
}

/** Triangles of all solids together that the stage shows. */
const SOLID_TRIANGLES = 110_000;

/** A bundle as bytes that are handed over, not copied. */
function packed(bundle: PlanBundle): Uint8Array {
  const bytes = packBundle(bundle);
  return Comlink.transfer(bytes, [bytes.buffer as ArrayBuffer]);
}

class GeometryWorker extends LookUps {
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
  protected team: Team = ALONE;
  private readonly started = startTeam();
  private fineness: Fineness = "usual";

  /** @param flags shared memory, an int for each of `ENDS`: anything but 0 ends what it stands for */
  connect(flags: SharedArrayBuffer | null): void {
    this.flags = flags ? new Int32Array(flags) : null;
  }

  /** Gets quick by working for nobody, until it is told to end that. */
  async practise(): Promise<void> {
    this.team = await this.started;
    await this.guarded(async () => practise(this.context(() => {}, 1, ENDS.practice)));
  }

  /** How finely plans are settled from now on. */
  setFineness(fineness: Fineness): void {
    this.fineness = fineness;
    this.fine = this.fine?.withEffort(effortOf(fineness)) ?? null;
  }

  async open(ticket: number, bytes: Uint8Array, name: string, onProgress: Progress): Promise<Answer<ScanFacts>> {
    return this.guarded(async () => {
      this.team = await this.started;
      const scan = await readScan(bytes, name, this.context(onProgress, ticket));
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

  /**
   * A whole plan, coarse or settled, packed.
   * @param onStanding is told what lines that were moved come to with the fills as they stand, as soon as it is known
   */
  async plan(
    ticket: number,
    document: PlanDocument,
    rates: Rates,
    quality: "coarse" | "settled",
    onProgress: Progress,
    onStanding?: (proof: StandingProof) => void,
  ): Promise<Answer<Uint8Array>> {
    return this.guarded(async () => {
      const started = performance.now();
      const ctx = this.context(onProgress, ticket);
      if (!this.fine) throw new Error("No scan is open.");
      const timings = () => ({ readMs: 0, planMs: 0, totalMs: performance.now() - started });
      if (quality === "coarse") {
        const { result, wholePiece } = this.atFirst(document, rates, ctx);
        return packed(await bundleOf(result, timings(), ctx.team, wholePiece));
      }
      const piece = this.fine.pieceFor(document, ctx);
      const stepMm = this.settledStep(document, piece.areaMm2);
      const standing = onStanding && this.fine.standing(document, rates, stepMm, ctx);
      if (standing) onStanding?.(standing);
      const result = this.fine.run(document, rates, stepMm, ctx);
      this.last = { madeFrom: this.madeFrom(document, rates), result };
      this.shown = this.fine;
      return packed(await bundleOf(result, timings(), ctx.team));
    });
  }

  /** The coarse answer in short, for a scan that is not on the shelf yet; kept for when it is asked for in full. */
  async glance(
    ticket: number,
    document: PlanDocument,
    rates: Rates,
    onProgress: Progress,
  ): Promise<Answer<FirstGlance>> {
    return this.guarded(async () => {
      const { piece, jacket, parting } = this.atFirst(document, rates, this.context(onProgress, ticket)).result;
      const { siliconeG, costMinor } = takeoff(document, jacket, parting, rates);
      return {
        heightMm: piece.sizeMm[2],
        sections: parting.sections.length,
        siliconeG,
        costMinor,
        mesh: piece.mesh,
      };
    });
  }

  /** Seats and mends the scan, so that it is done when its plan is asked for. */
  async lookOver(document: PlanDocument): Promise<Answer<null>> {
    return this.guarded(async () => {
      this.fine?.pieceFor(
        document,
        this.context(() => {}, Number.POSITIVE_INFINITY),
      );
      return null;
    });
  }

  /** The coarse answer; what it says of the piece itself is not coarse where the piece has been looked over. */
  private atFirst(document: PlanDocument, rates: Rates, ctx: JobContext): { result: PlanResult; wholePiece: boolean } {
    if (!this.scan) throw new Error("No scan is open.");
    this.coarse ??= coarseEngineOf(this.scan);
    const result = coarsePlan(this.coarse, document, rates, this.fineness, ctx);
    const others = result.warnings.filter(({ kind }) => kind !== "scan");
    const whole = this.fine?.pieceKnown(document);
    if (!whole) return { result: { ...result, warnings: others }, wholePiece: false };
    const piece = { ...whole, mesh: result.piece.mesh };
    return {
      result: {
        ...result,
        piece,
        warnings: [...whole.report.warnings.map((text) => ({ kind: "scan", text }) as const), ...others],
      },
      wholePiece: true,
    };
  }

  /** The best plan of every number of sections; each is told, with its picture, as it is found. */
  async compare(
    ticket: number,
    document: PlanDocument,
    rates: Rates,
    onProgress: Progress,
    onPlan: (plan: ShownOffer) => void,
  ): Promise<Answer<number>> {
    return this.guarded(async () => {
      if (!this.fine) throw new Error("No scan is open.");
      const engine = this.fine;
      const ctx = this.context(onProgress, ticket);
      const settledMm = this.settledStep(document, engine.pieceFor(document, ctx).areaMm2);
      const plans = await engine.compare(document, rates, settledMm, ctx, async (plan) => {
        const mesh = engine.surveyed(document, settledMm);
        if (!mesh) return;
        const { label, lines: _lines, ...offer } = plan;
        onPlan({ ...offer, picture: await offerPicture(mesh, label) });
      });
      return plans.length;
    });
  }

  /** From where every section of the settled plan could be pulled; plans first where the plan is not held here. */
  async ranges(
    ticket: number,
    document: PlanDocument,
    rates: Rates,
    onProgress: Progress,
  ): Promise<Answer<PullRange[]>> {
    return this.guarded(async () => {
      if (!this.fine) throw new Error("No scan is open.");
      const ctx = this.context(onProgress, ticket);
      const settledMm = this.settledStep(document, this.fine.pieceFor(document, ctx).areaMm2);
      return this.fine.rangesFor(document, rates, settledMm, ctx);
    });
  }

  /** What would free a section of the settled plan, or do without its fill; each tried, proven and told as it is found. */
  async remedies(
    ticket: number,
    document: PlanDocument,
    rates: Rates,
    section: number,
    onProgress: Progress,
    onRemedy: (remedy: Remedy) => void,
  ): Promise<Answer<Remedy[]>> {
    return this.guarded(async () => {
      if (!this.fine) throw new Error("No scan is open.");
      const ctx = this.context(onProgress, ticket);
      const settledMm = this.settledStep(document, this.fine.pieceFor(document, ctx).areaMm2);
      return this.fine.remediesFor(document, rates, settledMm, section, ctx, onRemedy);
    });
  }

  /** Works out what the next edit of the document's lines is measured against. */
  async prepare(ticket: number, document: PlanDocument, rates: Rates, onProgress: Progress): Promise<Answer<null>> {
    return this.guarded(async () => {
      if (!this.fine) throw new Error("No scan is open.");
      const ctx = this.context(onProgress, ticket);
      const stepMm = this.settledStep(document, this.fine.pieceFor(document, ctx).areaMm2);
      this.fine.prepare(document, rates, stepMm, ctx);
      if (document.parting.layout && this.shown !== this.fine) {
        // What stays the same from edit to edit is thinned but once: before the first.
        await bundleOf(this.fine.run(document, rates, stepMm, ctx), { readMs: 0, planMs: 0, totalMs: 0 }, ctx.team);
        this.shown = this.fine;
      }
      return null;
    });
  }

  /** The lines in hand with what is held as it is, and the rest suggested again. */
  async rest(
    ticket: number,
    document: PlanDocument,
    rates: Rates,
    sections: number,
    onProgress: Progress,
  ): Promise<Answer<Layout>> {
    return this.guarded(async () => {
      if (!this.fine) throw new Error("No scan is open.");
      const ctx = this.context(onProgress, ticket);
      const settledMm = this.settledStep(document, this.fine.pieceFor(document, ctx).areaMm2);
      return this.fine.restFor(document, rates, settledMm, sections, ctx);
    });
  }

  /** Leaves a packed result on the server; losing it costs only time. */
  async keep(partPath: string, hash: string, bytes: Uint8Array): Promise<void> {
    await call(`${partPath}/results/${hash}`, {
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
    return resultKeyText("", document, { rates, fineness: this.fineness }, RESULTS_VERSION);
  }

  /** A file of the settled plan for taking elsewhere; the plan must be held. */
  async exportFile(kind: PlanFile): Promise<Answer<Uint8Array | string>> {
    return this.guarded(async () => {
      if (!this.last) throw new Error("There is no settled plan to write out.");
      return planFileOf(this.last.result, kind);
    });
  }

  /**
   * The sections as solids, of the settled plan that is held or worked out first.
   * @param ids of lines and sections, in their order: what was decided for single ones goes by them
   * @param name of the piece, raised on the sections
   */
  async solids(
    ticket: number,
    document: PlanDocument,
    rates: Rates,
    ids: PlanIds,
    name: string,
    onProgress: Progress,
  ): Promise<Answer<ShownSolids>> {
    return this.guarded(async () => {
      if (!this.fine) throw new Error("No scan is open.");
      const ctx = this.context(onProgress, ticket);
      const stepMm = this.settledStep(document, this.fine.pieceFor(document, ctx).areaMm2);
      const result = this.fine.run(document, rates, stepMm, ctx);
      this.last = { madeFrom: this.madeFrom(document, rates), result };
      const walls = builtWalls(result.walls, document, ids.lines);
      const built = await sectionsAsBuilt(result, document, walls, ctx, { ids: ids.sections, name });
      const total = built.sections.reduce((sum, { mesh }) => sum + mesh.triangles.length, 0) || 1;
      const shown = await thinned(
        built.sections.map(({ mesh }) => ({
          mesh,
          triangles: Math.min(mesh.triangles.length / 3, Math.round((SOLID_TRIANGLES * mesh.triangles.length) / total)),
        })),
        ctx.team,
      );
      return { ...built, shown };
    });
  }

  private settledStep(document: PlanDocument, areaMm2: number): number {
    return settledStepMm(document, areaMm2, this.fineness);
  }

  /** @param ticket number of the work; what is ended up to that number ends it */
  private context(onProgress: Progress, ticket: number, ends: number = ENDS.work): JobContext {
    return {
      progress: seldom(onProgress),
      checkCancelled: () => {
        if (this.flags && Atomics.load(this.flags, ends) >= ticket) throw new Cancelled();
      },
      nowMs: () => performance.now(),
      team: this.team,
    };
  }

  /** Failures travel as data. */
  private async guarded<T>(work: () => Promise<T>): Promise<Answer<T>> {
    try {
      const value = await work();
      const lost = this.team instanceof SharedTeam && this.team.lost !== null;
      return (lost ? { ok: true, value, notice: HELPER_LOST } : { ok: true, value }) as Answer<T>;
    } catch (error) {
      if (error instanceof Cancelled) return { ok: false, cancelled: true, message: "Cancelled." };
      const message =
        error instanceof ScanProblem || error instanceof NotASolid
          ? error.message
          : `This could not be worked out: ${(error as Error).message}`;
      return { ok: false, cancelled: false, message };
    }
  }
}

export type GeometryApi = GeometryWorker;
provideSolidKernel(async () => (await fetch(solidWasm)).arrayBuffer());
provideDraco(async () => (await fetch(dracoWasm)).arrayBuffer());
Comlink.expose(new GeometryWorker());
