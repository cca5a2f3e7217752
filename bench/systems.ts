/** Every shell system on several pieces: how thick and heavy a shell is thought to be, and how its sections as solids are. */
import { BufferAttribute, BufferGeometry, DoubleSide, Ray, Vector3 } from "three";
import { MeshBVH } from "three-mesh-bvh";
import type { JobContext } from "../core/job/context.ts";
import type { TriangleMesh } from "../core/mesh/mesh.ts";
import { vertexNormals } from "../core/mesh/normals.ts";
import { repairScan } from "../core/mesh/repair.ts";
import { builtSections } from "../core/plan/builtSections.ts";
import { builtWalls } from "../core/plan/builtWalls.ts";
import { newPlan } from "../core/plan/document/document.ts";
import { PlanEngine } from "../core/plan/engine.ts";
import type { PlanResult } from "../core/plan/results/planResult.ts";
import { geometryReport } from "../core/plan/results/report.ts";
import { shellSystems, shellThicknesses } from "../core/shell/index.ts";
import { TYPICAL_RATES } from "../core/takeoff/rates.ts";
import { takeoff } from "../core/takeoff/takeoff.ts";
import { stranger } from "../core/testing/strangers.ts";
import { makeLamplighter } from "../demo/pieces/lamplighter.ts";
import { makeRelief } from "../demo/pieces/relief.ts";
import { makeWalrus } from "../demo/pieces/walrus.ts";
import type { PartingRow } from "./parting.ts";

const STEP_MM = 8;
const PIECES = {
  lamplighter: makeLamplighter,
  walrus: makeWalrus,
  relief: makeRelief,
  ...{ "made-up piece 0": () => stranger(0, 1200, 10).mesh, "made-up piece 3": () => stranger(3, 1200, 10).mesh },
};

export async function benchSystems(ctx: JobContext, report: (row: PartingRow) => void): Promise<void> {
  for (const [name, make] of Object.entries(PIECES)) {
    const engine = new PlanEngine(repairScan(make(), ctx).mesh);
    for (const { id } of shellSystems) {
      const base = newPlan();
      const document = { ...base, shell: { ...base.shell, system: id } };
      const result = engine.run(document, TYPICAL_RATES, STEP_MM, ctx);
      const geometry = geometryReport(result, { readMs: 0, planMs: 0, totalMs: 0 });
      const { shellG } = takeoff(document, geometry.jacket, geometry, TYPICAL_RATES);
      const started = ctx.nowMs();
      const solids = await builtSections(result, document, builtWalls(result.walls, document), ctx);
      const ms = ctx.nowMs() - started;
      const massG = solids.reduce((sum, { massDryG }) => sum + massDryG, 0);
      const { shellMm } = shellThicknesses(document.shell);
      const isFar = isFarFrom(result);
      const thicknesses = result.parting.sections.flatMap(({ skin }, k) =>
        thicknessesMm(solids[k].mesh, skin, shellMm, isFar),
      );
      const middleMm = thicknesses.sort((a, b) => a - b)[thicknesses.length >> 1];
      const mass = `${(massG / 1000).toFixed(1)} kg; before, ${((100 * shellG) / massG).toFixed(1)} % of that`;
      const off = `${mass}; ${middleMm?.toFixed(2)} mm thick in ${thicknesses.length} places, for ${shellMm.toFixed(2)}`;
      report({ stage: `solids: ${name}, ${id}`, size: off, ms, ratio: null });
    }
  }
}

/** So near a wall, a rib or the board a shell is thickened, or has a foot, mm. */
const THICKENED_MM = 90;
const OFF_BOARD_MM = 150;
/** One vertex of a skin in so many is looked at. */
const EVERY = 7;

/** Ways into it so near each other are one, mm. */
const SAME_MM = 0.05;

type IsFar = (x: number, y: number, z: number) => boolean;

function isFarFrom({ walls, spans }: Pick<PlanResult, "walls" | "spans">): IsFar {
  const thickened = [...walls.map(({ foot }) => foot), ...spans.ribs.map(({ points }) => points)];
  return (x, y, z) =>
    z > OFF_BOARD_MM &&
    thickened.every((line) => {
      for (let k = 0; k < line.length; k += 3) {
        if (Math.hypot(x - line[k], y - line[k + 1], z - line[k + 2]) < THICKENED_MM) return false;
      }
      return true;
    });
}

/** How thick a section is over its skin where nothing thickens it: the first ways into it and out of it again, by rays. */
function thicknessesMm(solid: TriangleMesh, skin: TriangleMesh, shellMm: number, isFar: IsFar): number[] {
  const geometry = new BufferGeometry();
  geometry.setAttribute("position", new BufferAttribute(new Float32Array(solid.positions), 3));
  geometry.setIndex(new BufferAttribute(new Uint32Array(solid.triangles), 1));
  const tree = new MeshBVH(geometry);
  const { normals } = vertexNormals(skin);
  const at = new Vector3();
  const along = new Vector3();
  const thick: number[] = [];
  for (let v = 0; v < skin.positions.length; v += 3 * EVERY) {
    at.fromArray(skin.positions, v);
    if (!isFar(at.x, at.y, at.z)) continue;
    along.fromArray(normals, v);
    const ray = new Ray(at.addScaledVector(along, -shellMm / 2), along);
    const hits = tree.raycast(ray, DoubleSide).map(({ distance }) => distance);
    const enters = Math.min(...hits);
    // Through an edge of its mesh it goes more than once.
    const leaves = Math.min(...hits.filter((mm) => mm > enters + SAME_MM));
    if (leaves < Infinity) thick.push(leaves - enters);
  }
  return thick;
}
