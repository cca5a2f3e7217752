// @vitest-environment jsdom
import { cleanup, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { FillPart } from "../../../../core/release/fills.ts";
import { documentNow, openDocument } from "../../../testing/planning.ts";
import { BeforeCoat } from "./BeforeCoat.tsx";
import { CutOffHere } from "./CutOffHere.tsx";
import { FillList } from "./FillList.tsx";

const comeTo = vi.fn();
vi.mock("../../../scene/useStage.tsx", () => ({
  useStage: () => ({ stage: { comeTo: (at: readonly number[]) => comeTo(at) }, listen: () => () => {} }),
}));

beforeEach(() => {
  comeTo.mockClear();
  openDocument();
});
afterEach(cleanup);

const where = (at: FillPart["at"]) => `${at[2]} up`;
const part = (kind: FillPart["kind"], at: FillPart["at"], litres: number): FillPart => ({
  ...{
    kind,
    at,
    chosen: false,
    volumeMm3: litres * 1e6,
    thickMm: 22,
    onJacketMm2: 31_000,
    freeMm2: 9000,
    bySection: [litres * 1e6],
  },
});

describe("the fills, one by one", () => {
  const parts = [part("clay", [1, 2, 300], 0.8), part("silicone", [4, 5, 600], 0.05)];

  it("tell what they cost and how much of the jacket stands off the shell", () => {
    render(<FillList where={where} parts={parts} costsMinor={[0, 187]} choices={[]} />);
    const items = screen.getAllByRole("listitem");
    expect(items[0].textContent).toContain("about 310\u2009cm² of the jacket stands off the shell");
    expect(items[1].textContent).toContain("1.87");
  });

  it("are made of something else, left open and filled again one by one", async () => {
    const { rerender } = render(<FillList where={where} parts={parts} costsMinor={[0, 187]} choices={[]} />);
    await userEvent.selectOptions(screen.getByLabelText("Fill 1 is made of"), "plug");
    expect(documentNow().parting.fills).toEqual([{ at: [1, 2, 300], kind: "plug" }]);
    await userEvent.selectOptions(screen.getByLabelText("Fill 2 is made of"), "open");
    expect(documentNow().parting.fills).toHaveLength(2);
    const { fills } = documentNow().parting;
    rerender(<FillList where={where} parts={[parts[0]]} costsMinor={[0]} choices={fills} />);
    await userEvent.click(screen.getByRole("button", { name: "Fill it again" }));
    expect(documentNow().parting.fills).toEqual([{ at: [1, 2, 300], kind: "plug" }]);
  });
});

describe("before the first coat", () => {
  const show = (footClayMm3: number, parts: readonly FillPart[], footClayMm = 30) =>
    render(<BeforeCoat where={where} footClayMm3={footClayMm3} footClayMm={footClayMm} onBoard parts={parts} />);

  it("nothing is told where nothing is needed", () => {
    show(0, [part("clay", [0, 0, 0], 1)]);
    expect(screen.queryByTestId("before-coat")).toBeNull();
  });

  it("foot clay and webs are told, and each can be done without", async () => {
    show(300_000, [part("web", [7, 8, 200], 0.5)]);
    const box = within(screen.getByTestId("before-coat"));
    expect(box.getByText(/Foot clay, 300.ml/)).toBeDefined();
    await userEvent.click(box.getByText(/Web of clay across a gap, 200 up: 500.ml/));
    expect(comeTo).toHaveBeenCalledWith([7, 8, 200]);
    const [foot, web] = box.getAllByRole("button", { name: "Do without" });
    await userEvent.click(web);
    expect(documentNow().parting.fills).toEqual([{ at: [7, 8, 200], kind: "open" }]);
    await userEvent.click(foot);
    expect(documentNow().jacket.footClayMm).toBe(0);
  });

  it("gaps that were left open can be closed again", async () => {
    show(0, [], 0);
    await userEvent.click(screen.getByRole("button", { name: "Close them with clay" }));
    expect(documentNow().jacket.footClayMm).toBe(30);
  });
});

describe("cutting a limb off", () => {
  it("is said with how much it would save, and goes there", async () => {
    render(<CutOffHere where={where} cutOff={{ at: [9, 9, 9], fillMm3: 12.8e6 }} />);
    expect(screen.getByTestId("cut-off").textContent).toContain("One fill takes 12.8");
    await userEvent.click(screen.getByRole("button", { name: "Show me where" }));
    expect(comeTo).toHaveBeenCalledWith([9, 9, 9]);
  });
});
