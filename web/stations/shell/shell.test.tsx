// @vitest-environment jsdom
import { cleanup, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeAll, beforeEach, describe, expect, it } from "vitest";
import { MOST_RIBS } from "../../../core/ribs/ribs.ts";
import { spanLimitMm } from "../../../core/shell/span.ts";
import { undo } from "../../document/planStore.ts";
import type { Planning } from "../../planning/usePlanning.ts";
import { ballPlan } from "../../testing/figures.ts";
import { documentNow, openDocument } from "../../testing/planning.ts";
import { ballPlanning, openBall, part, pickTheWall, shownShell, widthByHand } from "../../testing/shell.tsx";
import { usePicked } from "./picked.ts";

const document = ballPlan();
let planning: Planning;
beforeAll(async () => {
  planning = await ballPlanning();
});
beforeEach(openBall);
afterEach(cleanup);

const shown = () => shownShell(planning);
const boltNames = () =>
  screen.getAllByRole("button", { name: /^Bolt / }).map((bolt) => bolt.getAttribute("aria-label") ?? "");

describe("the shell's sheet", () => {
  it("says whether the walls can be built, and what all of them take", () => {
    shown();
    expect(screen.getByTestId("walls-verdict").textContent).toBe("Yes: the wall has room all along.");
    const totals = part("For all walls");
    const bolts = Number(totals.getByText(/^Bolts/).nextSibling?.textContent);
    expect(bolts).toBeGreaterThan(3);
  });

  it("asks for a width that bolts and keys have room on, and goes back at an undo", async () => {
    shown();
    expect(screen.queryByText(/^Bolts and keys ask for/)).toBeNull();
    await userEvent.click(widthByHand());
    const width = screen.getByLabelText("Width off the jacket");
    await userEvent.clear(width);
    await userEvent.type(width, "30");
    expect(documentNow().shell.flanges.widthMm).toBe(30);
    expect(screen.getByText(/^Bolts and keys ask for [45][0-9].mm/)).toBeDefined();
    undo();
    expect(documentNow().shell.flanges.widthMm).not.toBe(30);
  });
});

describe("the shell step by step", () => {
  it("sets up the wall, lays the first section, then the second against it, and shows all of it again", async () => {
    shown();
    const walk = part("Built step by step");
    await userEvent.click(walk.getByRole("button", { name: "Walk through it" }));
    expect(walk.getByText("Set up wall 1 round section 1.")).toBeDefined();
    expect(usePicked.getState().step).toBe(0);
    await userEvent.click(walk.getByRole("button", { name: "Next" }));
    expect(walk.getByText(/^Lay section 1/)).toBeDefined();
    expect(walk.getAllByRole("listitem").map(({ textContent }) => textContent)).toEqual([
      "Splash coat, 5.0\u2009mm",
      "Jute, layer 1, 7.5\u2009mm",
      "Jute, layer 2, 7.5\u2009mm",
    ]);
    await userEvent.click(walk.getByRole("button", { name: "Next" }));
    expect(walk.getByText("Step 3 of 3")).toBeDefined();
    expect(walk.getByRole("button", { name: "Next" })).toHaveProperty("disabled", true);
    await userEvent.click(walk.getByRole("button", { name: "Show all of it" }));
    expect(usePicked.getState().step).toBeNull();
  });
});

describe("the push of the cast", () => {
  it("is told for each pair of sections, deeper and heavier the more it is filled", async () => {
    shown();
    const push = part("Push of the cast");
    const newtons = () => Number(push.getByText(/^[\d,]+.N$/).textContent?.replace(/\D/g, ""));
    const full = newtons();
    expect(full).toBeGreaterThan(5);
    await userEvent.click(push.getByText("Figures"));
    const share = push.getByLabelText("How full");
    await userEvent.clear(share);
    await userEvent.type(share, "50");
    expect(documentNow().shell.casting.fillShare).toBe(0.5);
    expect(newtons()).toBeLessThan(0.5 * full);
    await userEvent.clear(push.getByLabelText("One bolt is let bear"));
    await userEvent.type(push.getByLabelText("One bolt is let bear"), "10");
    undo();
    expect(documentNow().shell.casting.fillShare).toBe(0.5);
  });
});

describe("ribs and poles", () => {
  it("say how far the shell may span, and that none is needed where nothing spans farther", async () => {
    shown();
    const ribs = part("Ribs and poles");
    expect(ribs.getByRole("button", { name: /^By its strength: \d/ })).toBeDefined();
    expect(ribs.getByText("No section spans farther than that.")).toBeDefined();
    await userEvent.click(ribs.getByText("By hand"));
    expect(documentNow().shell.ribs.spanMm).toBe(Math.round(spanLimitMm(document.shell)));
    undo();
    expect(documentNow().shell.ribs.spanMm).toBeNull();
  });

  it("are told with their places, and caution about poles that plaster spoils", async () => {
    const { bundle } = planning;
    if (!bundle) throw new Error("There is no plan.");
    const rib = { section: 2, points: [-60, 0, 20, -90, 0, 90, -60, 0, 160], normals: [-1, 0, 0, -1, 0, 0, -1, 0, 0] };
    const spans = { widestMm: [300, 620], ribs: [{ ...rib, lengthMm: 612 }], further: [] };
    const report = { ...bundle.figures.report, spans };
    const before = planning;
    planning = { ...planning, bundle: { ...bundle, figures: { ...bundle.figures, report } } };
    shown();
    const ribs = part("Ribs and poles");
    expect(ribs.getByText(/^Section 2: 4\d.mm, left, /)).toBeDefined();
    expect(ribs.queryByText(/would take more than/)).toBeNull();
    expect(ribs.queryByText(/Steel rusts/)).toBeNull();
    await userEvent.selectOptions(ribs.getByRole("combobox"), "steel");
    expect(ribs.getByText(/Steel rusts/)).toBeDefined();
    const thick = ribs.getByLabelText("Thick across");
    await userEvent.clear(thick);
    await userEvent.type(thick, "1 1/4 in{Enter}");
    expect(documentNow().shell.ribs.poleMm).toBeCloseTo(31.75, 9);
    await userEvent.click(ribs.getByRole("button", { name: "Ribs" }));
    expect(documentNow().shell.ribs).toEqual({ kind: "ribs", pole: "steel", poleMm: 31.75, spanMm: null });
    expect(ribs.queryByText(/Steel rusts/)).toBeNull();
    cleanup();
    const higher = (byMm: number) => rib.points.map((value, k) => (k % 3 === 2 ? value + byMm : value));
    const ribsUp = Array.from({ length: MOST_RIBS }, (_, k) => ({ ...spans.ribs[0], points: higher(k) }));
    const many = { ...spans, ribs: ribsUp };
    const crowded = { ...bundle, figures: { ...bundle.figures, report: { ...report, spans: many } } };
    planning = { ...planning, bundle: crowded };
    shown();
    expect(part("Ribs and poles").getByText(/^Section 2 would take more than 24: its shell is too thin/)).toBeDefined();
    planning = before;
  });
});

describe("how it stands", () => {
  it("is told by the position that it is filled in", async () => {
    shown();
    // Half sunk in its board, a ball with a flange all round stands on that as it is, and on a point when it is turned over.
    expect(part("How it stands").getByText(/^By itself/)).toBeDefined();
    await userEvent.click(part("Push of the cast").getByText("As it stands"));
    expect(part("How it stands").getByText(/^It stands by itself/)).toBeDefined();
    undo();
  });
});

describe("a shell in one section", () => {
  it("says where its push holes are, asks for no flanges, and can be made solid", () => {
    const { bundle } = planning;
    if (!bundle) throw new Error("There is no plan.");
    const before = planning;
    const { report } = bundle.figures;
    const whole = { ...report, sections: [{ ...report.sections[0], pull: [1, 0, 0] as const }] };
    planning = {
      ...planning,
      bundle: {
        ...bundle,
        ...{ skins: [bundle.skins[0]], walls: [], lines: [] },
        figures: { ...bundle.figures, report: whole },
      },
    };
    shown();
    expect(screen.getByText(/^One section needs no walls/)).toBeDefined();
    expect(within(screen.getByTestId("push-holes")).getAllByRole("listitem").length).toBeGreaterThan(0);
    expect(screen.queryByRole("heading", { name: "Flanges" })).toBeNull();
    expect(screen.getByRole("button", { name: "Work them out" })).toBeDefined();
    expect(screen.getByRole("button", { name: "Section sheets" })).toBeDefined();
    planning = before;
  });
});

describe("a profile", () => {
  it("is drawn on the board where it is asked for, and says when its plane cuts nothing", async () => {
    shown();
    expect(screen.queryByTestId("profile")).toBeNull();
    await userEvent.click(screen.getByLabelText("Draw a profile"));
    expect(within(screen.getByTestId("profile")).getByRole("img", { name: /^Profile, level, at/ })).toBeDefined();
    await userEvent.click(part("Profiles").getByRole("button", { name: "Front" }));
    const drawn = within(screen.getByTestId("profile"));
    expect(drawn.getByRole("img", { name: /^Profile, front, at/ })).toBeDefined();
    expect(drawn.getByRole("button", { name: "SVG" }).hasAttribute("disabled")).toBe(false);
  });
});

describe("the drawing board", () => {
  it("has every wall, and picks one together with the sheet", async () => {
    shown();
    expect(screen.queryByRole("button", { name: /^Bolt / })).toBeNull();
    await pickTheWall();
    expect(part(/^Wall 1, between sections 1 and 2$|^Wall 1, between sections 2 and 1$/)).toBeDefined();
    expect(boltNames().length).toBeGreaterThan(3);
  });

  it("moves a bolt by keys, says what speaks against where it stands, and sets them by rule again", async () => {
    shown();
    await pickTheWall();
    const byRule = boltNames();
    const [, second] = screen.getAllByRole("button", { name: /^Bolt / });
    second.focus();
    await userEvent.keyboard("{ArrowUp}{ArrowUp}{ArrowUp}{ArrowUp}{ArrowUp}{ArrowUp}{ArrowUp}{ArrowUp}");
    expect(boltNames()[1]).toContain("too near the edge");
    const [choice] = documentNow().shell.flanges.walls;
    expect(choice.bolts?.[1].offMm).toBe(Math.round(choice.bolts?.[0].offMm ?? 0) + 8);
    screen.getAllByRole("button", { name: /^Bolt / })[0].focus();
    await userEvent.keyboard("{Delete}");
    expect(boltNames()).toHaveLength(byRule.length - 1);
    await userEvent.click(screen.getByRole("button", { name: "Set them by rule again" }));
    expect(boltNames()).toEqual(byRule);
    expect(documentNow().shell.flanges.walls).toEqual([]);
  });

  it("gives a wall straps in place of bolts, and a width of its own", async () => {
    shown();
    await pickTheWall();
    await userEvent.click(screen.getByRole("button", { name: "Straps" }));
    expect(screen.queryByRole("button", { name: /^Bolt / })).toBeNull();
    const width = screen.getByLabelText("Its own width");
    await userEvent.clear(width);
    await userEvent.type(width, "60");
    const [choice] = documentNow().shell.flanges.walls;
    expect([choice.joint, choice.widthMm]).toEqual(["straps", 60]);
    // It costs more shell than the width of all the others.
    await userEvent.click(screen.getByRole("button", { name: "As wide as all" }));
    expect(documentNow().shell.flanges.walls[0].widthMm).toBeNull();
  });

  it("shows its drill map, from where the wall closes", async () => {
    shown();
    await pickTheWall();
    await userEvent.click(screen.getByText("Drill map"));
    const rows = screen.getAllByRole("row");
    expect(rows.length).toBe(boltNames().length + 1);
    expect(screen.getByText(/^Measured from/)).toBeDefined();
  });
});

describe("the foot on the board", () => {
  it("is carried out by its own measure, bolted to a board that stays, and drawn with its holes", async () => {
    shown();
    const foot = part("Foot on the board");
    expect(within(screen.getByTestId("footprint")).getByRole("img")).toBeDefined();
    const board = () => foot.getByText("Board, with room for hands").nextSibling?.textContent;
    const before = board();
    await userEvent.clear(foot.getByLabelText("Beyond the rim"));
    await userEvent.type(foot.getByLabelText("Beyond the rim"), "100");
    expect(documentNow().shell.foot.beyondMm).toBe(100);
    expect(board()).not.toBe(before);
    await userEvent.click(foot.getByLabelText("The board stays a part of the mould"));
    const bolts = Number(foot.getByText("Bolts through the foot").nextSibling?.textContent);
    expect(bolts).toBeGreaterThanOrEqual(3);
    // A cross of two lines and a number each.
    expect(screen.getByTestId("footprint").querySelectorAll("circle")).toHaveLength(bolts);
    await userEvent.click(foot.getByLabelText(/^The shell runs out over the rim/));
    expect(foot.getByText("The shell ends on the jacket's rim.")).toBeDefined();
  });

  it("says so where the piece's foot is too narrow for a hole to pour through", async () => {
    shown();
    const foot = part("Foot on the board");
    await userEvent.click(foot.getByLabelText("The board stays a part of the mould"));
    await userEvent.clear(foot.getByLabelText("Hole to pour through"));
    await userEvent.type(foot.getByLabelText("Hole to pour through"), "300");
    const plug = foot.queryByText("Hole and its plug");
    const none = foot.queryByText(/too narrow for a hole/);
    // Either a hole no wider than there is room for, or none, and never neither.
    expect([plug, none].filter(Boolean)).toHaveLength(1);
  });
});

describe("a wall that is strapped", () => {
  it("has straps of a length and at a height each, as many as the push asks for", async () => {
    shown();
    await pickTheWall();
    await userEvent.click(screen.getByRole("button", { name: "Straps" }));
    const straps = part("Straps");
    expect(straps.getAllByRole("listitem").length).toBeGreaterThanOrEqual(2);
    const few = straps.getAllByRole("listitem").length;
    await userEvent.clear(straps.getByLabelText("One is let bear"));
    await userEvent.type(straps.getByLabelText("One is let bear"), "50");
    expect(part("Straps").getAllByRole("listitem").length).toBeGreaterThanOrEqual(few);
    expect(part("Push of the cast").getByText(/straps, .* on either side of each/)).toBeDefined();
  });
});

describe("keys on the jacket by hand", () => {
  it("stand where they stood until one is taken away, and by rule again", async () => {
    shown();
    const keys = () => part("Keys on the jacket");
    const before = documentNow().shell.jacketKeys.placed;
    expect(before).toBeNull();
    await userEvent.click(keys().getByRole("button", { name: "Set them by hand" }));
    const placed = documentNow().shell.jacketKeys.placed ?? [];
    expect(placed.length).toBeGreaterThan(0);
    // The one that is chosen on the stage.
    usePicked.setState({ key: 0 });
    await userEvent.click(await screen.findByRole("button", { name: "Take key 1 away" }));
    expect(documentNow().shell.jacketKeys.placed).toEqual(placed.slice(1));
    await userEvent.click(keys().getByRole("button", { name: "Place them by rule again" }));
    expect(documentNow().shell.jacketKeys.placed).toBeNull();
  });

  it("are told what speaks against them", () => {
    openDocument({
      ...document,
      shell: { ...document.shell, jacketKeys: { ...document.shell.jacketKeys, placed: [[0, 0, 5000]] } },
    });
    shown();
    expect(part("Keys on the jacket").getByText(/^Key 1: off the jacket/)).toBeDefined();
  });
});
