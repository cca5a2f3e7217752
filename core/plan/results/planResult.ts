/** What a plan's document comes to. */
import type { Wetted } from "../../casting/wetted.ts";
import type { Jacket } from "../../jacket/jacket.ts";
import type { OtherWay } from "../../keys/whichWay.ts";
import type { Spans } from "../../ribs/ribs.ts";
import type { ZoneKind } from "../../survey/zones.ts";
import type { WallGround } from "../../walls/wallGround.ts";
import type { ProvenParting } from "../proof/parting.ts";
import type { PlanWarning } from "../proof/warning.ts";
import type { Piece } from "../stages/piece.ts";

/** Geometry, and figures that follow from it alone: no money, no rates, no names. */
export interface PlanResult {
  readonly piece: Piece;
  readonly jacket: Jacket;
  readonly parting: ProvenParting;
  /** What the parting walls stand on, one for every line; settled plans only. */
  readonly walls: readonly WallGround[];
  /** What a liquid in the mould pushes on; settled plans only. */
  readonly cavity: Wetted | null;
  /** Ways that the jacket nearly fits its shell beside the right one; settled plans only. */
  readonly ways: readonly OtherWay[];
  /** How far the sections span, and the ribs where that is too far; settled plans only. */
  readonly spans: Spans;
  /** How much of the lines runs through each kind of zone. */
  readonly zoneMm: Readonly<Record<ZoneKind, number>>;
  readonly warnings: readonly PlanWarning[];
}
