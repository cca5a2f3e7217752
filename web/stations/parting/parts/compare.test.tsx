// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeAll, describe, expect, it, vi } from "vitest";
import type { GeometryReport } from "../../../../core/plan/results/report.ts";
import type { Planning } from "../../../planning/usePlanning.ts";
import { planningWith } from "../../../testing/planning.ts";
import type { ShownOffer } from "../../../workers/geometry.ts";
import { Compare } from "./Compare.tsx";
import { TakeApart } from "./TakeApart.tsx";

// The chart draws on a canvas and the stage by WebGL: neither is to be had here.
vi.mock("./CostChart.tsx", () => ({ default: () => <p>the chart</p> }));
vi.mock("../../../scene/useStage.tsx", () => ({ useStage: () => ({ stage: {}, listeners: {} }) }));

beforeAll(() => {
  HTMLDialogElement.prototype.showModal = function () {
    this.open = true;
  };
  URL.createObjectURL = () => "blob:picture";
  URL.revokeObjectURL = () => {};
  window.matchMedia = () => ({ matches: true }) as MediaQueryList;
});
afterEach(cleanup);

function offer(count: number, cost: number, held = 0): ShownOffer {
  const parts = { fill: 0, wall: cost / 2, finishing: 0, zones: 0, setup: cost / 2, wait: 0, lift: 0, handling: 0 };
  return {
    sections: Array.from({ length: count }, () => ({ massG: 12_000, greatestMm: 900 })),
    lineMm: 2500 * count,
    fillMm3: 100_000,
    held,
    cost,
    parts,
    hours: 3 * count,
    reason: `why ${count}`,
    picture: new Blob(),
  } as unknown as ShownOffer;
}

describe("the comparison", () => {
  const plans = [offer(2, 30_000, 1), offer(4, 50_000), offer(3, 40_000)];
  const compared = (compare: Planning["compare"], onTake = vi.fn()) => {
    const at = (heldFor: string) => (
      <Compare planning={planningWith({ compare })} heldFor={heldFor} chosen={4} onTake={onTake} />
    );
    const { rerender } = render(at("one document"));
    return { onTake, change: () => rerender(at("another document")) };
  };
  const finding: Planning["compare"] = async (onPlan) => {
    for (const plan of plans) onPlan(plan);
    return { ok: true, value: plans.length };
  };
  const look = () => userEvent.click(screen.getByRole("button", { name: /^Compare/ }));

  it("lists every plan as it is found, by sections, and marks the cheapest that comes off", async () => {
    compared(finding);
    await look();
    const rows = await screen.findAllByTestId(/^offer-/);
    expect(rows.map(({ dataset }) => dataset.testid)).toEqual(["offer-2", "offer-3", "offer-4"]);
    // Two sections cost less, but one of them is held.
    expect(rows.map((row) => within(row).queryByText("cheapest that comes off") !== null)).toEqual([
      false,
      true,
      false,
    ]);
    expect(within(rows[0]).getByText(/1 of 2 held/)).toBeDefined();
    expect(within(rows[1]).getByText("why 3")).toBeDefined();
    expect(await screen.findByText("the chart")).toBeDefined();
  });

  it("lets one be taken, but not the one that is", async () => {
    const { onTake } = compared(finding);
    await look();
    const taken = within(await screen.findByTestId("offer-4")).getByRole("button", { name: "Taken" });
    expect((taken as HTMLButtonElement).disabled).toBe(true);
    await userEvent.click(within(screen.getByTestId("offer-3")).getByRole("button", { name: "Take this one" }));
    expect(onTake).toHaveBeenCalledWith(3);
  });

  it("holds two side by side, the last two that were marked", async () => {
    compared(finding);
    await look();
    for (const count of [2, 3, 4]) {
      await userEvent.click(within(await screen.findByTestId(`offer-${count}`)).getByLabelText("side by side"));
    }
    const table = screen.getByRole("dialog", { hidden: true });
    expect(within(table).getAllByText(/€/).length).toBeGreaterThan(0);
    const row = within(table).getByText("Parting line").closest("tr");
    expect(
      [...(row?.querySelectorAll("td") ?? [])].map(({ textContent }) => textContent?.replace(/\u2009/g, " ")),
    ).toEqual(expect.arrayContaining(["7 500 mm", "10.00 m"]));
  });

  it("is emptied when the document it holds for has changed", async () => {
    const { change } = compared(finding);
    await look();
    await screen.findByTestId("offer-3");
    change();
    expect(screen.queryAllByTestId(/^offer-/)).toHaveLength(0);
  });

  it("says what went wrong, and keeps what was found until it was stopped", async () => {
    compared(async (onPlan) => {
      onPlan(plans[0]);
      return { ok: false, cancelled: true, message: "Cancelled." };
    });
    await look();
    expect(await screen.findByText("Stopped. The plans found so far are shown.")).toBeDefined();
    expect(screen.getByTestId("offer-2")).toBeDefined();
  });
});

describe("the taking apart", () => {
  const order = { build: [1, 2, 3], remove: [3, 2, 1], circle: [], blocks: [] } as unknown as GeometryReport["order"];
  const slider = () => screen.getByLabelText("How far it is taken apart") as HTMLInputElement;
  const pullTo = (value: number) => fireEvent.change(slider(), { target: { value: String(value) } });

  it("moves one section after the other, in order", () => {
    const onMove = vi.fn();
    render(<TakeApart order={order} locked={[]} onMove={onMove} onRaise={vi.fn()} />);
    expect(screen.getByText(/Built in the order 1, 2, 3/)).toBeDefined();
    pullTo(0.5);
    expect(onMove).toHaveBeenLastCalledWith({ 1: 0, 2: 0, 3: 0.5 });
    pullTo(1.5);
    expect(onMove).toHaveBeenLastCalledWith({ 1: 0, 2: 0.5, 3: 1 });
    pullTo(3);
    expect(onMove).toHaveBeenLastCalledWith({ 1: 1, 2: 1, 3: 1 });
  });

  it("raises the piece, with what is still on it, before a section that leaves only then", () => {
    const [onMove, onRaise] = [vi.fn(), vi.fn()];
    const lifted = { ...order, liftBefore: 1, liftMm: 120 } as GeometryReport["order"];
    render(<TakeApart order={lifted} locked={[]} onMove={onMove} onRaise={onRaise} />);
    pullTo(2.5);
    expect(onRaise).toHaveBeenLastCalledWith(60, [1]);
    expect(onMove).toHaveBeenLastCalledWith({ 1: 0, 2: 1, 3: 1 });
    pullTo(4);
    expect(onRaise).toHaveBeenLastCalledWith(120, [1]);
    expect(onMove).toHaveBeenLastCalledWith({ 1: 1, 2: 1, 3: 1 });
    expect(screen.getByText(/lift the piece in its mould 120/)).toBeDefined();
  });

  it("stops a hair into a section that is locked, and says why", () => {
    const onMove = vi.fn();
    render(<TakeApart order={order} locked={[2]} onMove={onMove} onRaise={vi.fn()} />);
    pullTo(3);
    const [[shares]] = onMove.mock.calls.slice(-1);
    expect([shares[3], shares[1]]).toEqual([1, 0]);
    expect(shares[2]).toBeGreaterThan(0);
    expect(shares[2]).toBeLessThan(0.1);
    expect(screen.getByText(/Section 2 meets the jacket here/)).toBeDefined();
  });

  it("does not begin where sections block each other in a circle, and says how far they go", () => {
    const circle = {
      ...order,
      circle: [2, 3],
      blocks: [{ section: 3, by: 2, at: [0, 0, 0], afterMm: 41.6, biteMm: 8, areaMm2: 9000 }],
    } as unknown as GeometryReport["order"];
    render(<TakeApart order={circle} locked={[]} onMove={vi.fn()} onRaise={vi.fn()} />);
    expect(screen.getByText(/Sections 2 and 3 block each other after 42 mm/)).toBeDefined();
    expect((screen.getByRole("button", { name: "Take apart" }) as HTMLButtonElement).disabled).toBe(true);
  });

  it("is played by the space bar, and back again", async () => {
    const onMove = vi.fn();
    render(<TakeApart order={order} locked={[]} onMove={onMove} onRaise={vi.fn()} />);
    fireEvent.keyDown(window, { key: " " });
    // Where less motion is asked for, a section a step.
    await vi.waitFor(() => expect(onMove).toHaveBeenLastCalledWith({ 1: 1, 2: 1, 3: 1 }));
    fireEvent.keyDown(window, { key: " " });
    await vi.waitFor(() => expect(onMove).toHaveBeenLastCalledWith({ 1: 0, 2: 0, 3: 0 }));
  });
});
