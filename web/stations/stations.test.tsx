// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, cleanup, fireEvent, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeAll, beforeEach, describe, expect, it, vi } from "vitest";
import { DEFAULT_SETTINGS, type Settings } from "../../contract/settings.ts";
import type { PlanFigures, ShownPlan } from "../../core/plan/results/figures.ts";
import { undo, usePlan } from "../document/planStore.ts";
import { SettingsContext } from "../lib/show.ts";
import type { Planning } from "../planning/usePlanning.ts";
import { ballPlan, figuresOfABall } from "../testing/figures.ts";
import { FINIAL } from "../testing/pieces.ts";
import { documentNow, openDocument, planningWith } from "../testing/planning.ts";
import { JacketStation } from "./jacket/Station.tsx";
import { BuyingTable } from "./materials/BuyingTable.tsx";
import { MaterialsStation } from "./materials/Station.tsx";
import { PartingStation } from "./parting/Station.tsx";
import { PieceStation } from "./piece/Station.tsx";
import type { StationProps } from "./station.ts";

let planning: Planning;
beforeAll(async () => {
  const figures: PlanFigures = await figuresOfABall();

  planning = planningWith({ bundle: { figures } as ShownPlan });
});
beforeEach(() => openDocument(ballPlan()));
afterEach(cleanup);

function shown(Station: (props: StationProps) => React.ReactNode, own: Partial<Settings> = {}) {
  const settings: Settings = { ...DEFAULT_SETTINGS, memberName: "Ines", ...own };
  function Shown() {
    const document = usePlan((plan) => plan.document);
    return document && <Station piece={FINIAL} document={document} planning={planning} />;
  }
  render(
    <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
      <SettingsContext value={settings}>
        <Shown />
      </SettingsContext>
    </QueryClientProvider>,
  );
}

const part = (title: string) => {
  const section = screen.getByRole("heading", { name: title, level: 3 }).closest("section");
  if (!section) throw new Error(`There is no part called ${title}.`);
  return within(section);
};

describe("the piece's sheet", () => {
  it("tells the size, and takes the brief into the plan", async () => {
    shown(PieceStation);
    expect(part("Size").getByText("200 mm")).toBeDefined();
    await userEvent.clear(screen.getByLabelText(/Edition/));
    await userEvent.type(screen.getByLabelText(/Edition/), "25");
    await userEvent.click(screen.getByRole("button", { name: "Slush" }));
    const { edition, castMethod } = documentNow().brief;
    expect([edition, castMethod]).toEqual([25, "slush"]);
  });

  it("takes the unit and the upright axis, each undone by itself", async () => {
    shown(PieceStation);
    await userEvent.click(screen.getByRole("button", { name: "cm" }));
    await userEvent.click(screen.getByRole("button", { name: "Y" }));
    expect([documentNow().seat.unit, documentNow().seat.up]).toEqual(["cm", "y"]);
    undo();
    expect([documentNow().seat.unit, documentNow().seat.up]).toEqual(["cm", "z"]);
  });

  it("shows the size in inches where the shop works in them", () => {
    shown(PieceStation, { units: "imperial" });
    expect(part("Size").getByText("7.87 in")).toBeDefined();
  });
});

describe("the jacket's sheet", () => {
  it("cautions about what must not touch there, until that is answered", async () => {
    usePlan.getState().edit((plan) => ({
      ...plan,
      brief: { ...plan.brief, surface: "sulphur clay" },
      jacket: { ...plan.jacket, silicone: "platinum-brushable" },
    }));
    shown(JacketStation);
    const coats = part("Coats");
    expect(coats.getByText(/^Platinum silicone.*sulphur clay.*on the piece:/)).toBeDefined();
    usePlan.getState().edit((plan) => ({
      ...plan,
      touching: { answers: [{ rule: "platinum-sulphur-clay", how: "met", reason: "" }] },
    }));
    await vi.waitFor(() => expect(coats.queryByText(/^Platinum silicone.*sulphur clay/)).toBeNull());
  });

  it("has a row a coat, with its silicone, and adds and leaves out coats", async () => {
    shown(JacketStation);
    expect(part("Coats").getByText(/^8(\.0)? mm in all$/)).toBeDefined();
    const rows = () => part("Coats").getAllByRole("row").slice(1);
    expect(rows()).toHaveLength(4);
    expect(within(rows()[1]).getByText(/^\d+(\.\d+)? k?g$/)).toBeDefined();
    await userEvent.click(screen.getByRole("button", { name: "Add a coat" }));
    expect(documentNow().jacket.coats.map(({ thicknessMm }) => thicknessMm)).toEqual([0.8, 2.5, 2.5, 2.2, 2]);
    await userEvent.click(screen.getByRole("button", { name: "Leave out coat 2" }));
    expect(documentNow().jacket.coats.map(({ thicknessMm }) => thicknessMm)).toEqual([0.8, 2.5, 2.2, 2]);
  });

  it("takes a thickness only while it is one, and warns of a jacket too thick or too thin", async () => {
    shown(JacketStation);
    const field = screen.getByLabelText("Thickness of coat 2");
    await userEvent.clear(field);
    expect(field.getAttribute("aria-invalid")).toBe("true");
    expect(documentNow().jacket.coats[1].thicknessMm).toBe(2.5);
    await userEvent.type(field, "9");
    expect(documentNow().jacket.coats[1].thicknessMm).toBe(9);
    expect(screen.getByText(/Over 12 mm/)).toBeDefined();
    for (const number of [4, 3, 2])
      await userEvent.click(screen.getByRole("button", { name: `Leave out coat ${number}` }));
    expect(screen.getByText(/Under 4 mm/)).toBeDefined();
  });

  it("never thickens the print coat", () => {
    shown(JacketStation);
    expect(screen.queryByLabelText("Coat 1 is thickened")).toBeNull();
    expect(screen.getByLabelText("Coat 2 is thickened")).toBeDefined();
  });
});

describe("the parting's sheet", () => {
  const slider = () => screen.getByLabelText<HTMLInputElement>("Slide section 1 out");
  const drawnAgain = (bundle: ShownPlan) =>
    act(() => {
      planning = { ...planning, bundle };
      usePlan.getState().edit((plan) => ({ ...plan, brief: { ...plan.brief, edition: plan.brief.edition + 1 } }));
    });

  it("leaves a section slid out where figures alone change, and sets others together", () => {
    const before = planning;
    const bundle = { ...before.bundle, skins: [], lines: [] } as unknown as ShownPlan;
    planning = { ...planning, bundle };
    shown(PartingStation);
    fireEvent.change(slider(), { target: { value: "0.4" } });
    expect(slider().value).toBe("0.4");
    drawnAgain({ ...bundle, figures: { ...bundle.figures } });
    expect(slider().value).toBe("0.4");
    drawnAgain({ ...bundle, skins: [] });
    expect(slider().value).toBe("0");
    planning = before;
  });
});

describe("the materials' sheet", () => {
  it("changes the shell system, and takes its layers' figures", async () => {
    shown(MaterialsStation);
    await userEvent.click(screen.getByLabelText(/Polyester and glass mat/));
    // The flanges that were decided stay.
    expect(documentNow().shell).toEqual({ ...ballPlan().shell, system: "polyester-mat", figures: {} });
    await userEvent.click(screen.getByText("Layers and figures"));
    const layers = screen.getByLabelText(/^Layers of mat/);
    await userEvent.clear(layers);
    await userEvent.type(layers, "5");
    expect(Object.values(documentNow().shell.figures)).toEqual([5]);
  });

  it("says what to take care of, and who decides", () => {
    shown(MaterialsStation);
    const care = part("Take care");
    expect(care.getAllByText(/mask/i).length).toBeGreaterThan(0);
    expect(care.getByText(/data sheets, local rules and licensed practice/i)).toBeDefined();
  });
});

describe("the buying list in the middle of the page", () => {
  const names = () =>
    screen
      .getAllByRole("row")
      .slice(1)
      .map((row) => within(row).getAllByRole("cell")[0].textContent);

  it("lists what to buy, and opens how it was worked out", async () => {
    shown(BuyingTable);
    await userEvent.click(screen.getByRole("button", { name: "Tin silicone, brushable, 100 to 5" }));
    expect(screen.getByText(/silicone × \(1 \+ waste\)/)).toBeDefined();
    await userEvent.click(screen.getByRole("button", { name: "Tin silicone, brushable, 100 to 5" }));
    expect(screen.queryByText(/silicone × \(1 \+ waste\)/)).toBeNull();
  });

  it("is sorted by a click on a head, up and down, and filtered by what is typed", async () => {
    shown(BuyingTable);
    const asItComes = names();
    await userEvent.click(screen.getByRole("button", { name: /^Material/ }));
    expect(names()).toEqual([...asItComes].sort((one, other) => (one ?? "").localeCompare(other ?? "")));
    expect(screen.getByRole("columnheader", { name: /Material/ }).getAttribute("aria-sort")).toBe("ascending");
    await userEvent.type(screen.getByLabelText("Find in the list"), "clay");
    expect(names().length).toBeGreaterThan(0);
    expect(names().every((name) => name?.includes("clay"))).toBe(true);
    await userEvent.type(screen.getByLabelText("Find in the list"), " of the moon");
    expect(screen.getByText("Nothing in the table has that in it.")).toBeDefined();
  });

  it("is copied as it is shown, cells apart by tabs", async () => {
    const user = userEvent.setup();
    shown(BuyingTable);
    await user.type(screen.getByLabelText("Find in the list"), "tin silicone");
    await user.click(screen.getByRole("button", { name: "Copy the table" }));
    const [head, first, ...others] = (await navigator.clipboard.readText()).split("\n");
    expect(head).toBe("Material\tFor\tNeeded\tUnit\tIn store\tTo buy\tPrice\tFrom");
    expect(first).toMatch(/^Tin silicone, brushable, 100 to 5\tJacket\t[\d.]+\tkg\t0\t\d.*kg\t[\d.]+\t$/);
    expect(others).toEqual([]);
  });

  it("gives the list as CSV by item, group, quantity and unit", async () => {
    shown(BuyingTable);
    let given: Blob | null = null;
    vi.stubGlobal(
      "URL",
      Object.assign(URL, {
        createObjectURL: (blob: Blob) => {
          given = blob;
          return "blob:list";
        },
        revokeObjectURL: () => {},
      }),
    );
    const click = vi.spyOn(HTMLAnchorElement.prototype, "click").mockImplementation(() => {});
    try {
      await userEvent.click(screen.getByRole("button", { name: "CSV" }));
      expect(click).toHaveBeenCalledOnce();
      const link = click.mock.contexts[0] as HTMLAnchorElement;
      expect(link.download).toBe("finial-buying-list.csv");
      const text = await textOf(given);
      const [head, first] = text.split(/\r?\n/);
      expect(head).toBe("item,for,quantity,unit,as_shown,packs,in_store,to_buy,price,from");
      expect(first).toMatch(
        /^"Tin silicone, brushable, 100 to 5",jacket,\d+(\.\d+)?,kg,[\d.]+.kg,[^,]+,0,\d+,\d+\.\d\d,$/,
      );
    } finally {
      click.mockRestore();
      vi.unstubAllGlobals();
    }
  });
});

function textOf(blob: Blob | null): Promise<string> {
  return new Promise((resolve) => {
    const reader = new FileReader();
    reader.onload = () => resolve(String(reader.result));
    reader.readAsText(blob ?? new Blob());
  });
}
