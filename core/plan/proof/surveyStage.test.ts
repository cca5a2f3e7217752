/** The mesh that plans are sought on: the same whatever grid the jacket is on, and in no more parts than the jacket. */
import { describe, expect, it } from "vitest";
import { plainContext as ctx } from "../../job/context.ts";
import { labelParts } from "../../mesh/adjacency.ts";
import type { TriangleMesh } from "../../mesh/mesh.ts";
import { together } from "../../mesh/together.ts";
import { THOROUGH } from "../../parting/search/request.ts";
import { box, moved, sphere } from "../../testing/shapes.ts";
import { newPlan } from "../document/document.ts";
import { PlanEngine } from "../engine.ts";
import { surveyRequestFor } from "./surveyStage.ts";

const DRAFT_DEG = 0.5;
const VERTICES = 600;

function surveyed(piece: TriangleMesh, stepMm: number) {
  const jacket = new PlanEngine(piece).jacketFor(newPlan(), stepMm, ctx);
  return { jacket, ...surveyRequestFor(jacket, DRAFT_DEG, [], ctx, { ...THOROUGH, vertices: VERTICES }) };
}

const block = moved(box(120, 120, 100), 0, 0, 50);

describe("the survey's mesh", () => {
  it("has edges as long on a fine grid as on a coarse one", () => {
    const edges = [6, 4, 3].map((stepMm) => surveyed(block, stepMm).spacingMm);
    for (const edgeMm of edges) expect(Math.abs(edgeMm / edges[0] - 1)).toBeLessThan(0.02);
    expect(edges[0]).toBeGreaterThan(8);
  });

  it.each([
    [3, 106],
    [5, 108],
  ])("has no crumb of its own at the board where a pebble of %i mm is joined to the jacket by a neck", (radius, x) => {
    const { jacket, coarse } = surveyed(together(block, moved(sphere(radius, 16), x, 0, radius)), 6);
    expect(labelParts(jacket.mesh).parts).toBe(1);
    expect(labelParts(coarse).parts).toBe(1);
  });
});
