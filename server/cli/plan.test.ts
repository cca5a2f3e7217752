/** The command line as a script would call it: exit codes, one JSON object, files. */
import { execFile } from "node:child_process";
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, describe, expect, it } from "vitest";
import { writeStl } from "../../core/export/stl.ts";
import { plainContext } from "../../core/job/context.ts";
import { readScan } from "../../core/mesh/io/index.ts";
import { areaAndVolume } from "../../core/mesh/mesh.ts";
import type { PlanReport } from "../../core/plan/planReport.ts";
import { mushroom, sphere } from "../../core/testing/shapes.ts";
import { readPlanArguments, UsageProblem } from "./arguments.ts";
import { planCommand } from "./planCommand.ts";

const folder = mkdtempSync(join(tmpdir(), "rimefell-cli-"));
const file = (name: string, bytes: Uint8Array | string) => {
  const path = join(folder, name);
  writeFileSync(path, bytes);
  return path;
};
const ball = file("ball.stl", writeStl(sphere(100, 64)));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** As a script calls it. */
function called(...args: string[]): Promise<{ code: number; stdout: string; stderr: string }> {
  return new Promise((resolve) => {
    execFile(
      process.execPath,
      ["--import", "tsx", "server/cli/plan.ts", ...args],
      { maxBuffer: 1e8 },
      (error, stdout, stderr) => {
        resolve({ code: error ? Number(error.code) : 0, stdout, stderr });
      },
    );
  });
}

/** The same without a process of its own, which takes longer to begin than most of this takes. */
async function plan(...args: string[]): Promise<{ code: number; stdout: string; stderr: string }> {
  let [stdout, stderr] = ["", ""];
  const code = await planCommand(args, {
    out: (text) => {
      stdout += text;
    },
    err: (text) => {
      stderr += text;
    },
    isWatched: false,
    team: plainContext.team,
  });
  return { code, stdout, stderr };
}

describe("./run plan", () => {
  it("prints one JSON object that meets the sphere's oracle, and nothing else", async () => {
    const { code, stdout, stderr } = await called(
      ball,
      "--no-board",
      "--coats",
      "8",
      "--smoothing-mm",
      "0",
      "--pulls",
      "0,0,1;0,0,-1",
      "--step-mm",
      "3",
      "--json",
    );
    expect({ code, stderr }).toEqual({ code: 0, stderr: "" });
    const report = JSON.parse(stdout) as PlanReport;
    expect(report.jacket.siliconeMm3 / 1_087_879).toBeCloseTo(1, 2);
    expect(report.piece).toMatchObject({ openEdges: 0, nonManifoldEdges: 0, parts: 1 });
    expect(report.sections.map((section) => [section.fillMm3, section.releases])).toEqual([
      [0, true],
      [0, true],
    ]);
    expect(report.partingLengthMm / (2 * Math.PI * 108)).toBeCloseTo(1, 1);
    // The wall's pattern is as long as the line, to 0.2 mm a metre of the wall and to its rulings' chords of the line.
    const [wall] = report.walls;
    expect(Math.abs(wall.patternLengthMm - wall.lengthMm) / wall.lengthMm).toBeLessThan(0.2 / 1000);
    expect(wall.lengthMm / report.partingLengthMm).toBeCloseTo(1, 2);
    // What holds the flanges together, and what a cast pushes: with their places.
    expect(wall.id).toMatch(/^line-/);
    expect(report.bolts).toHaveLength(wall.bolts);
    for (const { at, alongMm } of report.bolts) {
      expect(Math.hypot(...at)).toBeGreaterThan(108);
      expect(alongMm).toBeLessThan(wall.lengthMm);
    }
    expect(report.flangeKeys).toHaveLength(wall.flangeKeys);
    expect(report.straps).toEqual([]);
    expect(report.jacketKeys.every(({ biteMm }) => biteMm <= report.giveMm)).toBe(true);
    expect(report.liquidHead?.pairs.map(({ sections }) => sections)).toEqual([[1, 2]]);
    expect(Object.keys(report.timingsMs)).toEqual(["read", "field", "jacket", "plan", "total"]);
    expect(report.materials.every((line) => line.quantity > 0)).toBe(true);
  });

  it("lays the jacket thicker in painted zones, and tells what lines run through one to keep clear", async () => {
    const zones = {
      thicker: [{ at: [0, 0, 100], facing: [0, 0, 1], radiusMm: 30 }],
      keepClear: [{ at: [100, 0, 0], facing: [1, 0, 0], radiusMm: 40 }],
      thickerMm: 5,
    };
    const common = [
      "--no-board",
      "--coats",
      "8",
      "--smoothing-mm",
      "0",
      "--pulls",
      "0,0,1;0,0,-1",
      "--step-mm",
      "6",
      "--json",
    ];
    const read = async (...more: string[]) => JSON.parse((await plan(ball, ...common, ...more)).stdout) as PlanReport;
    const plain = await read();
    const painted = await read("--zones", file("zones.json", JSON.stringify(zones)));
    const more = painted.jacket.siliconeMm3 - plain.jacket.siliconeMm3;
    expect(more).toBeGreaterThan(5 * Math.PI * 30 ** 2);
    expect(more).toBeLessThan(5 * Math.PI * 70 ** 2);
    expect(plain.zoneMm).toEqual({ keepClear: 0, fragile: 0, thicker: 0 });
    const wrong = await plan(ball, ...common, "--zones", file("bad.json", '{"keepClear": [{"at": [1, 2]}]}'));
    expect(wrong.code).toBe(2);
    expect(wrong.stderr).toContain("keepClear.0.at");
    expect(wrong.stderr.trim().split("\n")).toHaveLength(1);
  });

  it("writes the files it promises, and they can be read again", async () => {
    const out = join(folder, "out");
    const { code, stdout } = await plan(
      file("toadstool.stl", writeStl(mushroom(40, 200, 90, 30))),
      "--step-mm",
      "5",
      "--sections",
      "2",
      "--export",
      out,
    );
    expect(code).toBe(0);
    expect(stdout).toMatch(/section 1: .* releases/);
    expect(readdirSync(out).sort()).toEqual([
      "board",
      "drill-maps.csv",
      "jacket-filled.stl",
      "jacket.stl",
      "keys.csv",
      "parting.dxf",
      "parting.json",
      "plan.glb",
      "section-1.stl",
      "section-2.stl",
      "sections",
      "walls",
    ]);
    expect(readdirSync(join(out, "board")).sort()).toEqual(["footprint-a4.pdf", "footprint.dxf", "footprint.svg"]);
    expect(readdirSync(join(out, "walls")).sort()).toEqual(["wall-1.dxf", "wall-1.svg", "walls-a4.pdf"]);
    expect(readdirSync(join(out, "sections")).sort()).toEqual([
      "section-1.stl",
      "section-2.stl",
      "section-sheets-a4.pdf",
      "sections.3mf",
      "sections.glb",
    ]);
    const volumeOf = async (file: string) =>
      areaAndVolume((await readScan(readFileSync(join(out, "sections", file)), file)).mesh).volumeMm3;
    const solids = await Promise.all([1, 2].map((n) => volumeOf(`section-${n}.stl`)));
    expect((await volumeOf("sections.3mf")) / (solids[0] + solids[1])).toBeCloseTo(1, 4);
    // A row for every bolt, below the head.
    const rows = readFileSync(join(out, "drill-maps.csv"), "utf8").trim().split("\n");
    expect(rows.length).toBeGreaterThan(4);
    expect(rows[1]).toMatch(/^1,(1\|2|2\|1),1,6,/);
    expect(readFileSync(join(out, "walls", "wall-1.svg"), "utf8")).toContain("toadstool: wall 1");
    const areaOf = async (file: string) =>
      areaAndVolume((await readScan(readFileSync(join(out, file)), file)).mesh).areaMm2;
    const skins = await Promise.all([1, 2].map((n) => areaOf(`section-${n}.stl`)));
    const whole = await areaOf("jacket-filled.stl");
    expect((skins[0] + skins[1]) / whole).toBeCloseTo(1, 3);
    expect((await readScan(readFileSync(join(out, "plan.glb")), "p.glb")).mesh.triangles.length).toBeGreaterThan(3000);
    const lines = JSON.parse(readFileSync(join(out, "parting.json"), "utf8")) as {
      unit: string;
      lines: { sections: number[]; points: number[][] }[];
    };
    expect(lines).toMatchObject({ unit: "mm", lines: [{ sections: [1, 2] }] });
    expect(readFileSync(join(out, "parting.dxf"), "utf8")).toMatch(/POLYLINE[\s\S]*EOF/);
  });

  const unusable: [string, string][] = [
    ["an empty file", file("empty.stl", "")],
    ["text renamed .stl", file("letter.stl", "Dear workshop, ".repeat(50))],
    ["a truncated binary", file("cut.stl", writeStl(sphere(50, 16)).slice(0, 5000))],
    ["no triangles", file("none.obj", "v 0 0 0\nv 1 0 0\nv 0 1 0\n")],
    ["a flat sheet", file("sheet.obj", "v 0 0 0\nv 1000 0 0\nv 0 1000 0\nf 1 2 3\n")],
  ];
  it.each(unusable)("%s: exit code 3, one sentence, no stack", async (_name, path) => {
    const { code, stdout, stderr } = await plan(path, "--json");
    expect(code).toBe(3);
    expect(stdout).toBe("");
    expect(stderr.trim().split("\n")).toHaveLength(1);
    expect(stderr).not.toMatch(/\bat .*:\d+/);
  });

  it("a file that is not there, and an option that is off: exit code 2", async () => {
    expect(await plan(join(folder, "nowhere.stl"))).toMatchObject({
      code: 2,
      stderr: expect.stringContaining("no such file"),
    });
    expect(await called(ball, "--sections", "9")).toMatchObject({
      code: 2,
      stderr: expect.stringContaining("--sections"),
    });
  });
});

describe("the command line's options", () => {
  it("are read into a plan", () => {
    const read = readPlanArguments([
      "a.stl",
      "--up",
      "-z",
      "--coats",
      "1,2",
      "--pulls",
      "-1,0,0;1,0,0",
      "--no-board",
      "--shell",
      "polyester-mat",
      "--sections=3",
      "--draft-deg",
      "2",
    ]);
    expect(read).toMatchObject({
      file: "a.stl",
      up: "-z",
      document: {
        seat: { onBoard: false },
        parting: {
          sections: 3,
          pulls: [
            [-1, 0, 0],
            [1, 0, 0],
          ],
        },
        survey: { draftDeg: 2 },
        shell: { system: "polyester-mat" },
      },
    });
    expect(read.document.jacket.coats.map((coat) => [coat.thicknessMm, coat.thickened])).toEqual([
      [1, false],
      [2, true],
    ]);
  });

  it.each([
    [[]],
    [["a.stl", "b.stl"]],
    [["a.stl", "--unit", "furlong"]],
    [["a.stl", "--step-mm", "0"]],
    [["a.stl", "--coats", "1,x"]],
    [["a.stl", "--pulls", "0,0,0"]],
    [["a.stl", "--pulls", "0,0,-1"]],
    [["a.stl", "--frobnicate"]],
    [["a.stl", "--height-mm", "tall"]],
  ])("%j is refused", (argv) => {
    expect(() => readPlanArguments(argv)).toThrow(UsageProblem);
  });
});
