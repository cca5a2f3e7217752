// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter } from "react-router";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { StoredStore } from "../../contract/store.ts";
import type { Lot, Store } from "../../core/materials/stock.ts";
import { type Asked, standInServer } from "../testing/server.ts";
import { mixText, readMix } from "./mixText.ts";
import { packsText, readPacks } from "./packsText.ts";
import { StorePage } from "./StorePage.tsx";

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const DAY_MS = 86_400_000;
/** A day so many days off today. */
const dayOff = (days: number) => new Date(Date.now() + days * DAY_MS).toISOString().slice(0, 10);
const lot = (material: string, amount: number, place: string, opened: number | null, expires: number | null): Lot => ({
  ...{ id: `${material} ${place}`, material, amount, place },
  openedOn: opened === null ? null : dayOff(opened),
  expiresOn: expires === null ? null : dayOff(expires),
});
const STORE: Store = {
  lots: [
    lot("tin-brushable-low", 3.1, "Cabinet 1, back", -420, 60),
    lot("casting-plaster", 17, "Pallet", -30, 120),
    lot("polyester-resin", 9.5, "Yard store", -45, -12),
    lot("jute-scrim", 31, "Rack", null, null),
    lot("release-agent", 0.7, "Shelf 2", null, null),
    lot("own-harbour-clay", 40, "Clay bin", null, null),
  ],
  edits: {},
  own: [
    {
      id: "own-harbour-clay",
      ...{ name: "Harbour clay, dug", unit: "kg", group: "clays", family: "water-clay" },
      ...{ figures: { densityGPerCm3: 1.85 }, mix: [], hazards: [], packs: [], supplier: "", note: "" },
    },
  ],
};

const SHEET = {
  ...{ id: "7f3a8d4e-1b5c-4c1e-9a51-3f1c5a7d2b90", material: "peroxide-hardener", name: "peroxide.pdf" },
  ...{ type: "application/pdf", bytes: 20_480, addedAt: "2026-11-30T08:00:00.000Z" },
};
const WAX_SHEET = { ...SHEET, id: "7f3a8d4e-1b5c-4c1e-9a51-3f1c5a7d2b91", material: "paste-wax", name: "wax.pdf" };

/** The page over a store, and what it wrote of it. */
function shown(refuses = false): { log: Asked[]; written: () => StoredStore } {
  let held: StoredStore = { store: STORE, revision: 4 };
  const log = standInServer(({ method, path, body }) => {
    if (path.startsWith("/store/sheets")) return { status: 200, body: { sheets: [SHEET, WAX_SHEET] } };
    if (method !== "PUT") return { status: 200, body: held };
    if (refuses)
      return {
        status: 409,
        body: { error: { code: "conflict", message: "Someone else changed the store." }, current: held },
      };
    const asked = body as StoredStore;
    held = { store: asked.store, revision: asked.revision + 1 };
    return { status: 200, body: held };
  });
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  render(
    <QueryClientProvider client={client}>
      <MemoryRouter>
        <StorePage />
      </MemoryRouter>
    </QueryClientProvider>,
  );
  return { log, written: () => held };
}

const rowOf = async (text: string | RegExp) => {
  const cell = (await screen.findAllByText(text))[0];
  const row = cell.closest("tr");
  if (!row) throw new Error(`There is no row with ${text}.`);
  return within(row);
};

describe("the stock", () => {
  it("tells what is good, what is past its date, and what was opened too long ago", async () => {
    shown();
    expect((await rowOf("Laminating polyester resin")).getByText(/^expired/)).toBeDefined();
    expect((await rowOf("Cabinet 1, back")).getByText(/opened 13 months ago.*test a spoonful/)).toBeDefined();
    expect((await rowOf("Pallet")).getByText("good")).toBeDefined();
  });

  it("takes a lot in, weighs one again, and takes one out, each written on the revision it was read at", async () => {
    const { log, written } = shown();
    await screen.findByText("Pallet");
    const form = within(screen.getByRole("form", { name: "Add a lot" }));
    await userEvent.selectOptions(form.getByRole("combobox"), "Beeswax");
    await userEvent.type(form.getByLabelText("Amount, kg"), "1,5");
    await userEvent.click(form.getByRole("button", { name: "Put it in the store" }));
    await screen.findByLabelText("Amount of Beeswax");
    expect(written().store.lots.at(-1)).toMatchObject({ material: "beeswax", amount: 1.5, openedOn: null });
    const amount = screen.getByLabelText("Amount of Beeswax");
    await userEvent.clear(amount);
    await userEvent.type(amount, "0.9");
    await userEvent.tab();
    await vi.waitFor(() => expect(written().store.lots.at(-1)?.amount).toBe(0.9));
    await userEvent.click(screen.getByRole("button", { name: "Take Beeswax out of the store" }));
    await vi.waitFor(() => expect(written().store.lots.some(({ material }) => material === "beeswax")).toBe(false));
    const revisions = log.filter(({ method }) => method === "PUT").map(({ body }) => (body as StoredStore).revision);
    expect(revisions).toEqual([4, 5, 6]);
  });

  it("leaves an amount that is none as it was", async () => {
    const { log } = shown();
    const amount = await screen.findByLabelText("Amount of Jute scrim");
    await userEvent.clear(amount);
    await userEvent.type(amount, "some");
    expect(amount.getAttribute("aria-invalid")).toBe("true");
    await userEvent.tab();
    expect(amount).toHaveProperty("value", "31");
    expect(log.every(({ method }) => method === "GET")).toBe(true);
  });

  it("says so where somebody else wrote meanwhile", async () => {
    shown(true);
    await userEvent.click(await screen.findByRole("button", { name: "Take Release out of the store" }));
    expect((await screen.findByRole("alert")).textContent).toBe("Someone else changed the store.");
    expect(screen.getByLabelText("Amount of Release")).toBeDefined();
  });

  it("shows what a list would change, and what is wrong with it, before it is taken in", async () => {
    const { log, written } = shown();
    await screen.findByText("Pallet");
    const list = "material,amount,place\nBeeswax,2,Shelf 1\nmoonstone,1,\n";
    // The page's stand-in knows no text of a file.
    const file = Object.assign(new File([list], "stock.csv", { type: "text/csv" }), { text: async () => list });
    await userEvent.upload(screen.getByLabelText("Take a list in"), file);
    const preview = within(await screen.findByTestId("stock-preview"));
    expect(preview.getByText("+ Beeswax: 2")).toBeDefined();
    expect(preview.getByText(/^Line 3: There is no material "moonstone"/)).toBeDefined();
    expect(log.every(({ method }) => method === "GET")).toBe(true);
    const before = written().store.lots.length;
    await userEvent.click(preview.getByRole("button", { name: "Take them in" }));
    await vi.waitFor(() => expect(written().store.lots).toHaveLength(before + 1));
  });
});

describe("the catalogue", () => {
  const open = async (name: RegExp) => {
    await userEvent.click(await screen.findByRole("tab", { name: "Catalogue" }));
    await userEvent.click(screen.getByRole("button", { name }));
  };

  it("takes the workshop's own packs and prices, and gives the shipped ones back", async () => {
    const { written } = shown();
    await open(/^Paste wax/);
    const packs = screen.getByLabelText("Packs and prices, kg");
    await userEvent.clear(packs);
    await userEvent.type(packs, "1 for 9");
    expect(screen.getByText(/^Write each pack/)).toBeDefined();
    await userEvent.clear(packs);
    await userEvent.type(packs, "1 at 9; 5 at 40.50");
    await userEvent.type(screen.getByLabelText("Where you buy it"), "the chandler");
    await userEvent.click(screen.getByRole("button", { name: "Save" }));
    await vi.waitFor(() =>
      expect(written().store.edits["paste-wax"]).toMatchObject({
        packs: [
          { amount: 1, priceMinor: 900 },
          { amount: 5, priceMinor: 4050 },
        ],
        supplier: "the chandler",
      }),
    );
    await userEvent.click(await screen.findByRole("button", { name: "As it came" }));
    await vi.waitFor(() => expect(written().store.edits["paste-wax"]).toBeUndefined());
  });

  it("takes a material of the workshop's own, and keeps one that is in the store", async () => {
    const { written } = shown();
    await open(/^Harbour clay, dug/);
    expect(screen.getByRole("button", { name: /^Take Harbour clay/ })).toHaveProperty("disabled", true);
    const form = within(screen.getByRole("form", { name: "Add a material of your own" }));
    await userEvent.type(form.getByLabelText("Name"), "River sand");
    await userEvent.type(form.getByLabelText("Packs and prices"), "25 at 4");
    await userEvent.click(form.getByRole("button", { name: "Add it" }));
    await vi.waitFor(() =>
      expect(written().store.own.at(-1)).toMatchObject({ id: "own-river-sand", name: "River sand", unit: "kg" }),
    );
    expect(await screen.findByRole("button", { name: /^River sand/ })).toBeDefined();
  });

  it("begins a material like one that it has: its figures, what it is mixed of, what it may do", async () => {
    const { written } = shown();
    await userEvent.click(await screen.findByRole("tab", { name: "Catalogue" }));
    const form = within(screen.getByRole("form", { name: "Add a material of your own" }));
    await userEvent.type(form.getByLabelText("Name"), "Barrel silicone");
    await userEvent.selectOptions(
      form.getByLabelText("Begin with the figures of"),
      "Tin silicone, brushable, 100 to 5",
    );
    const mix = form.getByLabelText("Mixed of");
    expect(mix).toHaveProperty("value", "100 base, 5 catalyst");
    await userEvent.clear(mix);
    await userEvent.type(mix, "all of it");
    expect(form.getByText(/^Write what it is mixed of/)).toBeDefined();
    await userEvent.clear(mix);
    await userEvent.type(mix, "100 base, 4 catalyst");
    const life = form.getByLabelText("Pot life at 20 °C, min");
    await userEvent.clear(life);
    await userEvent.type(life, "40");
    await userEvent.click(form.getByRole("button", { name: "Add it" }));
    await vi.waitFor(() =>
      expect(written().store.own.at(-1)).toMatchObject({
        ...{ id: "own-barrel-silicone", group: "silicones", family: "tin-silicone", hazards: ["eyes"] },
        mix: [
          { name: "Base", parts: 100 },
          { name: "Catalyst", parts: 4 },
        ],
        figures: { potMin: 40, densityGPerCm3: 1.1 },
      }),
    );
  });

  it("lists the files that are kept with a material, and takes one away", async () => {
    const { log } = shown();
    await open(/^Peroxide hardener/);
    const kept = within(await screen.findByTestId("sheets"));
    const link = await kept.findByRole("link", { name: "peroxide.pdf" });
    expect(link.getAttribute("href")).toBe(`/api/store/sheets/${SHEET.id}`);
    expect(kept.queryByText("wax.pdf")).toBeNull();
    await userEvent.click(kept.getByRole("button", { name: "Take peroxide.pdf away" }));
    await vi.waitFor(() =>
      expect(log).toContainEqual({ method: "DELETE", path: `/store/sheets/${SHEET.id}`, body: null }),
    );
  });

  it("tells what a material may do, and what to wear", async () => {
    shown();
    await open(/^Peroxide hardener/);
    expect(screen.getByText(/Goggles and gloves; never near accelerator/)).toBeDefined();
  });
});

describe("packs as they are typed", () => {
  it("are read as they are written", () => {
    const packs = [
      { amount: 0.25, priceMinor: 1800 },
      { amount: 20, priceMinor: 45_650 },
    ];
    expect(readPacks(packsText(packs))).toEqual(packs);
    expect(readPacks("")).toEqual([]);
    expect(readPacks("2,5 @ 3,20")).toEqual([{ amount: 2.5, priceMinor: 320 }]);
    const broken = [{ amount: 20, priceMinor: 43_000, from: 3 }];
    expect(readPacks(packsText(broken))).toEqual(broken);
    expect(readPacks("20 at 430 from 1")).toEqual([{ amount: 20, priceMinor: 43_000 }]);
    for (const wrong of ["5 at 3 from", "5", "5 at", "at 5", "0 at 5", "5 at five"])
      expect(readPacks(wrong)).toBeNull();
  });
});

describe("mixes as they are typed", () => {
  it("are read by mass, or by volume where every part has its density", () => {
    expect(readMix("100 base, 5 catalyst")).toEqual([
      { name: "Base", parts: 100 },
      { name: "Catalyst", parts: 5 },
    ]);
    const byVolume = readMix("1 part a (1.12), 2 part b (0.98) by volume");
    expect(byVolume?.map(({ parts }) => parts)).toEqual([1.12, 1.96]);
    expect(readMix(mixText(byVolume ?? []))).toEqual(byVolume);
    expect(readMix("")).toEqual([]);
    for (const wrong of [
      "100 base",
      "100, 5",
      "1 a, 1 b by volume",
      "1 a (1.1), 1 b by volume",
      "0 a, 1 b",
      "1 a (0), 2 b",
    ])
      expect(readMix(wrong)).toBeNull();
  });
});
