/** What of a plan's results quantities, work and money depend on: areas, lengths, volumes. */
import type { FillPart } from "../release/fills.ts";
import type { FurtherRib } from "../ribs/ribs.ts";

/** What of a jacket a takeoff depends on. */
export interface JacketTotals {
  readonly siliconeG: number;
  readonly outerAreaMm2: number;
  /** What closes through-holes. */
  readonly stopsMm3: number;
  /** What closes gaps at the foot. */
  readonly footClayMm3: number;
  readonly coats: readonly { readonly massG: number; readonly areaMm2?: number }[];
}

/** What of the sections a takeoff depends on. */
export interface PartingTotals {
  readonly sections: readonly {
    readonly number: number;
    /** Of the section; where it is known. */
    readonly id?: string;
    readonly areaMm2: number;
    /** The integrals of its mean (mm) and of its Gaussian curvature; settled plans only. */
    readonly bends?: { readonly meanMm: number; readonly gauss: number };
    readonly lineMm: number;
    /** How far it stands along the board; settled plans only. */
    readonly footMm?: number;
    /** The board about it at 0, 10, 20 ... mm from the jacket, mm2; settled plans only. */
    readonly footAreasMm2?: readonly number[];
    /** Does it leave only after the piece has been lifted? */
    readonly lifted?: boolean;
  }[];
  readonly partingLengthMm: number;
  /** Its walls: numbers of the sections each parts, the area of one face by width, and its line's id; settled plans only. */
  readonly walls?: readonly {
    readonly sections: readonly [number, number];
    readonly areasMm2: readonly number[];
    readonly id?: string;
  }[];
  /** Where ribs or poles stiffen the sections; settled plans only. */
  readonly spans?: {
    readonly ribs: readonly (Pick<FurtherRib, "section" | "lengthMm"> & Partial<FurtherRib>)[];
    readonly further?: readonly FurtherRib[];
  };
  readonly fillMm3: number;
  /** Of it, filled with clay. */
  readonly clayMm3: number;
  /** Of it, hard plugs. */
  readonly plugMm3: number;
  /** The fills one by one; settled plans only. */
  readonly fillParts?: readonly Pick<FillPart, "kind" | "volumeMm3" | "onJacketMm2" | "freeMm2">[];
}
