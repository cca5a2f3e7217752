/**
 * What a long computation is given by its host: true progress outwards, cancel inwards, other threads to share the
 * work with, and a clock for the figures it reports. The default does nothing and works alone, so kernels can be
 * called plainly.
 */
import { ALONE, type Team } from "./team.ts";

export interface JobContext {
  /** Reports the fraction done of the present stage, 0..1, from inside the computation. */
  progress(stage: string, fraction: number): void;
  /** Throws `Cancelled` when the host asked to stop. Cheap: call it from loops every few milliseconds. */
  checkCancelled(): void;
  /** Milliseconds from an arbitrary start; 0 where the host has no clock. */
  nowMs(): number;
  readonly team: Team;
}

export const plainContext: JobContext = {
  progress: () => {},
  checkCancelled: () => {},
  nowMs: () => 0,
  team: ALONE,
};

/** Thrown by `checkCancelled`; caught once, where the job was started. */
export class Cancelled extends Error {
  override readonly name = "Cancelled";
  constructor() {
    super("The computation was cancelled.");
  }
}
