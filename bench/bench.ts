/**
 * `./run bench`: times every stage on scans of 62 000, 250 000 and 1 000 000 triangles and at steps of 8, 4 and 2 mm,
 * and gives each as a ratio to references measured in the same run: closest points and first-hit rays of the
 * three-mesh-bvh package on the same mesh, sampled. Writes bench-results/bench.json.
 */
import { mkdirSync, writeFileSync } from "node:fs";
import { BufferAttribute, BufferGeometry, Ray, Vector3 } from "three";
import { MeshBVH } from "three-mesh-bvh";
import { writeStl } from "../core/export/stl.ts";
import { makeJacket } from "../core/jacket/jacket.ts";
import { plainContext } from "../core/job/context.ts";
import { readScan } from "../core/mesh/io/index.ts";
import type { TriangleMesh } from "../core/mesh/mesh.ts";
import { repairScan } from "../core/mesh/repair.ts";
import { surfaceOf } from "../core/parting/layout/surface.ts";
import { seamRoute } from "../core/parting/seam/seamRoute.ts";
import { THOROUGH } from "../core/parting/search/request.ts";
import { coarseEngineOf, coarsePlan } from "../core/plan/coarse.ts";
import { newPlan, type PlanDocument } from "../core/plan/document/document.ts";
import { PlanEngine } from "../core/plan/engine.ts";
import { planSections } from "../core/plan/proof/sections.ts";
import { SurveyStage, surveyRequestFor } from "../core/plan/proof/surveyStage.ts";
import { partingPrices } from "../core/takeoff/prices.ts";
import { TYPICAL_RATES } from "../core/takeoff/rates.ts";
import { threadTeam } from "../server/compute/team.ts";
import { benchMaterials } from "./materials.ts";
import { benchDemoPieces, benchGraphCut, type PartingRow } from "./parting.ts";
import { benchShell } from "./shell.ts";
import { benchHardPieces, benchRelease, benchStrangers } from "./strangers.ts";
import { benchSystems } from "./systems.ts";

const ctx = { ...plainContext, nowMs: () => performance.now(), team: threadTeam() };
const plan = newPlan();

/** A bumpy body 1.8 m tall with folds at three scales: 2 n (n / 2 - 1) triangles. */
function bumpyScan(n: number): Uint8Array {
  const rings = n / 2;
  const positions = new Float32Array(n * (rings + 1) * 3);
  for (let j = 0; j <= rings; j++) {
    const v = (Math.PI * j) / rings;
    for (let i = 0; i < n; i++) {
      const u = (2 * Math.PI * i) / n;
      const r =
        300 *
        (1 +
          0.25 * Math.sin(3 * u + 4 * v) +
          0.1 * Math.sin(13 * u) * Math.sin(11 * v) +
          0.02 * Math.sin(60 * u) * Math.sin(70 * v));
      positions.set(
        [r * Math.sin(v) * Math.cos(u) * 1.2, r * Math.sin(v) * Math.sin(u), 900 - 900 * Math.cos(v)],
        3 * (i + n * j),
      );
    }
  }
  const triangles: number[] = [];
  for (let j = 0; j < rings; j++) {
    for (let i = 0; i < n; i++) {
      const [a, b, c, d] = [i + n * j, ((i + 1) % n) + n * j, ((i + 1) % n) + n * (j + 1), i + n * (j + 1)];
      if (j > 0) triangles.push(a, b, c);
      if (j < rings - 1) triangles.push(a, c, d);
    }
  }
  return writeStl({ positions, triangles: Uint32Array.from(triangles) });
}

async function timed<T>(work: () => T | Promise<T>): Promise<{ ms: number; value: T }> {
  const started = performance.now();
  const value = await work();
  return { ms: performance.now() - started, value };
}

/** Milliseconds for a million closest points near the surface, and for a million first-hit rays, by the reference. */
function reference(mesh: TriangleMesh): { closestMs: number; raysMs: number } {
  const geometry = new BufferGeometry();
  geometry.setAttribute("position", new BufferAttribute(mesh.positions, 3));
  geometry.setIndex(new BufferAttribute(mesh.triangles.slice(), 1));
  const bvh = new MeshBVH(geometry);
  const samples = 20_000;
  const points = Array.from({ length: samples }, (_, k) => {
    const v = 3 * Math.floor(((k * 0.618034) % 1) * (mesh.positions.length / 3));
    return new Vector3(mesh.positions[v] + 9, mesh.positions[v + 1] - 7, mesh.positions[v + 2] + 5);
  });
  let started = performance.now();
  for (const point of points) bvh.closestPointToPoint(point);
  const closestMs = ((performance.now() - started) * 1e6) / samples;
  started = performance.now();
  for (const point of points) bvh.raycastFirst(new Ray(point, new Vector3(0.6, -0.64, 0.48)));
  return { closestMs, raysMs: ((performance.now() - started) * 1e6) / samples };
}

interface Row {
  readonly stage: string;
  readonly triangles: number;
  readonly stepMm: number | null;
  readonly ms: number;
  readonly ratio: number;
  readonly against: string;
}
const rows: Row[] = [];
const report = (row: Row) => {
  rows.push(row);
  process.stdout.write(
    `${row.stage.padEnd(34)} ${String(row.triangles).padStart(8)} ${String(row.stepMm ?? "").padStart(4)} ${String(Math.round(row.ms)).padStart(7)} ms  ${row.ratio.toFixed(3)} of ${row.against}\n`,
  );
};

async function benchScan(n: number, steps: readonly number[]): Promise<void> {
  const bytes = bumpyScan(n);
  const read = await timed(async () => repairScan((await readScan(bytes, "bench.stl")).mesh).mesh);
  const mesh = read.value;
  const triangles = mesh.triangles.length / 3;
  const { closestMs, raysMs } = reference(mesh);
  const closest = "a million closest points";
  report({
    stage: "read and repair",
    triangles,
    stepMm: null,
    ms: read.ms,
    ratio: read.ms / closestMs,
    against: closest,
  });
  const raw = (await readScan(bytes, "bench.stl")).mesh;
  const glance = await timed(() => coarsePlan(coarseEngineOf(raw), plan, TYPICAL_RATES, "usual", ctx));
  report({
    stage: "first glance, from the file as read",
    triangles,
    stepMm: null,
    ms: glance.ms,
    ratio: glance.ms / closestMs,
    against: closest,
  });
  for (const stepMm of steps) {
    const jacket = await timed(() =>
      makeJacket(mesh, { coats: plan.jacket.coats, smoothingMm: 20, rimWidthMm: 60, onBoard: true, stepMm }, ctx),
    );
    const { fieldMs, jacketMs } = jacket.value.timings;
    report({ stage: "distance field", triangles, stepMm, ms: fieldMs, ratio: fieldMs / closestMs, against: closest });
    report({
      stage: "offset, closing, coats",
      triangles,
      stepMm,
      ms: jacketMs,
      ratio: jacketMs / closestMs,
      against: closest,
    });
    if (stepMm !== 4) continue;
    const request = surveyRequestFor(jacket.value, 1, [], ctx);
    const rays = `${THOROUGH.directions} directions of rays`;
    const raysAll = (raysMs * THOROUGH.directions * (request.coarse.positions.length / 3)) / 1e6;
    const stage = new SurveyStage(request);
    const survey = await timed(() => stage.table(ctx));
    report({
      stage: `survey of ${THOROUGH.directions} directions`,
      triangles,
      stepMm,
      ms: survey.ms,
      ratio: survey.ms / raysAll,
      against: rays,
    });
    const sections = await timed(() =>
      planSections(
        jacket.value,
        stage,
        {
          layout: null,
          pulls: null,
          sections: 3,
          ...{ giveMm: 1.5, mostSiliconeMm: 15, leastSectionMm2: 20_000, fills: [], mayLift: true },
          shellMm: 20,
          prices: partingPrices(newPlan(), TYPICAL_RATES),
        },
        ctx,
      ),
    );
    const surface = surfaceOf(request.coarse, 0, ctx);
    const seam = await timed(() => seamRoute(surface, { kind: "parts", slitMm: 0, keepClear: [], overMm: 0 }));
    report({
      stage: "the jacket's seam in two parts",
      triangles,
      stepMm,
      ms: seam.ms,
      ratio: seam.ms / closestMs,
      against: closest,
    });
    report({
      stage: "three sections, locks, fill, lines",
      triangles,
      stepMm,
      ms: sections.ms,
      ratio: sections.ms / closestMs,
      against: closest,
    });
  }
}

/** From the file to a plan in three sections at 5 mm, as `./run plan` does it. */
async function benchWholePlan(): Promise<void> {
  const bytes = bumpyScan(1000);
  const { mesh } = await readScan(bytes, "bumpy.stl", ctx);
  const { closestMs } = reference(mesh);
  const whole: PlanDocument = { ...plan, parting: { ...plan.parting, sections: 3 } };
  const { ms } = await timed(async () =>
    new PlanEngine((await readScan(bytes, "bumpy.stl", ctx)).mesh).run(whole, TYPICAL_RATES, 5, ctx),
  );
  report({
    stage: "from the file to three sections",
    triangles: mesh.triangles.length / 3,
    stepMm: 5,
    ms,
    ratio: ms / closestMs,
    against: "a million closest points",
  });
}

const partingRows: PartingRow[] = [];
const reportParting = (row: PartingRow) => {
  partingRows.push(row);
  const ratio = row.ratio === null ? "" : `${row.ratio.toFixed(3)}`;
  process.stdout.write(
    `${row.stage.padEnd(34)} ${row.size.padEnd(28)} ${String(Math.round(row.ms)).padStart(7)} ms  ${ratio}\n`,
  );
};
benchGraphCut(reportParting);
benchDemoPieces(ctx, reportParting);
await benchShell(ctx, reportParting);
await benchSystems(ctx, reportParting);
await benchMaterials(reportParting);
benchRelease(ctx, reportParting);
benchHardPieces(ctx, reportParting);
benchStrangers(ctx, reportParting);
await benchScan(250, [8, 4]);
await benchScan(500, [8, 4]);
await benchScan(1000, [8, 4, 2]);
await benchWholePlan();
mkdirSync("bench-results", { recursive: true });
writeFileSync(
  "bench-results/bench.json",
  JSON.stringify({ memoryBytes: process.memoryUsage.rss(), rows, partingRows }, null, 2),
);
process.stdout.write(
  `Peak resident memory about ${Math.round(process.memoryUsage.rss() / 1e6)} MB; written to bench-results/bench.json\n`,
);
