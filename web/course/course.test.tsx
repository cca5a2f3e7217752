// @vitest-environment jsdom
import { act, cleanup, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter, Route, Routes, useLocation } from "react-router";
import { afterEach, beforeAll, beforeEach, describe, expect, it, vi } from "vitest";
import type { StoredPlan } from "../../contract/pieces.ts";
import { newPlan } from "../../core/plan/document/document.ts";
import type { PlanFigures, ShownPlan } from "../../core/plan/results/figures.ts";
import { usePlan } from "../document/planStore.ts";
import { figuresOfABall } from "../testing/figures.ts";
import { withoutLayout } from "../testing/layout.ts";
import { documentNow, openDocument, planningWith } from "../testing/planning.ts";
import { CommandSearch } from "./CommandSearch.tsx";
import { ConflictDialog } from "./ConflictDialog.tsx";
import { Tally } from "./Tally.tsx";

let figures: PlanFigures;
beforeAll(async () => {
  figures = await figuresOfABall();
});
beforeEach(() => openDocument());
afterEach(cleanup);

const bundleOf = (own: PlanFigures) => ({ figures: own }) as ShownPlan;
const dearer = (own: PlanFigures): PlanFigures => ({
  ...own,
  takeoff: { ...own.takeoff, costMinor: own.takeoff.costMinor + 12_345, siliconeG: own.takeoff.siliconeG - 500 },
});

describe("the tally", () => {
  it("says what to wait for before there is an answer", () => {
    render(<Tally planning={planningWith({ quality: null })} document={newPlan()} />);
    expect(screen.getByText("The tally appears with the first answer.")).toBeDefined();
    expect(screen.getByTestId("tally").dataset.quality).toBe("none");
  });

  it("shows every figure of a settled plan as it is", () => {
    render(<Tally planning={planningWith({ bundle: bundleOf(figures) })} document={newPlan()} />);
    expect(screen.getByTestId("tally-Sections").textContent).toBe("2");
    expect(screen.getByTestId("tally-Silicone").textContent).toMatch(/^[\d.]+\u2009kg$/);
    expect(screen.getByTestId("tally-Cost").textContent).toMatch(/^€\u2009?[\d\u2009]+\.\d\d$/);
    expect(screen.queryAllByTestId("tally-difference")).toHaveLength(0);
  });

  it("marks a first answer as about, but for the sections, which are counted", () => {
    render(<Tally planning={planningWith({ bundle: bundleOf(figures), quality: "coarse" })} document={newPlan()} />);
    expect(screen.getByTestId("tally-Sections").textContent).toBe("2");
    expect(screen.getByTestId("tally-Cost").textContent).toMatch(/^≈ /);
  });

  it("shows for a while what the last edit changed: more is dear, less is gained", () => {
    vi.useFakeTimers();
    try {
      const planning = planningWith({ bundle: bundleOf(dearer(figures)), before: figures });
      render(<Tally planning={planning} document={newPlan()} />);
      const changes = screen.getAllByTestId("tally-difference");
      expect(changes.map(({ textContent }) => textContent)).toEqual(["−500\u2009g", "+€\u2009123.45"]);
      expect(changes[0].className).toContain("text-success");
      expect(changes[1].className).toContain("text-warning");
      act(() => vi.advanceTimersByTime(16_000));
      expect(screen.queryAllByTestId("tally-difference")).toHaveLength(0);
    } finally {
      vi.useRealTimers();
    }
  });

  it("answers while something is moved, against the plan as it stood", () => {
    const planning = planningWith({ bundle: bundleOf(figures), glance: dearer(figures) });
    render(<Tally planning={planning} document={newPlan()} />);
    expect(screen.getByTestId("tally").dataset.quality).toBe("coarse");
    expect(screen.getAllByTestId("tally-difference")).toHaveLength(2);
  });

  it("tells how far long work is, in words, and lets it be stopped", async () => {
    const cancel = vi.fn();
    render(
      <Tally planning={planningWith({ progress: { stage: "survey", fraction: 0.4 }, cancel })} document={newPlan()} />,
    );
    expect(screen.getByText("Looking along the pulls")).toBeDefined();
    expect((screen.getByRole("progressbar") as HTMLProgressElement).value).toBe(0.4);
    await userEvent.click(screen.getByRole("button", { name: "Stop" }));
    expect(cancel).toHaveBeenCalledOnce();
  });
});

function Where() {
  return <output>{useLocation().pathname}</output>;
}

describe("the search over everything there is to do", () => {
  const searching = (setOpen = vi.fn()) => {
    withoutLayout();
    render(
      <MemoryRouter initialEntries={["/pieces/7/piece"]}>
        <CommandSearch open setOpen={setOpen} pieceId="7" />
        <Routes>
          <Route path="*" element={<Where />} />
        </Routes>
      </MemoryRouter>,
    );
    return setOpen;
  };

  it("finds by what things are called and by the questions people ask, and goes there by Enter", async () => {
    const setOpen = searching();
    await userEvent.type(screen.getByLabelText("What do you want to do?"), "where do i part");
    const found = within(screen.getByRole("dialog")).getAllByRole("option");
    expect(found.map(({ textContent }) => textContent)).toEqual(["PartingWhere do I part it?"]);
    await userEvent.keyboard("{Enter}");
    expect(screen.getByRole("status").textContent).toBe("/pieces/7/parting");
    expect(setOpen).toHaveBeenCalledWith(false);
  });

  it("is gone through by the arrow keys, round and round", async () => {
    searching();
    const field = screen.getByLabelText("What do you want to do?");
    const chosen = () => screen.getByRole("option", { selected: true }).textContent;
    expect(chosen()).toContain("Piece");
    await userEvent.type(field, "{ArrowDown}{ArrowDown}");
    expect(chosen()).toContain("Jacket");
    await userEvent.type(field, "{ArrowUp}{ArrowUp}{ArrowUp}");
    expect(chosen()).toContain("The shelf");
    await userEvent.keyboard("{Enter}");
    expect(screen.getByRole("status").textContent).toBe("/");
  });

  it("says so where nothing goes by a name", async () => {
    searching();
    await userEvent.type(screen.getByLabelText("What do you want to do?"), "casserole{Enter}");
    expect(screen.getByRole("status").textContent).toBe("/pieces/7/piece");
  });

  it("undoes and redoes", async () => {
    usePlan.getState().edit((plan) => ({ ...plan, brief: { ...plan.brief, edition: 40 } }));
    searching();
    await userEvent.click(screen.getByRole("option", { name: /^Undo/ }));
    expect(documentNow().brief.edition).toBe(1);
  });

  it("is closed by Escape and leaves everything as it is", async () => {
    const setOpen = searching();
    await userEvent.type(screen.getByLabelText("What do you want to do?"), "shelf{Escape}");
    expect(setOpen).toHaveBeenCalledWith(false);
    expect(screen.getByRole("status").textContent).toBe("/pieces/7/piece");
  });

  it("lists the shortcuts", () => {
    searching();
    expect(screen.getByText("from dot to dot of the lines in hand")).toBeDefined();
  });
});

describe("the choice between two plans", () => {
  const theirs: StoredPlan = {
    partId: "7f8a2c1e-0d4b-4c53-9f0e-6a1b2c3d4e5f",
    revision: 9,
    document: newPlan(),
    updatedAt: "2026-03-02T09:15:00.000Z",
    updatedBy: { id: "7f8a2c1e-0d4b-4c53-9f0e-6a1b2c3d4e61", name: "Ines" },
  };

  it("says who and when, and gives both", async () => {
    const [keepMine, takeTheirs] = [vi.fn(), vi.fn()];
    render(<ConflictDialog theirs={theirs} keepMine={keepMine} takeTheirs={takeTheirs} />);
    expect(screen.getByRole("alertdialog").textContent).toMatch(/Ines saved another version at \d{1,2}:\d\d/);
    await userEvent.click(screen.getByRole("button", { name: "Go on with theirs" }));
    await userEvent.click(screen.getByRole("button", { name: "Go on with mine" }));
    expect([keepMine.mock.calls.length, takeTheirs.mock.calls.length]).toEqual([1, 1]);
  });
});
