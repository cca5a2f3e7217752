// @vitest-environment jsdom
import { cleanup, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import type { ShownPlan } from "../../../../core/plan/results/figures.ts";
import type { Decision } from "../../../../core/survey/decisions.ts";
import { usePlan } from "../../../document/planStore.ts";
import type { Planning } from "../../../planning/usePlanning.ts";
import { documentNow, openDocument, planningWith } from "../../../testing/planning.ts";
import { Decisions } from "./Decisions.tsx";

const found: Decision[] = [
  { kind: "hole", at: [0, 0, 120], figureMm: 547, loop: [10, 0, 120, 0, 0, 130, -10, 0, 120] },
  { kind: "thin", at: [40, 40, 900], figureMm: 6 },
  { kind: "tip", at: [80, 0, 1300], figureMm: 88 },
];

const planning: Planning = planningWith({
  bundle: { piece: {}, survey: {} } as unknown as ShownPlan,
  geometry: { api: { decisions: async () => found } } as unknown as Planning["geometry"],
});

/** The list over the plan as the store has it. */
function Shown() {
  const document = usePlan((plan) => plan.document);
  return document && <Decisions document={document} planning={planning} />;
}

beforeEach(() => openDocument());
afterEach(cleanup);

const list = () => within(screen.getByTestId("decisions"));

describe("what needs a decision", () => {
  it("is listed with its place and its figure", async () => {
    render(<Shown />);
    expect(await screen.findByText("547 mm round")).toBeDefined();
    expect(screen.getByText(/^6(\.0)? mm thick/)).toBeDefined();
    expect(screen.getByText("88 mm deep")).toBeDefined();
    expect(screen.getByText("3")).toBeDefined();
  });

  it("is decided with a reason, and brought back", async () => {
    render(<Shown />);
    await userEvent.click(await screen.findByRole("button", { name: /Tip that catches air/ }));
    await userEvent.type(screen.getByLabelText("What was decided"), "a vent");
    await userEvent.click(screen.getByRole("button", { name: "Done" }));
    expect(documentNow().survey.dismissed).toEqual([{ kind: "tip", at: [80, 0, 1300], reason: "a vent" }]);
    expect(list().queryByText(/Tip that catches air/)).toBeNull();
    await userEvent.click(screen.getByRole("button", { name: "Bring back" }));
    expect(documentNow().survey.dismissed).toEqual([]);
    expect(list().getByText(/Tip that catches air/)).toBeDefined();
  });

  it("makes a thin part a fragile zone, once", async () => {
    render(<Shown />);
    await userEvent.click(await screen.findByRole("button", { name: /Thin part/ }));
    await userEvent.click(screen.getByRole("button", { name: "Make it a fragile zone" }));
    expect(documentNow().zones.fragile).toHaveLength(7);
    expect(documentNow().survey.dismissed).toEqual([{ kind: "thin", at: [40, 40, 900], reason: "a fragile zone" }]);
  });

  it("closes a through-hole with clay, and takes it out again", async () => {
    render(<Shown />);
    await userEvent.click(await screen.findByRole("button", { name: /Through-hole/ }));
    await userEvent.click(screen.getByRole("button", { name: "Close it with a web of clay" }));
    expect(documentNow().jacket.stops).toEqual([{ kind: "clay", loop: found[0].loop }]);
    // The same hole is not found on the jacket that runs over the web: what is found is asked for again.
    await userEvent.click(screen.getByRole("button", { name: "Take it out" }));
    expect(documentNow().jacket.stops).toEqual([]);
  });

  it("closes it with a plug, and says which", async () => {
    render(<Shown />);
    await userEvent.click(await screen.findByRole("button", { name: /Through-hole/ }));
    await userEvent.click(screen.getByRole("button", { name: "Close it with a plug" }));
    expect(documentNow().jacket.stops).toEqual([{ kind: "plug", loop: found[0].loop }]);
    expect(within(screen.getByTestId("stops")).getByText(/closed with a plug/)).toBeDefined();
  });

  it("has lines keep clear of a tip", async () => {
    render(<Shown />);
    await userEvent.click(await screen.findByRole("button", { name: /Tip that catches air/ }));
    await userEvent.click(screen.getByRole("button", { name: "Keep lines clear of it" }));
    const { zones, survey } = documentNow();
    expect([zones.keepClear.slice(0, 3), zones.keepClear[6], zones.fragile]).toEqual([[80, 0, 1300], 176, []]);
    expect(survey.dismissed).toEqual([{ kind: "tip", at: [80, 0, 1300], reason: "lines keep clear" }]);
  });
});
