import type { Piece } from "../../contract/pieces.ts";
import type { PlanDocument } from "../../core/plan/document/document.ts";
import type { Planning } from "../planning/usePlanning.ts";

/** What every station is given. */
export interface StationProps {
  readonly piece: Piece;
  readonly document: PlanDocument;
  readonly planning: Planning;
}
