// @vitest-environment jsdom
import { cleanup, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeAll, beforeEach, describe, expect, it } from "vitest";
import { builtWalls } from "../../../core/plan/builtWalls.ts";
import type { Clash } from "../../../core/solids/asBuilt.ts";
import type { Relief } from "../../../core/solids/relief.ts";
import { undo } from "../../document/planStore.ts";
import { useSolids } from "../../planning/solids.ts";
import type { Planning } from "../../planning/usePlanning.ts";
import { documentNow } from "../../testing/planning.ts";
import { ballPlanning, openBall, part, shownShell, widthByHand } from "../../testing/shell.tsx";

let planning: Planning;
beforeAll(async () => {
  planning = await ballPlanning();
});
beforeEach(openBall);
afterEach(cleanup);

const shown = () => shownShell(planning);

describe("the solid sections", () => {
  const solid = (number: number, lift: "one" | "hoist", pieces = 1) => ({
    ...{ number, lift, pieces, massDryG: 1000 * number, massWetG: 1500 * number, volumeMm3: 1e6, laidMm3: 1e6 },
    mesh: { positions: new Float32Array(0), triangles: new Uint32Array(0) },
    centreMm: [0, 0, 0] as const,
    sizeMm: [300, 200, 100] as const,
  });

  it("are worked out on demand, tell weights and who lifts them, and are out of date after an edit", async () => {
    const sections = [solid(1, "one"), solid(2, "hoist", 2)];
    planning = {
      ...planning,
      solids: async () => ({ ok: true, value: { sections, shown: [], clashes: [], reliefs: [] } }),
    };
    shown();
    await userEvent.click(screen.getByRole("button", { name: "Work them out" }));
    const table = within(await screen.findByTestId("solids"));
    expect(table.getByText("a hoist")).toBeDefined();
    expect(table.getByText(/^3\.00.kg$/)).toBeDefined();
    expect(table.getByText(/^Section 2 is in 2 pieces/)).toBeDefined();
    // What wants a hoist is offered to be parted where it is narrowest.
    const lifting = part("To lift them by");
    expect(lifting.getByText("Section 2 is more than two people lift.")).toBeDefined();
    expect(lifting.getByRole("button", { name: /^Part section 2 at its neck: \d+.mm across, / })).toBeDefined();
    expect(lifting.queryByRole("button", { name: /^Part section 1/ })).toBeNull();
    await userEvent.click(widthByHand());
    const width = screen.getByLabelText("Width off the jacket");
    await userEvent.clear(width);
    await userEvent.type(width, "60");
    expect(screen.queryByTestId("solids")).toBeNull();
    expect(screen.getByRole("button", { name: "Work them out again" })).toBeDefined();
    undo();
  });

  it("tell where one does not pass another as they are built, or that all do", async () => {
    const sections = [solid(1, "one"), solid(2, "one")];
    const clash: Clash = { section: 2, other: 1, biteMm: 6.4, movedMm: 41, areaMm2: 1200, at: [0, 0, 100] };
    const relief: Relief = { section: 2, other: 1, biteMm: 9, areaMm2: 4000, leftMm: 11, at: [0, 0, 60], bolts: [] };
    const answer =
      (clashes: readonly Clash[], reliefs: readonly Relief[] = []) =>
      async () => ({
        ...{ ok: true as const, value: { sections, shown: [], clashes, reliefs } },
      });
    planning = { ...planning, solids: answer([clash]) };
    shown();
    await userEvent.click(screen.getByRole("button", { name: /^Work them out/ }));
    expect(
      await screen.findByText(
        /section 2 runs up to 6\.4.mm into section 1 after 41.mm of its way: 12\.0.cm² of it\. Laid thinner, too little/,
      ),
    ).toBeDefined();
    expect(screen.queryByText(/they pass each other/)).toBeNull();
    cleanup();
    useSolids.getState().set({ made: null });
    planning = { ...planning, solids: answer([], [relief, { ...relief, areaMm2: 20, leftMm: null, at: [9, 0, 60] }]) };
    shown();
    await userEvent.click(screen.getByRole("button", { name: /^Work them out/ }));
    expect(await screen.findByText(/they pass each other on their way out/)).toBeDefined();
    // What it takes for them to pass is told, too.
    const [first, second] = within(screen.getByTestId("reliefs")).getAllByRole("listitem");
    expect(first.textContent).toMatch(
      /^Section 2 past 1: up to 9\.0.mm less over 40\.0.cm², 11\.0.mm of its shell stays\./,
    );
    expect(second.textContent).toMatch(/^Section 2 past 1: flange or foot cut back by up to 9\.0.mm over a spot\./);
  });

  it("tell which bolts hold nothing where something is left out, and take them off their wall", async () => {
    const sections = [solid(1, "one"), solid(2, "one")];
    const boltsNow = () => {
      const { walls, figures } = planning.bundle ?? {};
      const [{ fastenings }] = builtWalls(walls ?? [], documentNow(), figures?.ids.lines);
      return fastenings.bolts.map(({ alongMm }) => alongMm);
    };
    const before = boltsNow();
    const relief: Relief = {
      ...{ section: 2, other: 1, biteMm: 9, areaMm2: 4000, leftMm: null, at: [0, 0, 60] },
      bolts: [{ wall: 1, alongMm: before[1] }],
    };
    const value = { sections, shown: [], clashes: [], reliefs: [relief] };
    planning = { ...planning, solids: async () => ({ ok: true as const, value }) };
    shown();
    await userEvent.click(screen.getByRole("button", { name: /^Work them out/ }));
    expect(screen.getByText(/^The bolt at \d+.mm of wall 1 holds nothing then\./)).toBeDefined();
    await userEvent.click(screen.getByRole("button", { name: "Take it away" }));
    expect(boltsNow()).toEqual(before.filter((_, k) => k !== 1));
    undo();
    expect(boltsNow()).toEqual(before);
  });

  it("say why where they cannot be had", async () => {
    const message = "The jacket is no closed body: it is open, or folded into itself.";
    planning = { ...planning, solids: async () => ({ ok: false, cancelled: false, message }) };
    shown();
    await userEvent.click(screen.getByRole("button", { name: "Work them out" }));
    expect(await screen.findByText(message)).toBeDefined();
  });
});
