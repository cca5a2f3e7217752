/**
 * Sections relieved where they would run into another on their way out: as the later one is laid, what would come to lie in the
 * earlier one is left out, so far as enough of its shell stays on the jacket or hardly any of it is concerned, and where
 * nothing holds its flange to the other. Where that cannot be, the same is done to the earlier one.
 *
 *   relieved = solid minus { x : min over 0 < s <= travel of phi(x + s d) < -1.5 mm }
 *
 * phi is the signed distance from the other solid. Space of the caller: mm, z up.
 */
import { BRICK, type BrickGrid, gridFromActive, nodeCount, nodePoint } from "../field/grid.ts";
import { isosurface } from "../field/isosurface.ts";
import type { JobContext } from "../job/context.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import type { Body } from "../release/body.ts";
import { type Kept, type LeavingSolid, type Meeting, type Met, TRIMMED_MM } from "./asBuilt.ts";
import { meshOf, type Solid, type Solids } from "./kernel.ts";
import { SCRAP_MM3 } from "./sections.ts";

/** What was left out of a section so that it passes another. */
export interface Relief {
  /** Numbers of the section that is laid thinner and of the one that it passes. */
  readonly section: number;
  readonly other: number;
  /** How deep it would have run into the other, mm, and where. */
  readonly biteMm: number;
  readonly at: readonly [number, number, number];
  /** How much of it, seen along its pull, would have, mm2. */
  readonly areaMm2: number;
  /** What stays of its shell where least does, mm; null where only its flange or its foot is cut back. */
  readonly leftMm: number | null;
}

export interface ReliefRequest {
  /** How far a place is from what the sections are built on, mm. */
  readonly offJacketMm: (x: number, y: number, z: number) => number;
  /** Thickness of every section's shell, in their order, mm. */
  readonly shellsMm: readonly number[];
  /** How much of the jacket every section is laid on, in their order, mm2. */
  readonly areasMm2: readonly number[];
  /** Sections as they are by now, by their meshes: made once, and once again for each place that is left out. */
  readonly asSolids: Map<TriangleMesh, Solid>;
  /** Where bolts and keys of a section are, numbered from one, xyz, mm. */
  readonly fastenedAt: (section: number) => readonly (readonly number[])[];
}

/** Of a shell's thickness, so much stays on the jacket at least. */
const LEAST_LEFT_SHARE = 1 / 3;
/** Less may stay where it is no more than this share of the section: an edge that is cut to nothing, which the jacket spans. */
const HARDLY_ANY_SHARE = 0.01;
/** The space that is left out reaches so many steps of its grid beyond what runs in. */
const BEYOND_STEPS = 3;
/** What is left out keeps so far off the middles of bolts and keys, mm. */
const BESIDE_MM = 15;
/** What would run in no deeper than this stays: sections touch each other along their wall, mm. */
const STAYS_MM = TRIMMED_MM / 2;

/** @returns the section with less of it, and what was left out; or why it stays as it is */
export function relieved(
  solids: Solids,
  { section, other, leaving, body, ...met }: Met,
  { offJacketMm, shellsMm, areasMm2, fastenedAt, asSolids }: ReliefRequest,
  ctx: JobContext,
): { mesh: TriangleMesh; relief: Relief } | Kept {
  const { biteMm, at, areaMm2 } = met.deepest;
  const solid = asSolids.get(leaving.mesh) ?? solids.fromMesh(leaving.mesh, `Section ${section}`);
  asSolids.set(leaving.mesh, solid);
  const inTheWay = solids.fromMesh(runsInto(leaving, met, body, ctx), `What section ${section} leaves out`);
  const { positions: p } = meshOf(solids.and(solid, inTheWay));
  if (isNear(p, fastenedAt(section))) return "fastened";
  const shellMm = shellsMm[section - 1];
  let leftMm = shellMm;
  for (let k = 0; k < p.length; k += 3) leftMm = Math.min(leftMm, offJacketMm(p[k], p[k + 1], p[k + 2]));
  if (leftMm < LEAST_LEFT_SHARE * shellMm && areaMm2 > HARDLY_ANY_SHARE * areasMm2[section - 1]) return "thin";
  const pieces = solids.pieces(solids.minus(solid, inTheWay)).filter((piece) => piece.volume() >= SCRAP_MM3);
  if (pieces.length !== 1) return "thin";
  const left = leftMm < shellMm ? leftMm : null;
  const mesh = meshOf(pieces[0]);
  asSolids.set(mesh, pieces[0]);
  return { mesh, relief: { section, other, biteMm, at, areaMm2, leftMm: left } };
}

/** Is a corner of what is left out beside the middle of a bolt or a key? @param p its corners, xyz */
function isNear(p: ArrayLike<number>, fastened: readonly (readonly number[])[]): boolean {
  return fastened.some(([x, y, z]) => {
    for (let k = 0; k < p.length; k += 3) if (Math.hypot(p[k] - x, p[k + 1] - y, p[k + 2] - z) < BESIDE_MM) return true;
    return false;
  });
}

/** All places about where a section meets a body that come to lie in it on their way out, as a closed surface. */
function runsInto({ pull, travelMm }: LeavingSolid, { low, high }: Meeting, body: Body, ctx: JobContext): TriangleMesh {
  const { stepMm } = body.data.grid;
  const originMm = low.map((mm) => mm - BEYOND_STEPS * stepMm) as [number, number, number];
  const bricks = low.map((mm, a) => Math.ceil(((high[a] - mm) / stepMm + 2 * BEYOND_STEPS) / BRICK)) as [
    number,
    number,
    number,
  ];
  const grid = gridFromActive(originMm, stepMm, bricks, new Uint8Array(bricks[0] * bricks[1] * bricks[2]).fill(1));
  const phi = new Float32Array(nodeCount(grid));
  const at = new Float64Array(3);
  const [dx, dy, dz] = pull;
  for (let n = 0; n < phi.length; n++) {
    nodePoint(grid, n, at, 0);
    const least = body.leastAlong(at[0], at[1], at[2], dx, dy, dz, body.data.capMm, -Infinity, travelMm);
    // The surface closes within the grid.
    phi[n] = Math.max(least + STAYS_MM, isAtSide(grid, at) ? stepMm / 2 : -Infinity);
  }
  return isosurface(grid, phi, 0, ctx);
}

/** Is a node one of the outermost two? */
function isAtSide({ originMm, stepMm, bricks }: BrickGrid, at: Float64Array): boolean {
  return originMm.some((from, a) => {
    const n = Math.round((at[a] - from) / stepMm);
    return n <= 1 || n >= BRICK * bricks[a] - 2;
  });
}
