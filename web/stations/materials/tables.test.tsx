// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, fireEvent, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeAll, beforeEach, describe, expect, it, vi } from "vitest";
import { DEFAULT_SETTINGS, type Settings } from "../../../contract/settings.ts";
import type { StoredStore } from "../../../contract/store.ts";
import type { Store } from "../../../core/materials/stock.ts";
import type { ShownPlan } from "../../../core/plan/results/figures.ts";
import { OWN_SILICONE } from "../../../core/testing/documentChanges.ts";
import { undo, usePlan } from "../../document/planStore.ts";
import { SettingsContext } from "../../lib/show.ts";
import type { Planning } from "../../planning/usePlanning.ts";
import { ballPlan, figuresOfABall } from "../../testing/figures.ts";
import { FINIAL } from "../../testing/pieces.ts";
import { documentNow, openDocument, planningWith } from "../../testing/planning.ts";
import { standInServer } from "../../testing/server.ts";
import { MaterialsBoard } from "./Board.tsx";
import { Papers } from "./Papers.tsx";
import { useTab } from "./tab.ts";

vi.mock("./ShellChart.tsx", () => ({ default: () => <p>a chart</p> }));

let planning: Planning;
beforeAll(async () => {
  const figures = await figuresOfABall();
  const ids = { ...figures.ids, sections: ["section-1", "section-2"] };
  planning = planningWith({ bundle: { figures: { ...figures, ids } } as unknown as ShownPlan });
});
beforeEach(() => openDocument(ballPlan()));
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
  useTab.getState().open("buying");
});

const STORE: Store = {
  lots: [
    { id: "a", material: "jute-scrim", amount: 500, openedOn: null, expiresOn: null, place: "Rack" },
    { id: "b", material: "tin-brushable-low", amount: 0.1, openedOn: "2020-01-01", expiresOn: null, place: "Attic" },
  ],
  edits: {},
  own: [OWN_SILICONE],
};

function Board() {
  const document = usePlan((plan) => plan.document);
  return (
    document && (
      <>
        <MaterialsBoard piece={FINIAL} document={document} planning={planning} />
        <Papers piece={FINIAL} document={document} planning={planning} />
      </>
    )
  );
}

function shown(settings: Partial<Settings> = {}) {
  let kept: StoredStore = { store: STORE, revision: 1 };
  standInServer(({ method, body }) => {
    if (method === "PUT") kept = { ...(body as StoredStore), revision: kept.revision + 1 };
    return { status: 200, body: kept };
  });
  render(
    <QueryClientProvider client={new QueryClient()}>
      <SettingsContext value={{ ...DEFAULT_SETTINGS, memberName: "Ines", ...settings }}>
        <Board />
      </SettingsContext>
    </QueryClientProvider>,
  );
}
const tab = (name: string) => userEvent.click(screen.getByRole("tab", { name }));
const rowOf = (name: string | RegExp) => {
  const row = screen.getAllByRole("row").find((each) => within(each).queryByText(name));
  if (!row) throw new Error(`There is no row ${name}.`);
  return within(row);
};

describe("buying", () => {
  it("takes off what the store has, and warns of a kit that was opened long ago", async () => {
    shown();
    await vi.waitFor(() => expect(rowOf("Jute scrim").getAllByRole("cell")[3].textContent).not.toBe(""));
    expect(rowOf("Jute scrim").getAllByRole("cell")[4].textContent).toBe("");
    await userEvent.click(screen.getByRole("button", { name: /^Tin silicone/ }));
    expect(screen.getByText(/Attic.*Opened \d+ months ago: test a spoonful first/)).toBeDefined();
  });

  it("takes the workshop's own prices where they are read: table and paper go by them at once", async () => {
    shown();
    const plaster = () => rowOf(/^Casting plaster, soft/);
    const button = plaster().getByRole("button");
    await userEvent.click(button);
    const packs = await screen.findByLabelText("Packs and prices, kg");
    await userEvent.clear(packs);
    await userEvent.type(packs, "1000 at 77");
    await userEvent.click(screen.getByRole("button", { name: "Save" }));
    await vi.waitFor(() => expect(plaster().getAllByRole("cell")[5].textContent).toBe("€\u200977.00"));
    expect(plaster().getAllByRole("cell")[4].textContent).toMatch(/^1 × 1.000\u2009kg$/);
    expect(screen.getByTestId("buying-list").textContent).toContain("€\u200977.00");
    await userEvent.click(screen.getByRole("button", { name: "As it came" }));
    await vi.waitFor(() => expect(plaster().getAllByRole("cell")[5].textContent).not.toBe("€\u200977.00"));
  });

  it("is printed as a list with a box to tick for each", async () => {
    shown();
    const paper = within(screen.getByTestId("buying-list"));
    expect(paper.getByText("Checked by")).toBeDefined();
    expect(screen.queryByTestId("pot-cards")).toBeNull();
  });
});

describe("pots", () => {
  it("say how many of what, and open to a card that keeps its ratio when too much is poured", async () => {
    shown();
    await tab("Pots");
    await userEvent.click(screen.getByRole("button", { name: "Coat 1" }));
    const card = within(screen.getByTestId("weigh-out"));
    expect(card.getByText("The ratio holds.")).toBeDefined();
    const catalyst = card.getByLabelText(/^Catalyst in the bucket/);
    await userEvent.clear(catalyst);
    await userEvent.type(catalyst, "90");
    expect(card.getByRole("status").textContent).toMatch(/^Add [\d\u2009]+\u2009g of base: then the ratio holds again/);
    expect(screen.getByTestId("pot-cards").textContent).toContain("Coat 1");
    expect(screen.queryByTestId("buying-list")).toBeNull();
  });

  it("are weighed, poured and warmed in an imperial shop's own units", async () => {
    shown({ units: "imperial" });
    await tab("Pots");
    expect(screen.getByText("at 68 °F")).toBeDefined();
    await userEvent.click(screen.getByRole("button", { name: "Coat 1" }));
    const card = within(screen.getByTestId("weigh-out"));
    expect(card.getByText("The ratio holds.")).toBeDefined();
    const base = card.getByLabelText<HTMLInputElement>(/^Base in the bucket/);
    expect(card.getAllByText(`${base.value} oz`)[0]).toBeDefined();
    await userEvent.clear(base);
    await userEvent.type(base, "5 lb");
    expect(card.getByRole("status").textContent).toMatch(/^Add [\d.]+\u2009oz of catalyst/);
  });

  it("say that polyester does not set in the cold", async () => {
    shown();
    usePlan.getState().edit((plan) => ({
      ...plan,
      mixing: { ...plan.mixing, temperatureC: 11 },
      shell: { ...plan.shell, system: "polyester-mat", figures: {} },
    }));
    await tab("Pots");
    expect(screen.getByText(/does not set at 11.°C/)).toBeDefined();
  });
});

describe("build-up", () => {
  it("lists coats and layers, and says which coats look alike", async () => {
    shown();
    await tab("Build-up");
    const coats = documentNow().jacket.coats.length;
    // A head, the coats and their sum.
    expect(within(screen.getByTestId("coats")).getAllByRole("row")).toHaveLength(coats + 2);
    usePlan.getState().edit((plan) => ({
      ...plan,
      jacket: { ...plan.jacket, coats: [0, 1].map((k) => ({ ...plan.jacket.coats[0], id: `coat-${k}` })) },
    }));
    expect(await screen.findByText(/^Coats 1 and 2 look alike/)).toBeDefined();
  });

  it("lets a coat be of a silicone of the workshop's own, with gauze, and the plan keeps what it is", async () => {
    shown();
    await tab("Build-up");
    const select = await screen.findByLabelText("Silicone of coat 2");
    await vi.waitFor(() => expect(within(select).getByText("Blue silicone")).toBeDefined());
    await userEvent.selectOptions(select, "Blue silicone");
    await userEvent.click(screen.getByLabelText("Gauze in coat 2"));
    expect(documentNow().jacket.coats[1]).toMatchObject({ silicone: OWN_SILICONE.id, gauze: true });
    expect(documentNow().materials.own).toEqual([OWN_SILICONE]);
    await tab("Pots");
    expect(rowOf("Coat 2").getByText("Blue silicone")).toBeDefined();
    await tab("Build-up");
    await userEvent.selectOptions(screen.getByLabelText("Silicone of coat 2"), "as the jacket");
    expect(documentNow().materials.own).toEqual([]);
  });

  it("has its layers dragged into another order, and says what that buries", async () => {
    shown();
    await tab("Build-up");
    const rows = () => within(screen.getByTestId("layers")).getAllByRole("row").slice(1, -1);
    const [splash, , last] = rows();
    fireEvent.dragStart(splash);
    fireEvent.dragOver(last);
    fireEvent.drop(last);
    expect(documentNow().shell.order).toEqual(["jute-1", "jute-2", "splash"]);
    expect(screen.getByText(/^Splash coat is laid after another layer/)).toBeDefined();
    await userEvent.click(screen.getByRole("button", { name: "Lay splash coat earlier" }));
    expect(documentNow().shell.order).toEqual(["jute-1", "splash", "jute-2"]);
    await userEvent.click(screen.getByRole("button", { name: "Lay splash coat earlier" }));
    // The usual order is no decision.
    expect(documentNow().shell.order).toEqual([]);
  });

  it("is another for a single section, until that is laid up as the rest again", async () => {
    shown();
    await tab("Build-up");
    await userEvent.click(screen.getByRole("button", { name: "Section 2" }));
    await userEvent.click(screen.getByRole("button", { name: "Lay jute, layer 1 earlier" }));
    expect(documentNow().shell.order).toEqual([]);
    expect(documentNow().shell.sections).toEqual([
      { section: "section-2", system: "gypsum-jute", figures: {}, order: ["jute-1", "splash", "jute-2"] },
    ]);
    await userEvent.click(screen.getByRole("button", { name: "Lay it up as the rest" }));
    expect(documentNow().shell.sections).toEqual([]);
    await userEvent.click(screen.getByRole("button", { name: "The whole shell" }));
  });

  it("takes another material where one is asked for, with its own water", async () => {
    shown();
    await tab("Build-up");
    await userEvent.click(screen.getAllByRole("button", { name: "Casting plaster, soft" })[0]);
    await userEvent.selectOptions(screen.getByLabelText("In place of casting plaster, soft"), "White hard gypsum");
    expect(documentNow().materials.instead).toEqual({ "casting-plaster": "white-hard-gypsum" });
    expect(documentNow().shell.figures).toEqual({ waterPer100: 45 });
    expect(screen.getAllByRole("button", { name: "White hard gypsum" })).toHaveLength(3);
  });
});

describe("costs", () => {
  it("are told part by part, come to the tally's, and are shared by the casts", async () => {
    shown();
    await tab("Costs");
    const table = within(screen.getByTestId("costs"));
    expect(table.getByText("Section 2")).toBeDefined();
    const { costMinor } = (planning.bundle as ShownPlan).figures.takeoff;
    const whole = rowOf("In all").getAllByRole("cell")[3].textContent ?? "";
    expect(Number(whole.replace(/[^\d.]/g, ""))).toBeCloseTo(costMinor / 100, 1);
    expect(table.getByText("For the one cast")).toBeDefined();
    usePlan.getState().edit((plan) => ({ ...plan, brief: { ...plan.brief, edition: 4 } }));
    const each = (await table.findByText("For each of 4 casts")).closest("tr")?.textContent ?? "";
    expect(Number(each.replace(/^.*casts/, "").replace(/[^\d.]/g, ""))).toBeCloseTo(costMinor / 400, 1);
  });
});

describe("what must not touch", () => {
  it("is met at a click, which puts the sealer on the list, or taken with a reason, and opened again", async () => {
    shown();
    await tab("Cautions");
    const rows = () => screen.getAllByRole("listitem").filter((row) => within(row).queryByText("What helps:"));
    const first = () => within(rows()[0]);
    await userEvent.click(first().getByRole("button", { name: /^See to it/ }));
    expect(documentNow().touching.answers).toMatchObject([{ how: "met" }]);
    expect(first().getByText("It is seen to.")).toBeDefined();
    await userEvent.click(first().getByRole("button", { name: "Open it again" }));
    expect(documentNow().touching.answers).toEqual([]);
    expect(first().getByRole("button", { name: "Take it as it is" })).toHaveProperty("disabled", true);
    await userEvent.type(first().getByRole("textbox"), "varnished last week");
    await userEvent.click(first().getByRole("button", { name: "Take it as it is" }));
    expect(documentNow().touching.answers).toMatchObject([{ how: "accepted", reason: "varnished last week" }]);
  });
});

describe("shells and silicones side by side", () => {
  it("are switched at a click, and undone", async () => {
    shown();
    await tab("Compare");
    expect(within(await screen.findByTestId("compared-shells")).getAllByRole("row")).toHaveLength(8);
    await userEvent.click(screen.getByRole("button", { name: "Switch to Epoxy and glass cloth" }));
    expect(documentNow().shell.system).toBe("epoxy-cloth");
    undo();
    expect(documentNow().shell.system).toBe("gypsum-jute");
    await userEvent.click(screen.getByRole("button", { name: "Switch to Platinum silicone, brushable" }));
    expect(documentNow().jacket.silicone).toBe("platinum-brushable");
    expect(screen.getByText(/^A block poured round the piece in a box would take/)).toBeDefined();
  });

  it("have one's own lay-ups among them, kept under a name, taken and forgotten", async () => {
    shown();
    await tab("Compare");
    usePlan.getState().edit((plan) => ({ ...plan, shell: { ...plan.shell, figures: { juteLayers: 4 } } }));
    await userEvent.type(await screen.findByLabelText("Name it"), "Four of jute");
    await userEvent.click(screen.getByRole("button", { name: "Keep this lay-up to compare" }));
    expect(within(screen.getByTestId("compared-shells")).getAllByRole("row")).toHaveLength(9);
    await userEvent.click(screen.getByRole("button", { name: "Switch to Epoxy and glass cloth" }));
    await userEvent.click(screen.getByRole("button", { name: "Switch to Four of jute" }));
    expect(documentNow().shell).toMatchObject({ system: "gypsum-jute", figures: { juteLayers: 4 } });
    await userEvent.click(screen.getByRole("button", { name: "Forget Four of jute" }));
    expect(documentNow().shell.variants).toEqual([]);
  });

  it("and jackets of other thicknesses, the plan's own among them as it is", async () => {
    shown();
    await tab("Compare");
    const rows = within(await screen.findByTestId("compared-jackets"))
      .getAllByRole("row")
      .slice(1);
    expect(rows.map((row) => within(row).getAllByRole("cell")[0].textContent)).toHaveLength(5);
    // The price grows with what is taken.
    const prices = rows.map((row) =>
      Number(
        within(row)
          .getAllByRole("cell")[2]
          .textContent?.replace(/[^\d.]/g, ""),
      ),
    );
    expect([...prices].sort((a, b) => a - b)).toEqual(prices);
    expect(rows[2].className).toContain("font-medium");
  });

  it("open figure by figure to how each comes about", async () => {
    shown();
    await tab("Compare");
    const table = within(await screen.findByTestId("compared-shells"));
    const [wages] = table.getAllByRole("button", { name: /^Wages: / });
    await userEvent.click(wages);
    expect(table.getByText("(hands + finishing the seams of all casts) × what an hour costs")).toBeDefined();
    // Another figure of the row takes its place, and a second click closes it.
    const [spans] = table.getAllByRole("button", { name: /^Spans: / });
    await userEvent.click(spans);
    expect(table.queryByText(/× what an hour costs/)).toBeNull();
    expect(table.getByText("by sag")).toBeDefined();
    await userEvent.click(spans);
    expect(table.queryByText("by sag")).toBeNull();
  });
});
