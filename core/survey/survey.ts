/**
 * The survey: what each pull would cost each patch of the jacket. For every direction the blocked columns are
 * measured, and their volume falls to the patches it is nearest to: just what a section made of a patch would have to
 * fill. A patch that pays nothing is free from that pull.
 */
import type { JobContext } from "../job/context.ts";
import type { Kernel } from "../job/team.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import type { Direction } from "../space/directions.ts";
import { columnFrame, columnPoint, FROM_BACK, visitColumns } from "./columns.ts";
import { type DepthField, depthNode } from "./depth.ts";

/** Places a column is looked at, at most. */
const MOST_SAMPLES = 8;

export interface SurveyRequest {
  readonly mesh: TriangleMesh;
  readonly directions: readonly Direction[];
  readonly spacingMm: number;
  readonly boardMm: number | null;
  /** Distances about the mesh. */
  readonly depth: DepthField;
}

interface SurveyShare {
  readonly request: SurveyRequest;
  /** Row of the direction this share surveys. */
  readonly row: number;
  /** Out. */
  readonly cost: SurveyCost;
}

/** What locks there are at every vertex (column) for one direction, or for every direction (row), mm3. */
export interface SurveyCost {
  /** Space of the locks. */
  readonly lockMm3: Float32Array;
  /** Of it, what begins behind the body: no fill frees it. */
  readonly deepMm3: Float32Array;
}

/** One direction's row of a survey. */
export function surveyRow({ lockMm3, deepMm3 }: SurveyCost, row: number, vertices: number): SurveyCost {
  const [from, to] = [row * vertices, (row + 1) * vertices];
  return { lockMm3: lockMm3.subarray(from, to), deepMm3: deepMm3.subarray(from, to) };
}

export const surveyKernel: Kernel<SurveyShare> = {
  name: "survey",
  run({ request, row, cost }) {
    const vertices = request.mesh.positions.length / 3;
    surveyOne(request, request.directions[row], surveyRow(cost, row, vertices));
  },
};

/** @returns directions x vertices */
export function surveyDirections(request: SurveyRequest, ctx: JobContext): SurveyCost {
  const { directions, mesh } = request;
  const bytes = 4 * directions.length * (mesh.positions.length / 3);
  const cost: SurveyCost = {
    lockMm3: new Float32Array(ctx.team.buffer(bytes)),
    deepMm3: new Float32Array(ctx.team.buffer(bytes)),
  };
  const shares = directions.map((_, row): SurveyShare => ({ request, row, cost }));
  ctx.team.run(surveyKernel, shares, (done) => {
    ctx.checkCancelled();
    ctx.progress("survey", done);
  });
  return cost;
}

/**
 * Adds one direction's locks to the vertices (mm3). A column's space falls to the vertices it is nearest to, as it will
 * to the cells of the sections; short columns fall half to the patch they begin at and half to the one they end at.
 */
export function surveyOne(request: SurveyRequest, direction: Direction, out: SurveyCost): void {
  const { mesh, spacingMm, boardMm, depth: field } = request;
  const { lockMm3, deepMm3 } = out;
  const t = mesh.triangles;
  const cell = spacingMm * spacingMm;
  const { stepMm: every, places, size, originMm: o } = field;
  // Places in steps of the depths' grid, half a step on, as `depthNode` takes them.
  const perMm = 1 / every;
  const dx = direction[0] * perMm;
  const dy = direction[1] * perMm;
  const dz = direction[2] * perMm;
  const point = new Float64Array(3);
  const nodes = new Int32Array(MOST_SAMPLES);
  const frame = columnFrame(mesh, direction, spacingMm);
  visitColumns(mesh, frame, boardMm, (line, from, to, first, last) => {
    const length = to - from;
    if (length < 2 * every) {
      const share = (cell * length) / (first < 0 ? 3 : 6);
      for (let c = 0; c < 3; c++) {
        lockMm3[t[3 * last + c]] += share;
        if (first >= 0) lockMm3[t[3 * first + c]] += share;
        if (first === FROM_BACK) deepMm3[t[3 * last + c]] += share;
      }
      return;
    }
    const samples = Math.min(MOST_SAMPLES, Math.ceil(length / every));
    const each = length / samples;
    columnPoint(frame, line, from + each / 2, point);
    let x = (point[0] - o[0]) * perMm + 0.5;
    let y = (point[1] - o[1]) * perMm + 0.5;
    let z = (point[2] - o[2]) * perMm + 0.5;
    for (let k = 0; k < samples; k++) {
      const node = depthNode(size, x, y, z);
      nodes[k] = node;
      x += each * dx;
      y += each * dy;
      z += each * dz;
    }
    const deep = first === FROM_BACK;
    const share = cell * each;
    for (let k = 0; k < samples; k++) {
      const vertex = places[2 * nodes[k] + 1];
      lockMm3[vertex] += share;
      if (deep) deepMm3[vertex] += share;
    }
  });
}
