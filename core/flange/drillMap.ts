/** Where the holes of every wall are: marked on the flange before the next section hides the place. */
import type { AlongWall } from "./along.ts";
import { type Fastenings, firstBuilt } from "./fastenings.ts";
import type { BoltHold } from "./settings.ts";

export interface DrillRow {
  /** Number of the bolt along its wall. */
  readonly bolt: number;
  /** From the wall's beginning along the jacket, and along the flange's outer edge, mm. */
  readonly alongMm: number;
  readonly outerMm: number;
  readonly offMm: number;
  /** Aslant by so much, and away from which section's shell; null where it is drilled square. */
  readonly aslant: { readonly deg: number; readonly section: number } | null;
  /** There is no room to turn a nut: it is strapped there. */
  readonly strap: boolean;
  /** Number of the section whose flange an insert is laid into there; null where it is drilled through. */
  readonly insertIn: number | null;
}

export function drillMap(along: AlongWall, { bolts }: Fastenings, hold: BoltHold): DrillRow[] {
  return bolts.map(({ alongMm, offMm, access }, k) => ({
    bolt: k + 1,
    ...{ alongMm, offMm },
    outerMm: along.outerAt(alongMm),
    aslant: access.kind === "aslant" ? { deg: access.deg, section: access.section } : null,
    strap: access.kind === "none",
    insertIn: hold === "inserts" && access.kind !== "none" ? firstBuilt(along) : null,
  }));
}
