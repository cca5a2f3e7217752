/** The command line of `./run plan`, read into a plan document. */

import { parseArgs } from "node:util";
import { plainCoat } from "../../core/jacket/coat.ts";
import {
  newPlan,
  type PlanDocument,
  SECTION_COUNTS,
  type SectionCount,
  type UpAxis,
} from "../../core/plan/document/document.ts";
import { shellSystems } from "../../core/shell/index.ts";
import { type Direction, normalised } from "../../core/space/directions.ts";
import { type LengthUnit, lengthUnits } from "../../core/units/index.ts";

export const PLAN_USAGE = `Usage: ./run plan FILE [options]
  --unit mm|cm|m|in       unit of the scan (proposed from its size when left out)
  --height-mm H           scale the piece to this height instead
  --up x|y|z|-x|-y|-z     which axis of the scan points up
  --coats 0.8,2.5,2.5,2.2 thickness of each coat, mm; the first is the print coat
  --smoothing-mm 20       streamlining of the jacket
  --step-mm 4             grid step
  --sections auto|2..8    how many sections; "compare" takes the cheapest and tells what every number costs
  --rates FILE            the shop's own rates, JSON; what it leaves out stands at its typical value
  --zones FILE            zones on the seated piece, JSON: {"keepClear": [{"at": [x,y,z], "radiusMm": 60}], "fragile": [], "thicker": []}
  --pulls "x,y,z;x,y,z"   pulls of your own, one a section
  --draft-deg 1           least draft
  --give-mm 1.5           how deep a section may press into the rubber; by the jacket where it is left out
  --rim-mm 60             width of the rim on the board
  --no-board              the piece floats: no board, no rim
  --shell SYSTEM          ${shellSystems.map((system) => system.id).join(" | ")}
  --export DIR            write jacket, sections, plan.glb, parting lines and wall patterns at 1:1
  --json                  print one JSON object and nothing else
`;

export class UsageProblem extends Error {
  override readonly name = "UsageProblem";
}

export interface PlanArguments {
  readonly file: string;
  readonly unit: LengthUnit | null;
  readonly up: UpAxis | null;
  readonly heightMm: number | null;
  readonly stepMm: number;
  readonly exportDir: string | null;
  readonly json: boolean;
  readonly compare: boolean;
  readonly ratesFile: string | null;
  readonly zonesFile: string | null;
  readonly document: PlanDocument;
}

/** @throws UsageProblem saying which option is off and what it takes */
export function readPlanArguments(argv: readonly string[]): PlanArguments {
  const { values, positionals } = parse(argv);
  if (positionals.length !== 1)
    throw new UsageProblem("Name one scan file: ./run plan FILE (./run plan --help tells the options).");
  const base = newPlan();
  const onBoard = !values["no-board"];
  const coats = values.coats === undefined ? null : list("--coats", values.coats, 0.05, 60);
  const shell = oneOf(
    "--shell",
    values.shell ?? base.shell.system,
    shellSystems.map((system) => system.id),
  );
  const sections = oneOf("--sections", values.sections ?? "auto", ["auto", "compare", ...SECTION_COUNTS.map(String)]);
  return {
    file: positionals[0],
    unit: values.unit === undefined ? null : oneOf("--unit", values.unit, lengthUnits),
    up: values.up === undefined ? null : oneOf("--up", values.up, ["x", "y", "z", "-x", "-y", "-z"] as const),
    heightMm: values["height-mm"] === undefined ? null : number("--height-mm", values["height-mm"], 15, 15_000),
    stepMm: number("--step-mm", values["step-mm"] ?? "4", 0.5, 50),
    exportDir: values.export ?? null,
    json: values.json ?? false,
    compare: sections === "compare",
    ratesFile: values.rates ?? null,
    zonesFile: values.zones ?? null,
    document: {
      ...base,
      seat: { ...base.seat, onBoard },
      survey: { ...base.survey, draftDeg: number("--draft-deg", values["draft-deg"] ?? "1", 0, 30) },
      jacket: {
        silicone: base.jacket.silicone,
        coats: coats
          ? coats.map((thicknessMm, k) =>
              plainCoat({
                ...{ id: `coat-${k + 1}`, thicknessMm, pigment: "#cccccc" },
                thickened: k > 0 || coats.length === 1,
              }),
            )
          : base.jacket.coats,
        smoothingMm: number("--smoothing-mm", values["smoothing-mm"] ?? "20", 0, 300),
        thickerMm: base.jacket.thickerMm,
        seam: base.jacket.seam,
        stops: base.jacket.stops,
        footClayMm: base.jacket.footClayMm,
        rimWidthMm: onBoard ? number("--rim-mm", values["rim-mm"] ?? "60", 0, 500) : 0,
      },
      parting: {
        sections: sections === "auto" || sections === "compare" ? "auto" : (Number(sections) as SectionCount),
        pulls: values.pulls === undefined ? null : readPulls(values.pulls, onBoard),
        mostSiliconeMm: base.parting.mostSiliconeMm,
        leastSectionMm2: base.parting.leastSectionMm2,
        fills: base.parting.fills,
        giveMm: values["give-mm"] === undefined ? null : number("--give-mm", values["give-mm"], 0.2, 10),
        suggestedAt: null,
        layout: null,
      },
      shell: { ...base.shell, system: shell },
    },
  };
}

function parse(argv: readonly string[]) {
  const text = { type: "string" } as const;
  const flag = { type: "boolean" } as const;
  try {
    return parseArgs({
      args: joinNegativeValues(argv),
      allowPositionals: true,
      options: {
        unit: text,
        "height-mm": text,
        up: text,
        coats: text,
        "smoothing-mm": text,
        "step-mm": text,
        sections: text,
        rates: text,
        zones: text,
        pulls: text,
        "draft-deg": text,
        "give-mm": text,
        "rim-mm": text,
        shell: text,
        export: text,
        "no-board": flag,
        json: flag,
      },
    });
  } catch (error) {
    throw new UsageProblem(`${(error as Error).message.split(". ")[0]}.`);
  }
}

/** `--up -z` and `--pulls -1,0,0;1,0,0` begin their value with a dash, which the option reader must not take for an option. */
function joinNegativeValues(argv: readonly string[]): string[] {
  const out: string[] = [];
  for (let k = 0; k < argv.length; k++) {
    const next = argv[k + 1];
    if (/^--[a-z-]+$/.test(argv[k]) && next !== undefined && /^-([xyz]$|[\d.])/.test(next)) {
      out.push(`${argv[k]}=${next}`);
      k++;
    } else out.push(argv[k]);
  }
  return out;
}

function number(name: string, text: string, least: number, most: number): number {
  const value = Number(text);
  if (text.trim() === "" || !(value >= least && value <= most))
    throw new UsageProblem(`${name} takes a number from ${least} to ${most}, not "${text}".`);
  return value;
}

function list(name: string, text: string, least: number, most: number): number[] {
  const values = text.split(",").map((part) => number(name, part, least, most));
  if (values.length > 12) throw new UsageProblem(`${name} takes at most 12 coats.`);
  return values;
}

function oneOf<T extends string>(name: string, text: string, choices: readonly T[]): T {
  const found = choices.find((choice) => choice === text);
  if (found === undefined) throw new UsageProblem(`${name} takes ${choices.join(", ")}, not "${text}".`);
  return found;
}

function readPulls(text: string, onBoard: boolean): Direction[] {
  const pulls = text
    .split(";")
    .filter((part) => part.trim() !== "")
    .map((part): Direction => {
      const xyz = part.split(",").map(Number);
      if (xyz.length !== 3 || !xyz.every(Number.isFinite) || Math.hypot(...xyz) < 1e-9) {
        throw new UsageProblem(`--pulls takes directions like "0,0,1;0,-1,0"; "${part.trim()}" is none.`);
      }
      return normalised(xyz as unknown as Direction);
    });
  if (pulls.length < 1 || pulls.length > 8) throw new UsageProblem("--pulls takes 1 to 8 directions.");
  if (onBoard && pulls.some((pull) => pull[2] < -1e-9)) {
    throw new UsageProblem("A pull into the board cannot leave; give it a z of 0 or more, or add --no-board.");
  }
  return pulls;
}
