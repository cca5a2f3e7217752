import type { ReactNode } from "react";
import type { Piece } from "../../contract/pieces.ts";
import type { PlanDocument } from "../../core/plan/document/document.ts";
import type { PlanFigures } from "../../core/plan/results/figures.ts";
import type { Show } from "../lib/show.ts";
import type { Planning } from "../planning/usePlanning.ts";

/** What every station is given. */
export interface StationProps {
  readonly piece: Piece;
  readonly document: PlanDocument;
  readonly planning: Planning;
}

export type StationState = "set" | "look" | "working";

type Pane = (props: StationProps) => ReactNode;

/**
 * A station of the course, as data: to add one, a folder with its `index.ts`, and its line in `index.ts` of this folder.
 * Its sheet and its middle are fetched when they are first shown.
 */
export interface Station {
  readonly id: string;
  readonly name: string;
  /** The question it answers, as people ask it. */
  readonly question: string;
  /** What of the plan tells how it stands, with its one telling number. */
  telling(figures: PlanFigures, document: PlanDocument, show: Show): { state: StationState; figure: string };
  /** Decisions first, then numbers, then reasons: beside the middle. */
  readonly sheet: () => Promise<Pane>;
  /** What has the middle of the page, with the stage small in its corner; the stage itself where it is left out. */
  readonly middle?: () => Promise<Pane>;
}
