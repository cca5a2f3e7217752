/**
 * Frees the sections: measures the locks on the jacket, fills what can be filled, and measures again on the filled
 * jacket, for the fill of one section may stand in the way of another. What holds a section at the end is reported.
 */
import type { BrickGrid } from "../field/grid.ts";
import { isosurface } from "../field/isosurface.ts";
import { NearestField } from "../field/nearest.ts";
import type { Jacket } from "../jacket/jacket.ts";
import type { JobContext } from "../job/context.ts";
import { clipAbove } from "../mesh/clip.ts";
import { sharedMesh, type TriangleMesh } from "../mesh/mesh.ts";
import { vertexNeighbours } from "../mesh/vertexNeighbours.ts";
import { withoutIslands } from "../parting/sections.ts";
import { Cells } from "../release/cells.ts";
import { fillField } from "../release/fill.ts";
import { LockMemory, measureLocks, type SectionLock } from "../release/locks.ts";
import type { Direction } from "../survey/directions.ts";

/** A lock left after filling no thicker than this many steps is the grid's own roughness. */
export const RESIDUE_STEPS = 2;
/** What the rounds of filling have most in common with. */
const LIKE = "filled 0";

export interface FreeRequest {
  readonly jacket: Jacket;
  /** The places nearest the jacket's outside. */
  readonly nearest: NearestField;
  readonly pulls: readonly Direction[];
  /** The sections' potentials on the jacket as it is before any fill. */
  readonly potentials: readonly Float32Array[];
  readonly fillDepthMm: number;
  /** Sections whose locks are left as they are, though they could be filled. */
  readonly open: readonly boolean[];
  readonly shellMm: number;
  /** Times it fills before it gives up. */
  readonly rounds: number;
  /** Of the plans before on the same jacket; null where this one has too little in common with them to gain by it. */
  readonly memory: FreeingMemory | null;
}

/** What of the plan before on the same jacket may serve this one, by the round of filling. */
export class FreeingMemory {
  private readonly locks = new Map<string, LockMemory>();
  private readonly filled = new Map<number, FilledJacket>();

  /** @param like another round, to begin from where this one was never measured */
  locksOf(round: string, like: string): LockMemory {
    const held = this.locks.get(round) ?? this.locks.get(like)?.copy() ?? new LockMemory();
    this.locks.set(round, held);
    return held;
  }

  /** The jacket with these locks filled: the one of the plan before where that filled the very same. */
  filledOf(round: number, phi: Float32Array, filling: readonly SectionLock[], make: () => Filled): Filled {
    let held = this.filled.get(round);
    if (held?.before !== phi || !sameFill(held.filling, filling)) {
      held = { before: phi, filling, ...make() };
      this.filled.set(round, held);
    }
    return held;
  }
}

/** A filled jacket's field, its outside, and the places nearest to that. */
interface Filled {
  readonly grid: BrickGrid;
  readonly phi: Float32Array;
  readonly mesh: TriangleMesh;
  readonly nearest: NearestField;
}

interface FilledJacket extends Filled {
  /** The field that was filled, and the locks filled in it. */
  readonly before: Float32Array;
  readonly filling: readonly SectionLock[];
}

function sameFill(a: readonly SectionLock[], b: readonly SectionLock[]): boolean {
  return (
    a.length === b.length &&
    a.every(
      ({ columns, frame }, k) =>
        columns.length === b[k].columns.length &&
        JSON.stringify(frame) === JSON.stringify(b[k].frame) &&
        columns.every(({ line, fromMm, toMm }, n) => {
          const other = b[k].columns[n];
          return line === other.line && fromMm === other.fromMm && toMm === other.toMm;
        }),
    )
  );
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
export interface Round {
  readonly mesh: TriangleMesh;
  readonly potentials: readonly Float32Array[];
  readonly nearest: NearestField;
  readonly cells: Cells;
  readonly locks: readonly SectionLock[];
  /** Were its locks measured at half the spacing? The lines of a step may miss slivers between them. */
  readonly proven: boolean;
}

/** The sections and their locks as they are before any fill. */
export function lockedBare(request: FreeRequest, ctx: JobContext): Round {
  return measured(request, request.jacket.mesh, request.nearest, request.potentials, "bare", false, ctx);
}

/** Is there a lock that no fill goes into? Then the sections will not all release, whatever else is filled. */
export function tooDeep(bare: Round): boolean {
  return bare.locks.some(({ openMm3 }) => openMm3 > 0);
}

/** Locks that differ by less than this share are filled alike, and hold alike. */
const ALIKE_SHARE = 0.1;

/** Would the same sections, their lines laid a little otherwise, most likely come to the same? */
export function lockedAlike(a: Round, b: Round): boolean {
  return a.locks.every(({ lockMm3 }, s) => {
    const other = b.locks[s].lockMm3;
    return Math.abs(lockMm3 - other) <= ALIKE_SHARE * Math.max(lockMm3, other);
  });
}

/** @param first the sections as `lockedBare` has them, where that is known */
export function freeSections(request: FreeRequest, ctx: JobContext, first = lockedBare(request, ctx)): FreedSections {
  const { jacket } = request;
  let round = first;
  let { grid, phi } = jacket;
  const fillsMm3 = request.pulls.map(() => 0);
  let best = { round: first, fillsMm3: [...fillsMm3] };
  for (let k = 0; k < request.rounds; k++) {
    ctx.progress("parting", 0.6 + (0.35 * k) / request.rounds);
    // At first all that can be filled is; later only what still holds, unless something deeper holds anyway.
    const filling = round.locks.filter(
      (lock, s) => lock.columns.length > 0 && !request.open[s] && (k === 0 || lock.holdingMm3 > 0),
    );
    if (filling.length === 0 || (k > 0 && round.locks.some((lock, s) => lock.openMm3 > 0 && !request.open[s]))) break;
    round.locks.forEach((lock, s) => {
      if (filling.includes(lock)) fillsMm3[s] += lock.fillMm3;
    });
    const fill = () => filledJacket(jacket, grid, phi, filling, ctx);
    const filled = request.memory?.filledOf(k, phi, filling, fill) ?? fill();
    const { mesh, nearest } = filled;
    grid = filled.grid;
    phi = filled.phi;
    // The lines stay where they are in space: a line that moves with every fill opens new locks.
    const potentials = withoutIslands(round.cells.carried(mesh), vertexNeighbours(mesh));
    round = measured(request, mesh, nearest, potentials, `filled ${k}`, request.rounds > 1, ctx);
    // The fill of one section may lock another: the round that holds least is kept, with the fill it took.
    if (holding(round) < holding(best.round) || k === 0) best = { round, fillsMm3: [...fillsMm3] };
  }
  // Nothing is called free by the first, wider look.
  if (request.rounds > 1 && !best.round.proven) best = { ...best, round: finer(request, best.round, ctx) };
  const { mesh, potentials: lines, nearest, cells, locks } = best.round;
  const last = locks.map((lock, s) => (request.open[s] ? leftOpen(lock, first.locks[s]) : lock));
  return { mesh, potentials: lines, nearest, cells, locks: first.locks, last, fillsMm3: best.fillsMm3 };
}

/** All that could have been filled holds where it is left open, however thin it is. */
function leftOpen(last: SectionLock, first: SectionLock): SectionLock {
  return first.lockMm3 > last.holdingMm3 ? { ...first, holdingMm3: first.lockMm3 } : last;
}

function filledJacket(
  { request }: Jacket,
  grid: BrickGrid,
  phi: Float32Array,
  filling: readonly SectionLock[],
  ctx: JobContext,
): Filled {
  const swept = fillField(grid, phi, filling);
  const outside = isosurface(swept.grid, swept.phi, 0, ctx);
  const mesh = sharedMesh(request.onBoard ? clipAbove(outside, 0) : outside, ctx.team);
  return { ...swept, mesh, nearest: NearestField.about(mesh, 2 * request.stepMm, ctx) };
}

function holding(round: Round): number {
  return round.locks.reduce((sum, lock) => sum + lock.holdingMm3, 0);
}

function measured(
  request: FreeRequest,
  mesh: TriangleMesh,
  nearest: NearestField,
  potentials: readonly Float32Array[],
  name: string,
  proven: boolean,
  ctx: JobContext,
): Round {
  ctx.checkCancelled();
  const { stepMm } = request.jacket.request;
  const cells = Cells.of(nearest, potentials, ctx.team);
  const locks = locksAt(proven ? stepMm / 2 : stepMm, request, mesh, cells, name, ctx);
  return { mesh, potentials, nearest, cells, locks, proven };
}

/** The round with every section that seems free measured at half the spacing; its locks are told if it is not. */
function finer(request: FreeRequest, round: Round, ctx: JobContext): Round {
  const found = locksAt(request.jacket.request.stepMm / 2, request, round.mesh, round.cells, "finer", ctx);
  const locks = round.locks.map((lock, s) => (lock.holdingMm3 === 0 && found[s].holdingMm3 > 0 ? found[s] : lock));
  return { ...round, locks, proven: true };
}

function locksAt(
  spacingMm: number,
  { jacket, pulls, fillDepthMm, shellMm, memory }: FreeRequest,
  mesh: TriangleMesh,
  cells: Cells,
  round: string,
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
    memory?.locksOf(round, LIKE),
  );
}
