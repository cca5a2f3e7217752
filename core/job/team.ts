/**
 * Threads that share out a kernel's work. A kernel is a plain function over one share of the work; its outputs are
 * arrays in memory the team can share, each share writing to places of its own. Which thread takes which share never
 * changes a result: one thread and two give the same bits.
 *
 * The caller's thread works too, and waits for the others without leaving the kernel: computations stay plain
 * functions. (So a team must not be used on a page's own thread.)
 */

export interface Kernel<Share> {
  /** Names the kernel to the other threads, see `core/kernels.ts`. */
  readonly name: string;
  readonly run: (share: Share) => void;
}

export interface Team {
  /** Threads that work, the caller's among them. */
  readonly size: number;
  /** Memory for an array the team writes to or reads, zeroed. */
  buffer(bytes: number): ArrayBuffer | SharedArrayBuffer;
  /**
   * Runs every share once and returns when all are done.
   * @param tick told the fraction of shares taken
   */
  run<Share>(kernel: Kernel<Share>, shares: readonly Share[], tick?: (done: number) => void): void;
}

/**
 * The same figures in memory that the team shares: other arrays are copied again for every piece of work they go with.
 * An array that lies there already is itself.
 */
export function shared<T extends Float32Array | Int32Array | Uint32Array | Int16Array | Uint8Array>(
  team: Team,
  array: T,
): T {
  if (team.size === 1 || array.byteLength === 0 || array.buffer instanceof SharedArrayBuffer) return array;
  const Kind = array.constructor as new (buffer: ArrayBufferLike) => T;
  const out = new Kind(team.buffer(array.byteLength));
  out.set(array);
  return out;
}

/** The caller's thread by itself. */
export const ALONE: Team = {
  size: 1,
  buffer: (bytes) => new ArrayBuffer(bytes),
  run(kernel, shares, tick) {
    shares.forEach((share, k) => {
      kernel.run(share);
      tick?.((k + 1) / shares.length);
    });
  },
};

/** Another thread, as its host can reach it. */
export interface Helper {
  /** Has it loaded its kernels? */
  ready(): boolean;
  post(task: Task): void;
}

/** What a helper is sent: all shares, and the counters by which they are taken. */
export interface Task {
  readonly kernel: string;
  readonly shares: readonly unknown[];
  readonly counters: SharedArrayBuffer;
}

/** Places in a task's counters: the next share, helpers that have ended, shares that helpers have done; then each share's state. */
const NEXT = 0;
const ENDED = 1;
const DONE_BY_HELPERS = 2;
const STATES = 3;
const IS_DONE = 1;

/** A helper that finishes nothing for so long is taken for dead, ms. */
const SILENT_MS = 20_000;
/** How often the caller looks after its helpers while it waits for them, ms. */
const LOOK_MS = 200;

/**
 * A team over helpers; those not ready yet are left out. What a helper does not finish, for it failed or died of want of
 * memory, the caller does itself: shares may be run twice, for each writes the same to its own places.
 */
export class SharedTeam implements Team {
  private lostIn: string | null = null;

  /** @param silentMs a helper that finishes nothing for so long is given up, and with it all help */
  constructor(
    readonly helpers: readonly Helper[],
    private readonly silentMs = SILENT_MS,
  ) {}

  get size(): number {
    return this.lostIn === null ? 1 + this.helpers.length : 1;
  }

  /** Name of the kernel in which the helpers were lost; null while they are there. */
  get lost(): string | null {
    return this.lostIn;
  }

  buffer(bytes: number): SharedArrayBuffer {
    return new SharedArrayBuffer(bytes);
  }

  run<Share>(kernel: Kernel<Share>, shares: readonly Share[], tick?: (done: number) => void): void {
    const helpers = shares.length < 2 || this.lostIn !== null ? [] : this.helpers.filter((helper) => helper.ready());
    if (helpers.length === 0) {
      ALONE.run(kernel, shares, tick);
      return;
    }
    const counters = new SharedArrayBuffer(4 * (STATES + shares.length));
    for (const helper of helpers) helper.post({ kernel: kernel.name, shares, counters });
    const count = new Int32Array(counters);
    try {
      takeShares(kernel, shares, count, tick);
      this.awaitHelpers(kernel.name, count, helpers.length, tick);
    } catch (error) {
      // Cancelled: the helpers take no more shares; what they still write nobody reads.
      Atomics.store(count, NEXT, shares.length);
      throw error;
    }
    shares.forEach((share, k) => {
      if (Atomics.load(count, STATES + k) !== IS_DONE) kernel.run(share);
    });
  }

  /** Waits until all helpers have ended, or one has been silent for too long. */
  private awaitHelpers(kernel: string, count: Int32Array, helpers: number, tick?: (done: number) => void): void {
    let done = Atomics.load(count, DONE_BY_HELPERS);
    let silentMs = 0;
    for (let ended = Atomics.load(count, ENDED); ended < helpers; ended = Atomics.load(count, ENDED)) {
      const woken = Atomics.wait(count, ENDED, ended, Math.min(LOOK_MS, this.silentMs));
      if (woken !== "timed-out") continue;
      // Whoever wants to stop is heard meanwhile.
      tick?.(1);
      silentMs = Atomics.load(count, DONE_BY_HELPERS) === done ? silentMs + Math.min(LOOK_MS, this.silentMs) : 0;
      done = Atomics.load(count, DONE_BY_HELPERS);
      if (silentMs < this.silentMs) continue;
      this.lostIn = kernel;
      return;
    }
  }
}

/** Takes shares until none is left. */
function takeShares<Share>(
  kernel: Kernel<Share>,
  shares: readonly Share[],
  count: Int32Array,
  tick?: (done: number) => void,
): void {
  for (let k = Atomics.add(count, NEXT, 1); k < shares.length; k = Atomics.add(count, NEXT, 1)) {
    kernel.run(shares[k]);
    Atomics.store(count, STATES + k, IS_DONE);
    tick?.((k + 1) / shares.length);
  }
}

/** What a helper does with a task. A share that fails is left to the caller, who meets its cause. */
export function help(kernels: ReadonlyMap<string, Kernel<never>>, task: Task): void {
  const count = new Int32Array(task.counters);
  try {
    const kernel = kernels.get(task.kernel);
    if (kernel)
      takeShares(kernel, task.shares as readonly never[], count, () => Atomics.add(count, DONE_BY_HELPERS, 1));
  } catch {
    // Told by its state, which is not done.
  }
  Atomics.add(count, ENDED, 1);
  Atomics.notify(count, ENDED);
}

/** Splits 0..count into about `parts` runs of equal length. */
export function runsOf(count: number, parts: number): { from: number; to: number }[] {
  const each = Math.max(1, Math.ceil(count / parts));
  const runs: { from: number; to: number }[] = [];
  for (let from = 0; from < count; from += each) runs.push({ from, to: Math.min(count, from + each) });
  return runs;
}

/** Shares a large piece of work is cut into: enough that no thread waits long for the last. */
export const SHARES = 16;
