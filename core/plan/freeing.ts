/**
 * Frees the sections: measures the locks on the jacket, fills what can be filled, and measures again on the filled
 * jacket, for the fill of one section may stand in the way of another. What holds a section at the end is reported.
 */
import { isosurface } from "../field/isosurface.ts";
import { NearestField } from "../field/nearest.ts";
import type { Jacket } from "../jacket/jacket.ts";
import type { JobContext } from "../job/context.ts";
import { clipAbove } from "../mesh/clip.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { sectionPotentials } from "../parting/sections.ts";
import { Cells } from "../release/cells.ts";
import { fillField } from "../release/fill.ts";
import { measureLocks, type SectionLock } from "../release/locks.ts";
import { columnFrame, visitColumns } from "../survey/columns.ts";
import type { Direction } from "../survey/directions.ts";

/** A lock left after filling no thicker than this many steps is the grid's own roughness. */
const RESIDUE_STEPS = 2;

export interface FreeRequest {
  readonly jacket: Jacket;
  readonly pulls: readonly Direction[];
  /** The section whose patch of the jacket is nearest a point (mm). */
  readonly labelAt: (x: number, y: number, z: number) => number;
  readonly fillDepthMm: number;
  readonly shellMm: number;
  /** Times it fills before it gives up. */
  readonly rounds: number;
}

export interface FreedSections {
  /** The filled jacket's outside, with the sections' potentials on it. */
  readonly mesh: TriangleMesh;
  readonly potentials: readonly Float32Array[];
  readonly nearest: NearestField;
  readonly cells: Cells;
  /** Locks of each section on the jacket before any fill. */
  readonly locks: readonly SectionLock[];
  /** Locks left on the filled jacket. */
  readonly last: readonly SectionLock[];
  readonly fillsMm3: readonly number[];
}

/** The outside with its sections and their locks, as one round of filling left it. */
interface Round {
  readonly mesh: TriangleMesh;
  readonly potentials: Float32Array[];
  readonly nearest: NearestField;
  readonly cells: Cells;
  readonly locks: readonly SectionLock[];
  /** Were its locks measured at half the spacing too? */
  readonly proven: boolean;
}

export function freeSections(request: FreeRequest, ctx: JobContext): FreedSections {
  const { jacket } = request;
  const boardMm = jacket.request.onBoard ? 0 : null;
  const potentials = potentialsOn(jacket.mesh, request.labelAt, request.pulls, jacket.request.stepMm, boardMm);
  const first = measured(request, jacket.mesh, potentials, ctx);
  let round = first;
  let { grid, phi } = jacket;
  const fillsMm3 = request.pulls.map(() => 0);
  let best = { round: first, fillsMm3: [...fillsMm3] };
  for (let k = 0; k < request.rounds; k++) {
    ctx.progress("parting", 0.6 + (0.35 * k) / request.rounds);
    // At first all that can be filled is; later only what still holds, unless something deeper holds anyway.
    const filling = round.locks.filter((lock) => lock.columns.length > 0 && (k === 0 || lock.holdingMm3 > 0));
    if (filling.length === 0 || (k > 0 && round.locks.some((lock) => lock.openMm3 > 0))) break;
    round.locks.forEach((lock, s) => {
      if (filling.includes(lock)) fillsMm3[s] += lock.fillMm3;
    });
    const swept = fillField(grid, phi, filling);
    grid = swept.grid;
    phi = swept.phi;
    const outside = isosurface(grid, phi, 0, ctx);
    const mesh = jacket.request.onBoard ? clipAbove(outside, 0) : outside;
    // The lines stay where they are in space: a line that moves with every fill opens new locks.
    const potentials = round.cells.carried(mesh);
    round = measured(request, mesh, potentials, ctx);
    // The lines of one measure may miss slivers between them: a second look before anything is called free.
    if (holding(round) === 0 && request.rounds > 1) round = finer(request, round, ctx);
    // The fill of one section may lock another: the round that holds least is kept, with the fill it took.
    if (holding(round) < holding(best.round) || k === 0) best = { round, fillsMm3: [...fillsMm3] };
  }
  if (request.rounds > 1) best = { ...best, round: finer(request, best.round, ctx) };
  const { mesh, potentials: lines, nearest, cells, locks } = best.round;
  return { mesh, potentials: lines, nearest, cells, locks: first.locks, last: locks, fillsMm3: best.fillsMm3 };
}

function holding(round: Round): number {
  return round.locks.reduce((sum, lock) => sum + lock.holdingMm3, 0);
}

function measured(request: FreeRequest, mesh: TriangleMesh, potentials: Float32Array[], ctx: JobContext): Round {
  ctx.checkCancelled();
  const { stepMm } = request.jacket.request;
  const nearest = NearestField.about(mesh, 2 * stepMm, ctx);
  const cells = Cells.of(nearest, potentials);
  return { mesh, potentials, nearest, cells, locks: locksAt(stepMm, request, mesh, cells, ctx), proven: false };
}

/** The round with every section that seems free measured at half the spacing; its locks are told if it is not. */
function finer(request: FreeRequest, round: Round, ctx: JobContext): Round {
  if (round.proven) return round;
  const found = locksAt(request.jacket.request.stepMm / 2, request, round.mesh, round.cells, ctx);
  const locks = round.locks.map((lock, s) => (lock.holdingMm3 === 0 && found[s].holdingMm3 > 0 ? found[s] : lock));
  return { ...round, locks, proven: true };
}

function locksAt(
  spacingMm: number,
  { jacket, pulls, fillDepthMm, shellMm }: FreeRequest,
  mesh: TriangleMesh,
  cells: Cells,
  ctx: JobContext,
): SectionLock[] {
  const { stepMm, onBoard } = jacket.request;
  const boardMm = onBoard ? 0 : null;
  const residueMm = RESIDUE_STEPS * stepMm;
  const common = { jacket: mesh, spacingMm, alongMm: stepMm, boardMm, fillDepthMm, residueMm, shellMm };
  return measureLocks(
    pulls.map((pull, section) => ({ ...common, pull, section })),
    cells,
    ctx,
  );
}

function potentialsOn(
  mesh: TriangleMesh,
  labelAt: (x: number, y: number, z: number) => number,
  pulls: readonly Direction[],
  stepMm: number,
  boardMm: number | null,
): Float32Array[] {
  const p = mesh.positions;
  const label = Uint8Array.from({ length: p.length / 3 }, (_, v) => labelAt(p[3 * v], p[3 * v + 1], p[3 * v + 2]));
  const locked = pulls.map((pull) => lockedVertices(mesh, pull, stepMm, boardMm));
  return sectionPotentials(mesh, label, pulls, locked, stepMm);
}

/** 1 at the vertices at either end of a column deeper than the mesh's own roughness. */
function lockedVertices(mesh: TriangleMesh, pull: Direction, stepMm: number, boardMm: number | null): Uint8Array {
  const out = new Uint8Array(mesh.positions.length / 3);
  const t = mesh.triangles;
  visitColumns(mesh, columnFrame(mesh, pull, stepMm), boardMm, (_line, from, to, first, last) => {
    if (to - from < stepMm) return;
    for (let c = 0; c < 3; c++) {
      if (first >= 0) out[t[3 * first + c]] = 1;
      out[t[3 * last + c]] = 1;
    }
  });
  return out;
}
