// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeAll, beforeEach, describe, expect, it, vi } from "vitest";
import { DEFAULT_SETTINGS } from "../../../contract/settings.ts";
import type { Store } from "../../../core/materials/stock.ts";
import type { ShownPlan } from "../../../core/plan/results/figures.ts";
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
  planning = planningWith({ bundle: { figures: await figuresOfABall() } as ShownPlan });
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
  own: [],
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

function shown() {
  standInServer(() => ({ status: 200, body: { store: STORE, revision: 1 } }));
  render(
    <QueryClientProvider client={new QueryClient()}>
      <SettingsContext value={{ ...DEFAULT_SETTINGS, memberName: "Ines" }}>
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
});
