/** What must not touch what: a pair, what happens, why, and what helps. */
import type { MaterialId } from "../catalogue.ts";
import type { Family } from "../entries/entry.ts";

/** Where in the work two materials meet. */
export const MEETINGS = {
  surface: "on the piece",
  jacket: "in the jacket",
  walls: "at the parting walls",
  shell: "in the shell",
  board: "on the board",
  cast: "in the cast",
  hands: "in your hands",
  cleaning: "in cleaning",
} as const;
export type Meeting = keyof typeof MEETINGS;

export interface TouchingRule {
  readonly id: string;
  /** Either one of the first meets either one of the second. */
  readonly pair: readonly [readonly Family[], readonly Family[]];
  /** Where it matters; anywhere where it is left out. */
  readonly at?: readonly Meeting[];
  /** Only below or above a temperature at the bench, °C. */
  readonly below?: number;
  readonly above?: number;
  readonly what: string;
  readonly why: string;
  readonly remedy: string;
  /** What the remedy takes: it goes onto the buying list when the remedy is taken. */
  readonly takes?: { readonly material: MaterialId; readonly gPerM2: number };
  /** Not sure to happen: a patch test tells. */
  readonly test?: boolean;
  readonly source: string;
}

export const TRADE = "common practice of the trade; data sheets win";
