/** The demo workshop: three pieces, each at its own station, with their plans already worked out. */
import { createHash } from "node:crypto";
import type { Sequelize } from "sequelize";
import { DEFAULT_SETTINGS } from "../contract/settings.ts";
import { drawPortrait } from "../core/display/portrait.ts";
import { writeStl } from "../core/export/stl.ts";
import { type JobContext, plainContext } from "../core/job/context.ts";
import type { Team } from "../core/job/team.ts";
import type { TriangleMesh } from "../core/mesh/mesh.ts";
import { newPlan, type PlanDocument } from "../core/plan/document/document.ts";
import { PlanEngine, type PlanResult } from "../core/plan/engine.ts";
import { bundleOf, packBundle, RESULTS_VERSION } from "../core/plan/results/bundle.ts";
import { resultKeyText } from "../core/plan/stages/keys.ts";
import { settledStepMm } from "../core/plan/stages/steps.ts";
import type { Direction } from "../core/space/directions.ts";
import { takeoff } from "../core/takeoff/takeoff.ts";
import { threadTeam } from "../server/compute/team.ts";
import { Cover, PieceRow, Result, ScanRow, StoreRow } from "../server/db/models.ts";
import { storeBlob } from "../server/features/blobs.ts";
import { addPiece } from "../server/features/pieces/service.ts";
import { ensureWorkshop } from "../server/features/workshop.ts";
import { makeLamplighter } from "./pieces/lamplighter.ts";
import { makeRelief } from "./pieces/relief.ts";
import { makeWalrus } from "./pieces/walrus.ts";
import { encodePng } from "./png.ts";
import { demoStore } from "./store.ts";

interface DemoPiece {
  readonly name: string;
  readonly file: string;
  readonly make: () => TriangleMesh;
  readonly station: string;
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
      shell: { ...base.shell, system: "polyester-mat" },
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

/** What an empty database is given. */
interface MadePiece {
  readonly demo: DemoPiece;
  readonly mesh: TriangleMesh;
  readonly result: PlanResult;
}

/**
 * Makes the pieces and their plans, and keeps them in an empty database; `tell` is told of each. All are made before any
 * is kept: who ends it meanwhile finds an empty database, not half a workshop.
 */
export async function makeDemoWorkshop(
  sequelize: Sequelize,
  scanLimitBytes: number,
  tell: (piece: string) => void,
): Promise<void> {
  const ctx: JobContext = { ...plainContext, team: threadTeam() };
  const made = PIECES.map((demo): MadePiece => {
    const mesh = demo.make();
    const engine = new PlanEngine(mesh);
    const step = settledStepMm(demo.plan, engine.pieceFor(demo.plan, ctx).areaMm2, DEFAULT_SETTINGS.fineness);
    const result = engine.run(demo.plan, DEFAULT_SETTINGS.rates, step, ctx);
    tell(demo.name);
    return { demo, mesh, result };
  });
  const acting = await ensureWorkshop("Harbour Lane mould shop", "Planner");
  for (const piece of made) await keep(sequelize, acting, piece, scanLimitBytes, ctx.team);
  const document = demoStore(new Date().toISOString().slice(0, 10));
  await StoreRow.create({ workshopId: acting.workshopId, revision: 1, document });
}

async function* once(bytes: Uint8Array): AsyncGenerator<Buffer> {
  yield Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength);
}

const limited = (bytes: number) => ({ bytes, advice: "The demo's own pieces are smaller." });

async function keep(
  sequelize: Sequelize,
  acting: Awaited<ReturnType<typeof ensureWorkshop>>,
  { demo, mesh, result }: MadePiece,
  scanLimitBytes: number,
  team: Team,
): Promise<void> {
  const { scan, sha256 } = await storeBlob(
    sequelize,
    acting.workshopId,
    once(writeStl(mesh)),
    limited(scanLimitBytes),
    async (blob, transaction) => ({
      scan: await ScanRow.create({ workshopId: acting.workshopId, blobId: blob.id, name: demo.file }, { transaction }),
      sha256: blob.sha256,
    }),
  );
  const { rates, fineness } = DEFAULT_SETTINGS;
  const bundle = packBundle(await bundleOf(result, { readMs: 0, planMs: 0, totalMs: 0 }, team));
  const resultKey = createHash("sha256")
    .update(resultKeyText(sha256, demo.plan, { rates, fineness }, RESULTS_VERSION))
    .digest("hex");
  await storeBlob(sequelize, acting.workshopId, once(bundle), limited(bundle.length + 1), async (blob, transaction) => {
    await Result.upsert({ workshopId: acting.workshopId, resultKey, blobId: blob.id }, { transaction });
  });
  const piece = await addPiece(sequelize, acting, { name: demo.name, scanId: scan.id, document: demo.plan });
  const { parting } = result;
  const { siliconeG } = takeoff(demo.plan, result.jacket, parting, rates);
  const summary = `${parting.sections.length} ${parting.sections.length === 1 ? "section" : "sections"}, ${(siliconeG / 1000).toFixed(1)} kg silicone`;
  await PieceRow.update({ station: demo.station, summary }, { where: { id: piece.id } });
  const image = encodePng(drawPortrait(mesh, 480, 400, demo.view, [226, 219, 204]));
  await Cover.create({ pieceId: piece.id, workshopId: acting.workshopId, image });
}
