/**
 * Sections relieved where they would run into another on their way out: as the later one is laid, what would come to lie in the
 * earlier one is left out, so far as enough of its shell stays on the jacket or hardly any of it is concerned. Where that
 * cannot be, or takes a bolt's hold, the same is done to the earlier one; a bolt is given up where there is no other way.
 *
 *   relieved = solid minus { x : min over 0 < s <= travel of phi(x + s d) < -trimmed / 4 }
 *
 * phi is the signed distance from the other solid, trimmed what is trimmed by hand (`asBuilt.ts`). Space of the caller: mm, z up.
 */
import { BRICK, type BrickGrid, gridFromActive, nodeCount, nodePoint } from "../field/grid.ts";
import { isosurface } from "../field/isosurface.ts";
import type { JobContext } from "../job/context.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import type { Body } from "../release/body.ts";
import type { LeavingSolid, Meeting, Met } from "./asBuilt.ts";
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
  /** What holds these bolts goes with it: they hold nothing any more. */
  readonly bolts: readonly LostBolt[];
}

/** A bolt by the number of its wall, and how far along it, mm. */
export interface LostBolt {
  readonly wall: number;
  readonly alongMm: number;
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
  /** The bolts of a section, numbered from one, and where they are, xyz, mm. */
  readonly boltsOf: (section: number) => readonly (LostBolt & { readonly at: readonly number[] })[];
}

/** Of a shell's thickness, so much stays on the jacket at least. */
const LEAST_LEFT_SHARE = 1 / 3;
/** Less may stay where it is no more than this share of the section: an edge that is cut to nothing, which the jacket spans. */
const HARDLY_ANY_SHARE = 0.01;
/** The space that is left out reaches so many steps of its grid beyond what runs in. */
const BEYOND_STEPS = 3;
/** A bolt holds nothing where what is left out comes so near to its middle, mm. */
const BESIDE_MM = 15;
/** What would run in no deeper than this stays, as a share of what is trimmed: sections touch each other along their wall. */
const STAYS_SHARE = 1 / 4;

/** @returns the section with less of it at all places where it may have less, and what was left out */
export function relieved(
  solids: Solids,
  { section, other, leaving, body, places, trimmedMm, sparing }: Met,
  { offJacketMm, shellsMm, areasMm2, boltsOf, asSolids }: ReliefRequest,
  ctx: JobContext,
): { mesh: TriangleMesh; reliefs: readonly Relief[] } {
  if (places.length === 0) return { mesh: leaving.mesh, reliefs: [] };
  const solid = asSolids.get(leaving.mesh) ?? solids.fromMesh(leaving.mesh, `Section ${section}`);
  asSolids.set(leaving.mesh, solid);
  const shellMm = shellsMm[section - 1];
  const spaces = places.map((place) =>
    solids.fromMesh(runsInto(leaving, place, body, STAYS_SHARE * trimmedMm, ctx), `What section ${section} leaves out`),
  );
  // The whole section is cut as seldom as can be: it is far larger than what is left out of it.
  const concerned = solids.and(solid, solids.union(spaces));
  const held = boltsOf(section);
  const may: { space: Solid; relief: Relief }[] = [];
  places.forEach(({ deepest: { biteMm, at, areaMm2 } }, k) => {
    const { positions: p } = meshOf(solids.and(concerned, spaces[k]));
    let leftMm = shellMm;
    for (let c = 0; c < p.length; c += 3) leftMm = Math.min(leftMm, offJacketMm(p[c], p[c + 1], p[c + 2]));
    if (leftMm < LEAST_LEFT_SHARE * shellMm && areaMm2 > HARDLY_ANY_SHARE * areasMm2[section - 1]) return;
    const bolts = held.filter(({ at: bolt }) => isNear(p, bolt)).map(({ wall, alongMm }) => ({ wall, alongMm }));
    if (sparing && bolts.length > 0) return;
    const relief = { section, other, biteMm, at, areaMm2, leftMm: leftMm < shellMm ? leftMm : null, bolts };
    may.push({ space: spaces[k], relief });
  });
  const reliefs: Relief[] = [];
  let done = solid;
  // Where it would fall apart it is cut place by place, but for those that would part it.
  const all = whole(solids, solid, may);
  for (const cut of all ? [may] : may.map((each) => [each])) {
    const next = all ?? whole(solids, done, cut);
    if (next) reliefs.push(...cut.map(({ relief }) => relief));
    done = next ?? done;
  }
  if (reliefs.length === 0) return { mesh: leaving.mesh, reliefs };
  const mesh = meshOf(done);
  asSolids.set(mesh, done);
  return { mesh, reliefs };
}

/** A body without some spaces; null where it does not stay one piece. */
function whole(solids: Solids, solid: Solid, without: readonly { readonly space: Solid }[]): Solid | null {
  if (without.length === 0) return solid;
  const rest = solids.minus(solid, solids.union(without.map(({ space }) => space)));
  const pieces = solids.pieces(rest, SCRAP_MM3);
  return pieces.length === 1 ? pieces[0] : null;
}

/** Is a corner of what is left out beside the middle of a bolt? @param p its corners, xyz */
function isNear(p: ArrayLike<number>, [x, y, z]: readonly number[]): boolean {
  for (let k = 0; k < p.length; k += 3) if (Math.hypot(p[k] - x, p[k + 1] - y, p[k + 2] - z) < BESIDE_MM) return true;
  return false;
}

/** All places about where a section meets a body that come to lie in it on their way out, as a closed surface. */
function runsInto(
  { pull, travelMm }: LeavingSolid,
  { low, high }: Meeting,
  body: Body,
  staysMm: number,
  ctx: JobContext,
): TriangleMesh {
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
    phi[n] = Math.max(least + staysMm, isAtSide(grid, at) ? stepMm / 2 : -Infinity);
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
