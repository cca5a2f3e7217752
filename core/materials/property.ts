import type { MaterialKey, MaterialUse } from "./catalogue.ts";

/** A figure with where it comes from: every default is editable, and says so. */
export interface Property {
  readonly value: number;
  readonly unit: string;
  readonly source: string;
}

/** How a quantity was worked out, to be opened on request. */
export interface Working {
  readonly formula: string;
  readonly inputs: readonly { readonly name: string; readonly value: number; readonly unit: string }[];
}

/** One line of a buying list. A material and its use are there once. */
export interface MaterialLine {
  readonly material: MaterialKey;
  readonly use: MaterialUse;
  /** To group the list by. */
  readonly group: "jacket" | "shell" | "sundries";
  readonly quantity: number;
  readonly unit: "kg" | "l" | "m2" | "m" | "pcs";
  readonly working: Working;
}

export const TYPICAL = "typical; the maker's data sheet wins";
