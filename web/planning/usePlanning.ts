/**
 * Keeps the plan's results in step with its document: from the server when somebody has worked them out before, else
 * from the geometry worker, a coarse answer first and the settled one after. An edit cancels what it overtakes.
 */

import { useCallback, useContext, useEffect, useMemo, useRef, useState } from "react";
import { bundleFigures } from "../../contract/figures.ts";
import { type Part, type Piece, partPath } from "../../contract/pieces.ts";
import { sameMesh, type TriangleMesh } from "../../core/mesh/mesh.ts";
import type { Layout } from "../../core/parting/layout/layout.ts";
import type { PullRange } from "../../core/parting/search/pullRange.ts";
import type { Remedy } from "../../core/plan/advice/remedies.ts";
import type { PlanDocument } from "../../core/plan/document/document.ts";
import type { StandingProof } from "../../core/plan/proof/standing.ts";
import { type PlanBundle, unpackBundle } from "../../core/plan/results/bundle.ts";
import { figuresOf, type PlanFigures, type PlanIds, type ShownPlan } from "../../core/plan/results/figures.ts";
import { identifiable, identified } from "../../core/plan/results/identified.ts";
import { comparisonKey, hostStageKey } from "../../core/plan/stages/keys.ts";
import type { Fixings } from "../../core/takeoff/fixings.ts";
import { notePlanned, usePlan } from "../document/planStore.ts";
import { call } from "../lib/http.ts";
import { openPart } from "../lib/queries.ts";
import { SettingsContext } from "../lib/show.ts";
import { type Begun, planKey, takeKept } from "../workers/begun.ts";
import {
  type Answer,
  freshGeometry,
  type Geometry,
  type PlanFile,
  proxied,
  type ShownOffer,
  type ShownSolids,
} from "../workers/geometry.ts";
import { useFixings } from "./useFixings.ts";

export interface Planning {
  readonly bundle: ShownPlan | null;
  readonly quality: "coarse" | "settled" | null;
  /** Figures of the plan before the last edit, for the differences; null when there was none. */
  readonly before: PlanFigures | null;
  /** Figures of what is being moved, at a glance; null when nothing is. */
  readonly glance: PlanFigures | null;
  readonly setGlance: (figures: PlanFigures | null) => void;
  /** What lines that were moved come to with the fills as they stand; null once the plan is settled. */
  readonly standing: StandingProof | null;
  readonly progress: { readonly stage: string; readonly fraction: number } | null;
  readonly problem: string | null;
  /** Something to know of how the plan was worked out. */
  readonly notice: string | null;
  readonly geometry: Geometry | null;
  /** What is counted on walls and jacket; undefined until it is. */
  readonly fixings: Fixings | undefined;
  /** Are bolts, keys and straps counted for the plan as it stands? Until then they are missing, or those of before. */
  readonly isCounted: boolean;
  /** A file of the plan as it stands; works the plan out here first where it came ready from the server. */
  readonly takeFile: (kind: PlanFile) => Promise<Answer<Uint8Array | string>>;
  /** Looks for the best plan of every number of sections; each is handed over as it is found. */
  readonly compare: (onPlan: (plan: ShownOffer) => void) => Promise<Answer<number>>;
  /** From where every section could be pulled, in their order. */
  readonly ranges: () => Promise<Answer<PullRange[]>>;
  /** What would free a section of the settled plan, or do without its fill; each is handed over as it is found. */
  readonly remedies: (section: number, onRemedy: (remedy: Remedy) => void) => Promise<Answer<Remedy[]>>;
  /** Gets ready what a plan of lines in hand needs, where the plan shown came from the server. */
  readonly prepare: () => void;
  /** The lines in hand with the rest suggested again round what is held. */
  readonly rest: (sections: number) => Promise<Answer<Layout>>;
  /** The sections of the plan as it stands, as solids. */
  readonly solids: () => Promise<Answer<ShownSolids>>;
  readonly cancel: () => void;
  readonly again: () => void;
  /** Key of the plan's result on the server, once it is there; null where the page cannot work it out. */
  readonly resultKey: () => Promise<string | null>;
  /** Names what a comparison of plans depends on. */
  readonly comparedBy: string;
}

type Report = (stage: string, fraction: number) => void;

/** An edit waits so long for the next one: a figure is typed digit by digit. */
const PAUSE_MS = 250;
/** A line that was let go of stays. */
const MOVED_PAUSE_MS = 40;

export function usePlanning(piece: Piece): Planning {
  const part = openPart(piece);
  const document = usePlan((plan) => (plan.partId === part.id ? plan.document : null));
  const { rates, fineness } = useContext(SettingsContext);
  const [bundle, setBundle] = useState<PlanBundle | null>(null);
  const [quality, setQuality] = useState<Planning["quality"]>(null);
  /** What the shown plan was made from. */
  const [shownKey, setShownKey] = useState<string | null>(null);
  const [before, setBefore] = useState<PlanFigures | null>(null);
  const [glance, setGlance] = useState<PlanFigures | null>(null);
  /** What was proven first of moved lines, and of which plan. */
  const [first, setFirst] = useState<{ readonly key: string; readonly proof: StandingProof } | null>(null);
  const [progress, setProgress] = useState<Planning["progress"]>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [notice, setNotice] = useState<string | null>(null);
  const [geometry, setGeometry] = useState<Geometry | null>(null);
  const [round, setRound] = useState(0);
  const settled = useRef<PlanFigures | null>(null);
  const jacketShown = useRef<string | null>(null);
  const opened = useRef<Promise<string | null> | null>(null);
  /** What the shelf began on. */
  const begun = useRef<Begun | null>(null);
  /** The last result on its way to the server. */
  const keeping = useRef<Promise<void>>(Promise.resolve());

  useEffect(() => {
    begun.current = takeKept(part.scanId);
    const worker = begun.current?.geometry ?? freshGeometry();
    setGeometry(worker);
    opened.current = begun.current && Promise.resolve(null);
    settled.current = null;
    return () => worker.end();
  }, [part.scanId]);

  const key = document ? planKey(part.scanSha256, document, { rates, fineness }) : null;
  const jacketKey = document ? hostStageKey("jacket", document, { rates, fineness }) : null;

  // biome-ignore lint/correctness/useExhaustiveDependencies: the key stands for the document and the rates; `round` asks again.
  useEffect(() => {
    if (!document || !key || !geometry) return;
    let overtaken = false;
    const show = (next: PlanBundle, how: "coarse" | "settled") => {
      if (overtaken) return;
      setBundle((shown) => (shown ? sharing(next, shown) : next));
      setGlance(null);
      setShownKey(key);
      setQuality(how);
      if (how === "settled") jacketShown.current = jacketKey;
    };
    const report = proxied((stage: string, fraction: number) => {
      if (!overtaken) setProgress({ stage, fraction });
    });
    const start = performance.now();
    const tellFirst = proxied((proof: StandingProof) => {
      performance.measure("first proof", { start });
      if (!overtaken) setFirst({ key, proof });
    });
    // Lines laid by hand on the jacket that is shown were glanced at: a coarse answer would tell less.
    const moved = document.parting.layout !== null && jacketShown.current === jacketKey;
    const timer = setTimeout(
      async () => {
        setProblem(null);
        const hash = await sha256(key);
        let done = false;
        const known = hash ? fetchBundle(hash) : Promise.resolve(null);
        const fetched = known.then((found) => {
          if (!found || overtaken || done) return;
          setProgress(null);
          show(found, "settled");
          // Nothing else may be shown for this document, and what was begun for it need not be ended.
          overtaken = true;
          if (moved || begun.current) geometry.cancel();
        });
        // A line just moved is worked out without waiting for word that nobody has done so before.
        if (!moved) await fetched;
        if (overtaken) return;
        opened.current ??= openScan(geometry, part, report);
        const trouble = await opened.current;
        if (overtaken) return;
        if (trouble) {
          opened.current = null;
          setProblem(trouble);
          setProgress(null);
          return;
        }
        void geometry.api.setFineness(fineness);
        for (const how of moved ? (["settled"] as const) : (["coarse", "settled"] as const)) {
          const answer = await (begun.current?.answer(part.scanSha256, key, how, report) ??
            geometry.api.plan(geometry.ticket(), document, rates, how, report, moved ? tellFirst : undefined));
          if (overtaken) return;
          if (!answer.ok) {
            begun.current = null;
            setProblem(answer.cancelled ? "Stopped. What is shown may be from before the last edit." : answer.message);
            setProgress(null);
            return;
          }
          const next = unpackBundle(answer.value);
          setNotice(answer.notice ?? null);
          done = how === "settled";
          if (done) begun.current = null;
          if (next) show(next, how);
          if (how === "settled" && hash)
            keeping.current = geometry.keep(partPath(piece.id, part.id), hash, answer.value);
        }
        setProgress(null);
      },
      moved ? MOVED_PAUSE_MS : PAUSE_MS,
    );
    return () => {
      overtaken = true;
      begun.current = null;
      clearTimeout(timer);
      geometry.cancel();
    };
  }, [key, geometry, round]);

  /** Opens the scan where it is not open yet, then asks the worker; tells progress all along. */
  const ask = useCallback(
    async <T>(
      question: (geometry: Geometry, document: PlanDocument, report: Report) => Promise<Answer<T>>,
    ): Promise<Answer<T>> => {
      if (!geometry || !document) return { ok: false, cancelled: false, message: "No piece is open." };
      const report = proxied((stage: string, fraction: number) => setProgress({ stage, fraction }));
      opened.current ??= openScan(geometry, part, report);
      const trouble = await opened.current;
      const answer: Answer<T> = trouble
        ? { ok: false, cancelled: false, message: trouble }
        : await question(geometry, document, report);
      setProgress(null);
      return answer;
    },
    [geometry, document, part],
  );
  const takeFile = useCallback(
    async (kind: PlanFile): Promise<Answer<Uint8Array | string>> => {
      if (!geometry || !document) return { ok: false, cancelled: false, message: "No piece is open." };
      if (!(await geometry.api.holds(document, rates))) {
        const answer = await ask((at, plan, report) => at.api.plan(at.ticket(), plan, rates, "settled", report));
        if (!answer.ok) return answer;
      }
      return geometry.api.exportFile(kind);
    },
    [geometry, document, rates, ask],
  );
  const compare = useCallback(
    (onPlan: (plan: ShownOffer) => void) =>
      ask((at, plan, report) => at.api.compare(at.ticket(), plan, rates, report, proxied(onPlan))),
    [ask, rates],
  );
  const ranges = useCallback(
    () => ask((at, plan, report) => at.api.ranges(at.ticket(), plan, rates, report)),
    [ask, rates],
  );
  const remedies = useCallback(
    (section: number, onRemedy: (remedy: Remedy) => void) =>
      ask((at, plan, report) => at.api.remedies(at.ticket(), plan, rates, section, report, proxied(onRemedy))),
    [ask, rates],
  );
  const prepare = useCallback(
    () => void ask((at, plan, report) => at.api.prepare(at.ticket(), plan, rates, report)),
    [ask, rates],
  );
  const rest = useCallback(
    (sections: number) => ask((at, plan, report) => at.api.rest(at.ticket(), plan, rates, sections, report)),
    [ask, rates],
  );
  const ids = useRef<PlanIds>({ lines: [], sections: [] });
  const solids = useCallback(
    () => ask((at, plan, report) => at.api.solids(at.ticket(), plan, rates, ids.current, piece.name, report)),
    [ask, rates, piece.name],
  );
  // Quantities, hours and money follow from the document and the rates at once; the worker is not asked.
  const known = document?.identity;
  const parting = document?.parting;
  const identity = useMemo(
    () => bundle && known && parting && identified(identifiable(bundle, parting), known),
    [bundle, known, parting],
  );
  const { fixings, current: isCounted } = useFixings(quality === "settled" ? bundle : null, document, identity || null);
  const shown = useMemo(
    (): ShownPlan | null =>
      (bundle &&
        document &&
        identity && { ...bundle, figures: figuresOf(bundle.figures, document, rates, identity, fixings) }) ||
      null,
    [bundle, document, rates, identity, fixings],
  );
  if (shown) ids.current = shown.figures.ids;
  const isProven = quality === "settled" && shownKey === key;
  // What an edit changed is told against figures that are whole.
  const isSettled = isProven && isCounted;
  useEffect(() => {
    if (!shown) return;
    setBefore(settled.current);
    if (isSettled) settled.current = shown.figures;
  }, [shown, isSettled]);
  // Lines that were suggested stay when prices change, and ids when sections are numbered again: the document keeps both.
  useEffect(() => {
    if (isProven && identity) notePlanned(part.id, rates, identity);
  }, [isProven, part.id, rates, identity]);
  const resultKey = useCallback(async () => {
    await keeping.current;
    return key ? sha256(key) : null;
  }, [key]);
  const cancel = useCallback(() => geometry?.cancel(), [geometry]);
  const again = useCallback(() => setRound((n) => n + 1), []);
  return {
    bundle: shown,
    // Once the document has moved on, what is shown is no more than a first guess at it.
    quality: quality && !isProven ? "coarse" : quality,
    before,
    glance,
    setGlance,
    standing: first && first.key === key && !isProven ? first.proof : null,
    progress,
    problem,
    notice,
    geometry,
    fixings,
    isCounted,
    takeFile,
    compare,
    ranges,
    remedies,
    rest,
    solids,
    prepare,
    cancel,
    again,
    resultKey,
    comparedBy: document ? comparisonKey(document, { rates, fineness }) : "",
  };
}

/** @returns what went wrong, or null */
async function openScan(geometry: Geometry, part: Part, report: Report): Promise<string | null> {
  try {
    const response = await call(`/scans/${part.scanId}/content`);
    const bytes = new Uint8Array(await response.arrayBuffer());
    const answer = await geometry.open(bytes, part.scanName, report);
    return answer.ok ? null : answer.message;
  } catch (error) {
    return error instanceof Error ? error.message : "The scan could not be fetched.";
  }
}

/** A result that was kept on the server; null where it is not there or cannot be had: then it is worked out here. */
async function fetchBundle(hash: string): Promise<PlanBundle | null> {
  try {
    const response = await call(`/results/${hash}`);
    const bundle = unpackBundle(new Uint8Array(await response.arrayBuffer()));
    // What another program left there under this key is worked out afresh.
    return bundle && bundleFigures.safeParse(bundle.figures).success ? bundle : null;
  } catch {
    return null;
  }
}

/** The next bundle with the meshes of the shown one where they are the same: what has not changed is not drawn again. */
function sharing(next: PlanBundle, shown: PlanBundle): PlanBundle {
  const kept = (mesh: TriangleMesh, held: TriangleMesh | undefined) => (held && sameMesh(mesh, held) ? held : mesh);
  return {
    ...next,
    piece: kept(next.piece, shown.piece),
    jacket: kept(next.jacket, shown.jacket),
    survey: kept(next.survey, shown.survey),
    skins: next.skins.map((skin, k) => kept(skin, shown.skins[k])),
  };
}

/** Hex hash, or null where the page has no crypto (plain http from afar): then nothing is cached. */
async function sha256(text: string): Promise<string | null> {
  if (!globalThis.crypto?.subtle) return null;
  const digest = await crypto.subtle.digest("SHA-256", new TextEncoder().encode(text));
  return Array.from(new Uint8Array(digest), (byte) => byte.toString(16).padStart(2, "0")).join("");
}

export type EditPlan = (change: (document: PlanDocument) => PlanDocument) => void;
