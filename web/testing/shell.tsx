/** The Shell station on the page, with the plan of a ball, for tests of what it shows. */
import { render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { DEFAULT_SETTINGS } from "../../contract/settings.ts";
import { ALONE } from "../../core/job/team.ts";
import { bundleOf } from "../../core/plan/results/bundle.ts";
import { figuresOf } from "../../core/plan/results/figures.ts";
import { identifiable, identified } from "../../core/plan/results/identified.ts";
import { TYPICAL_RATES } from "../../core/takeoff/rates.ts";
import { usePlan } from "../document/planStore.ts";
import { SettingsContext } from "../lib/show.ts";
import { useSolids } from "../planning/solids.ts";
import type { Planning } from "../planning/usePlanning.ts";
import { DrawingBoard } from "../stations/shell/DrawingBoard.tsx";
import { usePicked } from "../stations/shell/picked.ts";
import { ShellStation } from "../stations/shell/Station.tsx";
import { useProfileChoice } from "../stations/shell/useProfile.ts";
import { ballPlan, planOfABall } from "./figures.ts";
import { FINIAL } from "./pieces.ts";
import { openDocument, planningWith } from "./planning.ts";

const document = ballPlan();

/** A planning that has the ball's plan settled. */
export async function ballPlanning(): Promise<Planning> {
  const bundle = await bundleOf(planOfABall(), { readMs: 0, planMs: 0, totalMs: 0 }, ALONE);
  const identity = identified(identifiable(bundle, document.parting), document.identity);
  const figures = figuresOf(bundle.figures, document, TYPICAL_RATES, identity);
  return planningWith({ bundle: { ...bundle, figures } });
}

/** Opens the ball's plan anew, with nothing picked and nothing worked out. */
export function openBall(): void {
  openDocument(document);
  usePicked.setState({ wall: null, dragged: null, adding: false });
  useProfileChoice.setState({ shown: false, plane: "level", share: 0.5 });
  useSolids.setState({ made: null, busy: false, problem: null });
}

/** The station as the page shows it: its board in the middle, its sheet beside it. */
function BoardAndSheet({ planning }: { planning: Planning }) {
  const open = usePlan((plan) => plan.document);
  if (!open) return null;
  const props = { piece: FINIAL, document: open, planning };
  return (
    <>
      <DrawingBoard {...props} />
      <ShellStation {...props} />
    </>
  );
}

export function shownShell(planning: Planning): void {
  render(
    <SettingsContext value={{ ...DEFAULT_SETTINGS, memberName: "Ines" }}>
      <BoardAndSheet planning={planning} />
    </SettingsContext>,
  );
}

/** The part of the sheet under a heading. */
export function part(title: string | RegExp) {
  const section = screen.getByRole("heading", { name: title, level: 3 }).closest("section");
  if (!section) throw new Error(`There is no part called ${title}.`);
  return within(section);
}

/** The button that takes the width of all flanges in hand. */
export function widthByHand(): HTMLElement {
  return within(screen.getByRole("group", { name: "Width off the jacket" })).getByRole("button", { name: "By hand" });
}

export function pickTheWall(): Promise<void> {
  return userEvent.click(screen.getByRole("button", { name: /^Wall 1, between/ }));
}
