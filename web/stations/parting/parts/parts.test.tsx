// @vitest-environment jsdom
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Layout } from "../../../../core/parting/layout/layout.ts";
import type { HiddenStretch } from "../../../../core/parting/lines/bothSides.ts";
import type { Remedy } from "../../../../core/plan/advice/remedies.ts";
import { newPlan } from "../../../../core/plan/document/document.ts";
import type { GeometryReport } from "../../../../core/plan/results/report.ts";
import { documentNow, openDocument, planningWith } from "../../../testing/planning.ts";
import { FillShown } from "./FillShown.tsx";
import { OutOfSight } from "./OutOfSight.tsx";
import { Remedies } from "./Remedies.tsx";
import { SectionCard } from "./SectionCard.tsx";
import { SuggestRest } from "./SuggestRest.tsx";

const comeTo = vi.fn();
vi.mock("../../../scene/useStage.tsx", () => ({
  useStage: () => ({ stage: { comeTo: (at: readonly number[]) => comeTo(at) }, listen: () => () => {} }),
}));

beforeEach(() => openDocument());
afterEach(cleanup);

const layout: Layout = {
  sections: [{ pull: [0, 0, 1] }, { pull: [0, -1, 0] }, { pull: [0, 1, 0] }],
  lines: [],
};

const remedy = (kind: Remedy["kind"], some: Partial<Remedy> = {}): Remedy => ({
  kind,
  parting: { ...newPlan().parting, layout, giveMm: 2 },
  turnDeg: 0,
  moveMm: 0,
  moreFillG: 120,
  moreLineMm: -30,
  all: true,
  ...some,
});

describe("remedies", () => {
  const button = (name: RegExp | string) => screen.getByRole("button", { name });

  it("are shown as they are found, with their price, and taken with one click", async () => {
    let finish = () => {};
    const remedies = vi.fn(async (_section: number, onRemedy: (found: Remedy) => void) => {
      onRemedy(remedy("turn", { turnDeg: 12.4 }));
      await new Promise<void>((resolve) => {
        finish = resolve;
      });
      return { ok: true as const, value: [remedy("turn", { turnDeg: 12.4 }), remedy("fill"), remedy("split")] };
    });
    render(<Remedies section={2} locked planning={planningWith({ remedies })} />);
    await userEvent.click(button("What would free it?"));
    expect(remedies.mock.calls[0][0]).toBe(2);
    // The first is there while others are still tried.
    expect(button(/Turn its pull 12°/)).toBeDefined();
    expect(button(/Trying each/).hasAttribute("disabled")).toBe(true);
    finish();
    expect(await screen.findByRole("button", { name: /Split it in two/ })).toBeDefined();
    expect(
      button(/Fill what was left open.*\+120\u2009g fill, −30\u2009mm of line; then all sections come off/),
    ).toBeDefined();
    await userEvent.click(button(/Fill what was/));
    expect(documentNow().parting.giveMm).toBe(2);
    expect(documentNow().parting.layout).toEqual(layout);
  });

  it("say plainly that there is none, of what is held and of a fill", async () => {
    const remedies = async () => ({ ok: true as const, value: [] });
    const { rerender } = render(<Remedies section={1} locked planning={planningWith({ remedies })} />);
    await userEvent.click(button("What would free it?"));
    expect(await screen.findByText(/none of them frees it/)).toBeDefined();
    rerender(<Remedies key="other" section={1} locked={false} planning={planningWith({ remedies })} />);
    await userEvent.click(button("What would save fill?"));
    expect(await screen.findByText(/none of them saves a tenth/)).toBeDefined();
  });

  it("wait for the settled plan, and tell what went wrong", async () => {
    const remedies = async () => ({ ok: false as const, cancelled: false, message: "The scan is gone." });
    const { rerender } = render(
      <Remedies section={1} locked planning={planningWith({ remedies, quality: "coarse" })} />,
    );
    expect(button("What would free it?").hasAttribute("disabled")).toBe(true);
    rerender(<Remedies section={1} locked planning={planningWith({ remedies })} />);
    await userEvent.click(button("What would free it?"));
    expect(await screen.findByText("The scan is gone.")).toBeDefined();
  });
});

describe("the rest suggested again", () => {
  const held: Layout = {
    ...layout,
    sections: [{ ...layout.sections[0], hold: "section" }, ...layout.sections.slice(1)],
  };

  it("asks for something to be held first", () => {
    render(<SuggestRest layout={layout} planning={planningWith()} />);
    expect(screen.queryByRole("button")).toBeNull();
    expect(screen.getByText(/keep it whole, or keep its pull/)).toBeDefined();
  });

  it("asks for so many sections, and lays what comes back", async () => {
    const rest = vi.fn(async () => ({ ok: true as const, value: held }));
    render(<SuggestRest layout={held} planning={planningWith({ rest })} />);
    // What is held and one more are the fewest.
    expect(screen.queryByRole("button", { name: "1" })).toBeNull();
    await userEvent.click(screen.getByRole("button", { name: "4" }));
    await userEvent.click(screen.getByRole("button", { name: "Suggest the rest round the one kept" }));
    expect(rest).toHaveBeenCalledWith(4);
    expect(documentNow().parting.layout).toEqual(held);
  });

  it("leaves the plan as it is when it fails", async () => {
    const before = documentNow();
    const rest = async () => ({ ok: false as const, cancelled: false, message: "No room." });
    render(<SuggestRest layout={held} planning={planningWith({ rest })} />);
    await userEvent.click(screen.getByRole("button", { name: /Suggest the rest/ }));
    expect(await screen.findByText("No room.")).toBeDefined();
    expect(documentNow()).toBe(before);
  });
});

describe("stretches out of sight", () => {
  const stretch: HiddenStretch = {
    sections: [1, 2],
    from: 2,
    lengthMm: 64,
    at: [10, 20, 30],
    moveMm: 19.5,
    to: [15, 25, 30],
  };

  it("are counted, and moved where somewhere near is seen by both", async () => {
    const onMove = vi.fn();
    const nowhere: HiddenStretch = { ...stretch, at: [1, 2, 3], from: 1, lengthMm: 36, moveMm: null, to: null };
    render(<OutOfSight hidden={[stretch, nowhere]} onMove={onMove} />);
    expect(screen.getByText(/In 2 places .*, 100 mm in all/)).toBeDefined();
    expect(screen.getByText("no place near by is seen by both")).toBeDefined();
    await userEvent.click(screen.getByRole("button", { name: "Move 19.5\u2009mm" }));
    expect(onMove).toHaveBeenCalledWith({ kind: "shift", at: [10, 20, 30], to: [15, 25, 30], lengthMm: 64 });
  });
});

describe("a section's card", () => {
  const section: GeometryReport["sections"][number] = {
    number: 2,
    origin: 1,
    pull: [0, -1, 0],
    areaMm2: 500_000,
    bends: { meanMm: 0, gauss: 0 },
    fillMm3: 80_000,
    fillWith: "silicone",
    plugUnder: null,
    fillThickMm: 22,
    releases: true,
    biteMm: 30,
    biteAt: [0, 0, 0],
    travelMm: 200,
    lifted: false,
    fills: { silicone: 0.09, clay: 0, web: 0, plug: 0 },
    lineMm: 2000,
    footMm: 0,
    footAreasMm2: [],
  };
  const onLook = vi.fn();
  const card = (some: Partial<typeof section>, onTreat = vi.fn()) => {
    render(
      <SectionCard
        massG={1200}
        where={() => "front, 300 mm up"}
        section={{ ...section, ...some }}
        pull={section.pull}
        open
        giveMm={1.5}
        out={0}
        treatment={{}}
        planning={planningWith()}
        onOpen={() => {}}
        onSlide={() => {}}
        onPull={() => {}}
        onLook={onLook}
        onTreat={onTreat}
      />,
    );
    return onTreat;
  };

  it("lets its locks be filled with clay or left open, and the section be held", async () => {
    const onTreat = card({});
    expect(screen.getByText("22 mm")).toBeDefined();
    await userEvent.click(screen.getByRole("button", { name: "All of clay" }));
    await userEvent.click(screen.getByRole("button", { name: "Left open" }));
    await userEvent.click(screen.getByRole("button", { name: "Keep its pull" }));
    await userEvent.click(screen.getByRole("button", { name: "Free" }));
    expect(onTreat.mock.calls.map(([treatment]) => treatment)).toEqual([
      { fillWith: "clay" },
      { fillWith: "open" },
      { hold: "pull" },
      { hold: undefined },
    ]);
  });

  it("lets one look along its pull", async () => {
    card({});
    await userEvent.click(screen.getByRole("button", { name: "Look along it" }));
    expect(onLook).toHaveBeenCalledOnce();
  });

  it("has nothing to fill where nothing locks, and offers no plug then", () => {
    card({ fillMm3: 0, fillThickMm: 0 });
    expect(screen.queryByText("Its fills are")).toBeNull();
    expect(screen.queryByRole("button", { name: /plug/ })).toBeNull();
  });

  it("tells that the piece is lifted first, and shows where a section is held", async () => {
    card({ lifted: true, biteMm: 0.8 });
    expect(screen.getByText(/Comes off, once the piece is lifted; presses 0.8/)).toBeDefined();
    cleanup();
    card({ releases: false, biteAt: [1, 2, 3] });
    await userEvent.click(screen.getByRole("button", { name: "Held at: front, 300 mm up" }));
    expect(comeTo).toHaveBeenCalledWith([1, 2, 3]);
  });

  it("names a plug by the section over it, and tells how deep one that is held would press", () => {
    card({ plugUnder: 1 });
    expect(screen.getByText(/Plug under 1: comes off/)).toBeDefined();
    cleanup();
    card({ releases: false });
    expect(screen.getByText(/Held: presses 30/)).toBeDefined();
    expect(screen.getByRole("button", { name: "What would free it?" })).toBeDefined();
  });
});

describe("the fill's scale", () => {
  it("is shown with the fill, up to the thickest there is", async () => {
    const onShow = vi.fn();
    const { rerender } = render(<FillShown shown={false} thickestMm={31} onShow={onShow} />);
    expect(screen.queryByTestId("fill-scale")).toBeNull();
    await userEvent.click(screen.getByLabelText("Show the fill, by thickness and kind"));
    expect(onShow).toHaveBeenCalledWith(true);
    rerender(<FillShown shown thickestMm={31} onShow={onShow} />);
    expect(screen.getByTestId("fill-scale").textContent).toContain("31\u2009mm");
  });
});
