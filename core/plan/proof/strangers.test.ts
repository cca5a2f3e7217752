/** Pieces nobody drew, made from seeds: whatever it is, it comes off, and a prover that shares no code agrees. */
import { describe, expect, it } from "vitest";
import { isosurface } from "../../field/isosurface.ts";
import type { Jacket } from "../../jacket/jacket.ts";
import { plainContext as ctx } from "../../job/context.ts";
import { adjacencyOf } from "../../mesh/adjacency.ts";
import { vertexNormals } from "../../mesh/normals.ts";
import { repairScan } from "../../mesh/repair.ts";
import { vertexNeighbours } from "../../mesh/vertexNeighbours.ts";
import { networkOn, takenInHand } from "../../parting/layout/layout.ts";
import { potentialsOf } from "../../parting/layout/potentials.ts";
import { troublesOf } from "../../parting/layout/sections.ts";
import { labelsOf } from "../../parting/lines/sections.ts";
import { spanFor } from "../../ribs/shape.ts";
import { TYPICAL_RATES } from "../../takeoff/rates.ts";
import { hardPiece } from "../../testing/hardPieces.ts";
import { Prover } from "../../testing/prover.ts";
import { STRANGER_KINDS, stranger } from "../../testing/strangers.ts";
import { builtWalls, wallReport } from "../builtWalls.ts";
import { newPlan } from "../document/document.ts";
import { PlanEngine } from "../engine.ts";
import type { ProvenParting } from "./parting.ts";

const PIECES = 40;
const HEIGHT_MM = 220;
const SCAN_STEP_MM = 5;
const STEP_MM = 7;
const PLACES = 30;
/**
 * A bite the prover may find deeper than was told, mm: the bevel of a section's edges, which it does not know, and a little
 * for its places lying on triangles that cut the corners of the grid.
 */
const SLACK_MM = 3.2;
/** A standing animal, its line beside the wall of a fill of some 60 ml, and handles with a fill of some 180 ml. */
const FILLED_HEIGHT_MM = 260;
const OF_FILLS = [
  { seed: 0, stepsMm: [7, 3.5] },
  { seed: 17, stepsMm: [7, 5, 3.5] },
];
/** Of all that is planned, so much comes off. */
const COME_OFF_SHARE = 0.97;

/** Of each section that the drawn lines would part otherwise than as one whole piece, how many pieces it falls into. */
function fallenApart({ mesh, request: { stepMm } }: Jacket, { drawn, sections, bare }: ProvenParting): number[] {
  const layout = takenInHand(drawn, sections);
  const potentials = potentialsOf(mesh, networkOn(layout, bare), sections.length, stepMm);
  const surface = { near: vertexNeighbours(mesh), areasMm2: vertexNormals(mesh).areasMm2 };
  return troublesOf(surface, layout, labelsOf(potentials)).map(({ pieces }) => pieces);
}

describe("made-up pieces", () => {
  const held: string[] = [];
  const apart: string[] = [];

  it.each(STRANGER_KINDS.map((kind, k) => [kind, k] as const))(
    "that are %s come off, and the prover agrees",
    (kind, first) => {
      for (let seed = first; seed < PIECES; seed += STRANGER_KINDS.length) {
        const made = stranger(seed, HEIGHT_MM, SCAN_STEP_MM);
        expect(made.kind).toBe(kind);
        const piece = repairScan(made.mesh, ctx).mesh;
        const { jacket, parting, walls, spans } = new PlanEngine(piece).run(newPlan(), TYPICAL_RATES, STEP_MM, ctx);
        for (const { lengthMm, patternLengthMm, widthMm, narrowed } of wallReport(builtWalls(walls, newPlan()))) {
          expect(Math.abs(patternLengthMm - lengthMm)).toBeLessThan(0.2e-3 * lengthMm + 1e-6);
          for (const { widthMm: left } of narrowed) expect(left).toBeLessThan(widthMm);
        }
        // A section that spans farther than its shell may has a rib, and no other has one.
        const limitMm = spanFor(newPlan().shell, newPlan().shell);
        spans.widestMm.forEach((mm, k) => {
          expect(spans.ribs.some(({ section }) => section === k + 1)).toBe(mm > limitMm);
        });
        // It lies over the fills, as the shell does.
        for (const { points: p } of spans.ribs) {
          for (let n = 0; n < p.length; n += 3)
            expect(parting.filledNearest.distance(p[n], p[n + 1], p[n + 2])).toBeLessThan(0.5);
        }
        expect(parting.sections.length).toBeLessThanOrEqual(8);
        const coat = jacket.siliconeMm3 / (jacket.outerAreaMm2 * jacket.thicknessMm);
        expect(coat).toBeGreaterThan(0.7);
        expect(coat).toBeLessThan(2.5);
        apart.push(...fallenApart(jacket, parting).map((pieces) => `${kind} ${seed}: ${pieces} pieces`));
        // With all its fills the body is closed: sections are cut from it as solids.
        const { openEdges, nonManifoldEdges } = adjacencyOf(isosurface(parting.body.grid, parting.body.phi, 0, ctx));
        expect([kind, seed, openEdges, nonManifoldEdges]).toEqual([kind, seed, 0, 0]);
        const prover = new Prover(parting.filled);
        for (const { number, skin, pull, releases, biteMm } of parting.sections) {
          if (!releases) held.push(`${kind} ${seed}, section ${number}: ${biteMm.toFixed(1)} mm`);
          else
            for (const bite of prover.bites(skin, pull, PLACES)) expect(bite).toBeLessThan(parting.giveMm + SLACK_MM);
        }
      }
    },
  );

  it.each(["dragon", "wings"] as const)("that are as hard as a %s come off too", (name) => {
    const piece = repairScan(hardPiece(name, HEIGHT_MM, SCAN_STEP_MM), ctx).mesh;
    const { parting } = new PlanEngine(piece).run(newPlan(), TYPICAL_RATES, STEP_MM, ctx);
    expect(parting.sections.every(({ releases }) => releases)).toBe(true);
    const prover = new Prover(parting.filled);
    for (const { skin, pull } of parting.sections)
      for (const bite of prover.bites(skin, pull, PLACES)) expect(bite).toBeLessThan(parting.giveMm + SLACK_MM);
  });

  it.each(OF_FILLS)("laid once come off on every grid, with the same fill: $seed", ({ seed, stepsMm }) => {
    const piece = repairScan(stranger(seed, FILLED_HEIGHT_MM, SCAN_STEP_MM).mesh, ctx).mesh;
    const document = newPlan();
    const first = new PlanEngine(piece).partingFor(document, TYPICAL_RATES, STEP_MM, ctx);
    const parting = { ...document.parting, layout: takenInHand(first.drawn, first.sections) };
    const fills = stepsMm.map((stepMm) => {
      const plan = new PlanEngine(piece).partingFor({ ...document, parting }, TYPICAL_RATES, stepMm, ctx);
      expect(plan.sections.every(({ releases }) => releases)).toBe(true);
      // What was suggested hangs together when it is taken in hand.
      expect(plan.troubles).toEqual([]);
      return plan.fillMm3;
    });
    expect(Math.max(...fills) / Math.min(...fills)).toBeLessThan(1.2);
  });

  it("hang together when their lines are taken in hand", () => {
    expect(apart).toEqual([]);
  });

  it("come off, all but the odd one", () => {
    expect(held.length, held.join("; ")).toBeLessThanOrEqual(Math.floor((1 - COME_OFF_SHARE) * PIECES));
  });
});
