/** `./run plan FILE`: the core over a scan, on the command line. Exit code 2: usage; 3: unusable piece. */
import { readFile, stat } from "node:fs/promises";
import { basename, extname } from "node:path";
import type { ZodType, z } from "zod";
import { rates as ratesSchema } from "../../contract/settings.ts";
import { zonesFile } from "../../contract/zones.ts";
import type { JobContext } from "../../core/job/context.ts";
import { type RawScan, readScan } from "../../core/mesh/io/index.ts";
import { boxSize, meshBox } from "../../core/mesh/mesh.ts";
import { ScanProblem } from "../../core/mesh/problem.ts";
import { COST_PARTS } from "../../core/parting/search/price.ts";
import type { ComparedPlan } from "../../core/plan/advice/offers.ts";
import { builtKeys } from "../../core/plan/builtKeys.ts";
import { builtWalls } from "../../core/plan/builtWalls.ts";
import type { PlanDocument } from "../../core/plan/document/document.ts";
import { PlanEngine, type PlanResult } from "../../core/plan/engine.ts";
import { type PlanReport, planReport } from "../../core/plan/planReport.ts";
import type { PlanIds } from "../../core/plan/results/figures.ts";
import { identified } from "../../core/plan/results/identified.ts";
import { NO_SOLIDS, type SectionsAsBuilt, sectionsAsBuilt } from "../../core/plan/sectionsAsBuilt.ts";
import { NotASolid } from "../../core/solids/kernel.ts";
import { TYPICAL_RATES } from "../../core/takeoff/rates.ts";
import {
  formatArea,
  formatLength,
  formatMass,
  formatMoneyMinor,
  formatVolume,
  millimetresPer,
  proposeUnit,
} from "../../core/units/index.ts";
import { provideInstalledDraco } from "../compute/draco.ts";
import { PLAN_USAGE, type PlanArguments, readPlanArguments, UsageProblem } from "./arguments.ts";
import { exportPlan } from "./exportPlan.ts";

/** A scan file larger than this is refused before it is read. */
const LARGEST_FILE_BYTES = 1.5e9;

/** Where the command writes, and what helps it. */
export interface Terminal {
  readonly out: (text: string) => void;
  readonly err: (text: string) => void;
  /** Is somebody looking? Then progress is shown. */
  readonly isWatched: boolean;
  readonly team: JobContext["team"];
}

/** @returns the exit code */
export async function planCommand(argv: readonly string[], terminal: Terminal): Promise<number> {
  const fail = (code: number, message: string): number => {
    terminal.err(`${message}\n`);
    return code;
  };
  if (argv.includes("--help") || argv.includes("-h")) {
    terminal.out(PLAN_USAGE);
    return 0;
  }
  try {
    await plan(readPlanArguments(argv), terminal);
    return 0;
  } catch (error) {
    if (error instanceof UsageProblem) return fail(2, error.message);
    if (error instanceof ScanProblem) return fail(3, error.message);
    if (isFileError(error)) return fail(2, fileMessage(error));
    if (error instanceof RangeError && /allocation|length/i.test(error.message)) {
      return fail(3, "The piece needs more memory than there is at this step; raise --step-mm.");
    }
    return fail(1, `This could not be worked out: ${error instanceof Error ? error.message : String(error)}`);
  }
}

function isFileError(error: unknown): error is NodeJS.ErrnoException {
  return error instanceof Error && typeof (error as NodeJS.ErrnoException).code === "string" && "syscall" in error;
}

function fileMessage(error: NodeJS.ErrnoException): string {
  const reason =
    error.code === "ENOENT"
      ? "there is no such file"
      : error.code === "EISDIR"
        ? "it is a folder"
        : error.code === "EACCES"
          ? "it may not be read or written"
          : String(error.code);
  return `Cannot use ${error.path ?? "the file"}: ${reason}.`;
}

async function plan(options: PlanArguments, terminal: Terminal): Promise<void> {
  const started = performance.now();
  const ctx: JobContext = {
    progress: options.json || !terminal.isWatched ? () => {} : progressLine(terminal),
    checkCancelled: () => {},
    nowMs: () => performance.now(),
    team: terminal.team,
  };
  const info = await stat(options.file);
  if (info.isDirectory()) throw new UsageProblem(`${options.file} is a folder, not a scan.`);
  if (info.size > LARGEST_FILE_BYTES)
    throw new ScanProblem(
      "too-large",
      `The file is ${Math.round(info.size / 1e6)} MB; thin the scan out below ${LARGEST_FILE_BYTES / 1e6} MB.`,
    );
  const rates = options.ratesFile
    ? await readOption("--rates", options.ratesFile, ratesSchema, TYPICAL_RATES)
    : TYPICAL_RATES;
  const painted = options.zonesFile ? await readOption("--zones", options.zonesFile, zonesFile, {}) : null;
  provideInstalledDraco();
  const scan = await readScan(await readFile(options.file), options.file, ctx);
  const { document: seated, notes } = settleSeat(scan, options);
  const document = painted ? withZones(seated, painted) : seated;
  const engine = new PlanEngine(scan.mesh);
  const piece = engine.pieceFor(document, ctx);
  guardMemory(piece.areaMm2, document, options.stepMm);
  const readDone = performance.now();
  engine.jacketFor(document, options.stepMm, ctx);
  const jacketDone = performance.now();
  const plain = engine.run(document, rates, options.stepMm, ctx);
  const plans = options.compare ? await engine.compare(document, rates, options.stepMm, ctx) : [];
  const ranges = options.json ? engine.rangesFor(document, rates, options.stepMm, ctx) : [];
  const result: PlanResult = {
    ...plain,
    warnings: [...[...scan.warnings, ...notes].map((text) => ({ kind: "scan", text }) as const), ...plain.warnings],
  };
  const done = performance.now();
  const ids = idsOf(result, document);
  const walls = options.json || options.exportDir ? builtWalls(result.walls, document, ids.lines) : undefined;
  const { parting, jacket } = result;
  const ground = { ...parting, jacketMm: jacket.thicknessMm };
  const keys = walls ? builtKeys(ground, document) : [];
  const built =
    options.exportDir && walls
      ? await solidsOf(terminal, result, document, walls, ctx, {
          ids: ids.sections,
          name: pieceName(options.file),
        })
      : NO_SOLIDS;
  const solids = built.sections;
  const timings = { readMs: readDone - started, planMs: done - jacketDone, totalMs: performance.now() - started };
  const report = planReport(result, timings, { document, rates, plans, ranges, walls, built, keys, ids });
  if (options.exportDir && walls) {
    const name = pieceName(options.file);
    await exportPlan({ result, document, walls, solids, keys, report, ids, pieceName: name }, options.exportDir);
  }
  terminal.out(options.json ? `${JSON.stringify(report)}\n` : readable(result, report, options.stepMm, plans));
}

/** The ids that lines and sections get; those of the document where it has them already. */
function idsOf({ parting }: PlanResult, document: PlanDocument): PlanIds {
  const { sections, lines, fillParts } = parting;
  const plan = { origins: null, skins: sections.map(({ skin }) => skin), lines, fills: fillParts };
  const known = identified(plan, document.identity);
  return { lines: known.lines.map(({ id }) => id), sections: known.sections.map(({ id }) => id) };
}

/** The sections as solids; none where one of them cannot be made a closed body, which is said. */
async function solidsOf(terminal: Terminal, ...request: Parameters<typeof sectionsAsBuilt>): Promise<SectionsAsBuilt> {
  try {
    return await sectionsAsBuilt(...request);
  } catch (error) {
    if (!(error instanceof NotASolid)) throw error;
    terminal.err(`The sections could not be made solid: ${error.message} Try another --step-mm.\n`);
    return NO_SOLIDS;
  }
}

/** The file's name without its folder and ending. */
function pieceName(file: string): string {
  return basename(file, extname(file));
}

/**
 * What a JSON file named by an option says.
 * @param typical what stands where the file leaves something out
 * @throws UsageProblem for a file that cannot be understood, saying where
 */
async function readOption<T>(option: string, file: string, schema: ZodType<T>, typical: object): Promise<T> {
  const text = await readFile(file, "utf8");
  let said: unknown;
  try {
    said = JSON.parse(text);
  } catch {
    throw new UsageProblem(`${option} ${file} is not JSON.`);
  }
  const read = schema.safeParse(typeof said === "object" ? { ...typical, ...said } : said);
  if (read.success) return read.data;
  const [issue] = read.error.issues;
  throw new UsageProblem(`${option} ${file}: ${issue.path.join(".")}: ${issue.message}`);
}

function withZones(document: PlanDocument, { zones, thickerMm }: z.output<typeof zonesFile>): PlanDocument {
  return { ...document, zones, jacket: { ...document.jacket, thickerMm } };
}

/** Cells the band will hold, against what the arrays may take. */
function guardMemory(areaMm2: number, document: PlanDocument, stepMm: number): void {
  const reach =
    document.jacket.coats.reduce((sum, coat) => sum + coat.thicknessMm, 0) + document.jacket.smoothingMm + 2 * stepMm;
  const cells = (areaMm2 * (2 * reach + 8 * stepMm)) / stepMm ** 3;
  if (cells > 120e6) {
    const step = Math.ceil(2 * stepMm * Math.sqrt(cells / 120e6)) / 2;
    throw new ScanProblem(
      "too-large",
      `A step of ${stepMm} mm is too fine for a piece of this size; try --step-mm ${step}.`,
    );
  }
}

function settleSeat(scan: RawScan, options: PlanArguments): { document: PlanDocument; notes: string[] } {
  const size = boxSize(meshBox(scan.mesh));
  const up = options.up ?? scan.up;
  const proposal = options.unit ? null : proposeUnit(Math.max(...size), scan.unitHint);
  const unit = options.unit ?? proposal?.unit ?? "mm";
  const rawHeight = size["xyz".indexOf(up.replace("-", ""))] * millimetresPer[unit];
  const tapeScale = options.heightMm === null || rawHeight <= 0 ? 1 : options.heightMm / rawHeight;
  const notes =
    proposal && proposal.unit !== "mm" && options.heightMm === null
      ? [
          `The scan is taken to be in ${proposal.unit}: ${proposal.reason}. Check one length with a tape, or give --unit.`,
        ]
      : [];
  return { document: { ...options.document, seat: { ...options.document.seat, unit, up, tapeScale } }, notes };
}

function progressLine({ err }: Terminal): JobContext["progress"] {
  return (stage, fraction) => {
    err(`\r${stage} ${Math.round(fraction * 100)} %   ${fraction >= 1 ? "\r\x1b[K" : ""}`);
  };
}

function readable(result: PlanResult, report: PlanReport, stepMm: number, plans: readonly ComparedPlan[]): string {
  const { piece, jacket, parting } = result;
  const lines = [
    `Piece     ${piece.sizeMm.map((v) => formatLength(v)).join(" x ")}, ${formatArea(piece.areaMm2)}, ${formatVolume(piece.volumeMm3)}, ${piece.report.triangles} triangles`,
    ...piece.report.repairs.map((repair) => `          ${repair}`),
    `Jacket    ${formatLength(jacket.thicknessMm)} in ${jacket.coats.length} coats, smoothing ${formatLength(jacket.request.smoothingMm)}, step ${formatLength(stepMm)}: ${formatMass(jacket.siliconeG)} of silicone`,
    ...jacket.coats.map(
      (coat, k) =>
        `          coat ${k + 1}: ${formatLength(coat.thicknessMm)} over ${formatArea(coat.areaMm2)}, ${formatMass(coat.massG)}`,
    ),
    `Parting   ${parting.sections.length} sections, ${formatLength(parting.partingLengthMm)} of line, fill ${formatVolume(parting.fillMm3)}`,
    ...parting.sections.map((section, k) => {
      const pull = section.pull.map((v) => v.toFixed(2)).join(", ");
      const verdict = section.releases ? "releases" : `HELD, presses ${formatLength(section.biteMm)} into the jacket`;
      return `          section ${section.number}: pull (${pull}), ${formatArea(section.areaMm2)}, fill ${formatVolume(section.fillMm3)}, shell ${formatMass(report.sections[k].shellMassG)}, ${verdict}`;
    }),
    ...plans.map(
      (plan) =>
        `Compared  ${plan.sections.length} sections: ${formatMoneyMinor(plan.cost, "")} (${COST_PARTS.map((part) => `${part} ${formatMoneyMinor(plan.parts[part], "")}`).join(", ")}). ${plan.reason}`,
    ),
    "Buy",
    ...report.materials.map(
      (line) => `          ${line.item}: ${line.quantity.toFixed(line.quantity < 10 ? 2 : 1)} ${line.unit}`,
    ),
    ...report.warnings.map((warning) => `Caution   ${warning}`),
    `Worked out in ${(report.timingsMs.total / 1000).toFixed(1)} s. Figures are estimates; data sheets, local rules and licensed practice decide.`,
  ];
  return `${lines.join("\n")}\n`;
}
