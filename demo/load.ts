/** Loads the demo workshop once: three pieces, each at its own station, with their plans already worked out. */
import { createHash } from "node:crypto";
import { pino } from "pino";
import type { Station } from "../contract/pieces.ts";
import { DEFAULT_SETTINGS } from "../contract/settings.ts";
import { drawPortrait } from "../core/export/portrait.ts";
import { writeStl } from "../core/export/stl.ts";
import { plainContext } from "../core/job/context.ts";
import type { TriangleMesh } from "../core/mesh/mesh.ts";
import { BUNDLE_VERSION, bundleOf, packBundle } from "../core/plan/bundle.ts";
import { newPlan, type PlanDocument } from "../core/plan/document.ts";
import { PlanEngine } from "../core/plan/engine.ts";
import { resultKeyText, settledStepMm } from "../core/plan/steps.ts";
import type { Direction } from "../core/survey/directions.ts";
import { threadTeam } from "../server/compute/team.ts";
import { readConfig } from "../server/config.ts";
import { migrate, openDatabase } from "../server/db/database.ts";
import { Cover, PieceRow, Result, ScanRow } from "../server/db/models.ts";
import { storeBlob } from "../server/features/blobs.ts";
import { addPiece } from "../server/features/pieces/service.ts";
import { ensureWorkshop } from "../server/features/workshop.ts";
import { makeLamplighter } from "./pieces/lamplighter.ts";
import { makeRelief } from "./pieces/relief.ts";
import { makeWalrus } from "./pieces/walrus.ts";
import { encodePng } from "./png.ts";

interface DemoPiece {
  readonly name: string;
  readonly file: string;
  readonly make: () => TriangleMesh;
  readonly station: Station;
  readonly view: Direction;
  readonly plan: PlanDocument;
}

const base = newPlan();

/** Round the hole between the lamplighter's legs, mm. */
const BETWEEN_HIS_LEGS = [
  -29, -5, 182, -25, -8, 210, -14, -11, 239, -25, -4, 269, -11, 0, 296, 20, 0, 298, 37, 0, 274, 29, 7, 244, 35, 3, 215,
  40, -2, 187, 40, -6, 158, 40, -9, 129, 39, -12, 99, 20, -11, 77, -9, -6, 76, -30, -2, 94, -31, -3, 123, -30, -4, 153,
];

const PIECES: readonly DemoPiece[] = [
  {
    name: "Gulls over waves",
    file: "gulls-relief.stl",
    make: makeRelief,
    station: "materials",
    view: [0.15, -0.8, 1],
    plan: {
      ...base,
      brief: { ...base.brief, edition: 12, castMaterial: "cast stone", castMethod: "solid", surface: "sealed plaster" },
      jacket: { ...base.jacket, coats: base.jacket.coats.slice(0, 3), smoothingMm: 12, rimWidthMm: 50 },
      survey: { ...base.survey, pull: [0, 0, 1] },
    },
  },
  {
    name: "Dozing walrus",
    file: "walrus-scan.stl",
    make: makeWalrus,
    station: "jacket",
    view: [0.75, -1, 0.45],
    plan: {
      ...base,
      brief: {
        ...base.brief,
        edition: 3,
        castMaterial: "glass-fibre concrete",
        castMethod: "face-coat",
        surface: "oil clay",
      },
      shell: { system: "polyester-mat", figures: {} },
    },
  },
  {
    name: "The lamplighter",
    file: "lamplighter-scan.stl",
    make: makeLamplighter,
    station: "parting",
    view: [0.4, -1, 0.12],
    plan: {
      ...base,
      brief: { ...base.brief, edition: 6, castMaterial: "wax for bronze", castMethod: "slush", surface: "oil clay" },
      jacket: { ...base.jacket, smoothingMm: 24, stops: [{ loop: BETWEEN_HIS_LEGS }] },
      parting: { ...base.parting, sections: 3 },
      // His face: no line is to cross it.
      zones: { ...base.zones, keepClear: [0, -100, 1610, 0, -1, 0, 62] },
    },
  },
];

const config = readConfig(process.env);
const sequelize = openDatabase(config.databaseUrl);
const team = threadTeam();
const log = pino({ level: config.logLevel });
await migrate(sequelize);
if ((await PieceRow.count()) === 0) {
  process.stdout.write("Making the demo workshop; this takes about a minute the first time...\n");
  const acting = await ensureWorkshop("Harbour Lane mould shop", "Planner");
  for (const piece of PIECES) {
    await loadPiece(acting, piece);
    process.stdout.write(`  ${piece.name}\n`);
  }
}
await sequelize.close();
log.debug("demo workshop is there");

async function* once(bytes: Uint8Array): AsyncGenerator<Buffer> {
  yield Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength);
}

async function loadPiece(acting: Awaited<ReturnType<typeof ensureWorkshop>>, demo: DemoPiece): Promise<void> {
  const mesh = demo.make();
  const { scan, sha256 } = await storeBlob(
    sequelize,
    acting.workshopId,
    once(writeStl(mesh)),
    config.scanLimitBytes,
    async (blob, transaction) => ({
      scan: await ScanRow.create({ workshopId: acting.workshopId, blobId: blob.id, name: demo.file }, { transaction }),
      sha256: blob.sha256,
    }),
  );
  const engine = new PlanEngine(mesh);
  const { rates, fineness } = DEFAULT_SETTINGS;
  const step = settledStepMm(demo.plan, engine.pieceFor(demo.plan, plainContext).areaMm2, fineness);
  const result = engine.run(demo.plan, rates, step, { ...plainContext, team });
  const bundle = packBundle(await bundleOf(result, { readMs: 0, planMs: 0, totalMs: 0 }, team));
  const resultKey = createHash("sha256")
    .update(resultKeyText(sha256, demo.plan, { rates, fineness }, BUNDLE_VERSION))
    .digest("hex");
  await storeBlob(sequelize, acting.workshopId, once(bundle), bundle.length + 1, async (blob, transaction) => {
    await Result.upsert({ workshopId: acting.workshopId, resultKey, blobId: blob.id }, { transaction });
  });
  const piece = await addPiece(sequelize, acting, { name: demo.name, scanId: scan.id, document: demo.plan });
  const { sections, estimate } = result;
  const summary = `${sections.sections.length} ${sections.sections.length === 1 ? "section" : "sections"}, ${(estimate.siliconeG / 1000).toFixed(1)} kg silicone`;
  await PieceRow.update({ station: demo.station, summary }, { where: { id: piece.id } });
  const image = encodePng(drawPortrait(mesh, 480, 400, demo.view, [226, 219, 204]));
  await Cover.create({ pieceId: piece.id, workshopId: acting.workshopId, image });
}
