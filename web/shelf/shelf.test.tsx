// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter } from "react-router";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Piece } from "../../contract/pieces.ts";
import { sphere } from "../../core/testing/shapes.ts";
import { longDate } from "../lib/dates.ts";
import { withoutLayout } from "../testing/layout.ts";
import { type Asked, standInServer } from "../testing/server.ts";
import { StandInWorker } from "../testing/worker.ts";
import { freshGeometry } from "../workers/geometry.ts";
import { GlanceCard } from "./GlanceCard.tsx";
import { ShelfPage } from "./ShelfPage.tsx";

const ID = "7f8a2c1e-0d4b-4c53-9f0e-6a1b2c3d4e";
const pieceCalled = (name: string, ending: string, some: Partial<Piece> = {}): Piece => ({
  id: `${ID}${ending}`,
  name,
  parts: [
    {
      id: "7f8a2c1e-0d4b-4c53-9f0e-6a1b2c3d4e5a",
      name: "Whole",
      scanId: `${ID}99`,
      scanName: "scan.stl",
      scanBytes: 1000,
      scanSha256: "a".repeat(64),
    },
  ],
  station: "parting",
  away: false,
  hasCover: false,
  summary: "3 sections, 12.0 kg silicone",
  createdAt: "2026-03-02T09:15:00.000Z",
  updatedAt: "2026-03-04T09:15:00.000Z",
  ...some,
});

const demo = vi.hoisted(() => ({ make: (): Promise<File> => Promise.reject(new Error("no worker here")) }));
vi.mock("../workers/demoPiece.ts", () => ({ makeDemoScan: () => demo.make() }));

beforeEach(() => {
  vi.stubGlobal("Worker", StandInWorker);
  // None is left ready by the test before.
  freshGeometry();
  StandInWorker.all = [];
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

/** The shelf over a server that keeps these pieces. */
function shelf(kept: Piece[]): Asked[] {
  const pieces = [...kept];
  const log = standInServer(({ method, path, body }) => {
    if (path === "/session") return { status: 404, body: { error: { code: "not-found", message: "Nobody." } } };
    const at = pieces.findIndex(({ id }) => path.startsWith(`/pieces/${id}`));
    if (method === "PATCH") pieces[at] = { ...pieces[at], ...(body as Partial<Piece>) };
    if (method === "POST") pieces.push({ ...pieces[at], id: `${ID}77`, name: `${pieces[at].name} (copy)` });
    if (method !== "GET") return { status: 200, body: method === "POST" ? pieces[pieces.length - 1] : pieces[at] };
    return { status: 200, body: { pieces } };
  });
  render(
    <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
      <MemoryRouter>
        <ShelfPage />
      </MemoryRouter>
    </QueryClientProvider>,
  );
  return log;
}

const changes = (log: readonly Asked[]) => log.filter(({ method }) => method !== "GET");

describe("a first glance", () => {
  it("says roughly what a scan comes to, and shows its picture once that is drawn", () => {
    vi.stubGlobal("URL", Object.assign(URL, { createObjectURL: () => "blob:picture", revokeObjectURL: () => {} }));
    const glance = { heightMm: 1907, sections: 3, siliconeG: 32_500, costMinor: 213_700, mesh: sphere(10, 4) };
    const { rerender } = render(<GlanceCard glance={{ ...glance, picture: null }} />);
    const card = screen.getByRole("region", { name: "At a first glance" });
    expect(card.textContent).toMatch(/1\s907\smm.*≈ 3 sections.*≈ 32\.5\skg.*≈ €\s?2\s137/);
    expect(card.querySelector("img")).toBeNull();
    rerender(<GlanceCard glance={{ ...glance, picture: new Blob() }} />);
    expect(card.querySelector("img")?.getAttribute("src")).toBe("blob:picture");
  });
});

describe("the shelf", () => {
  it("gets a worker ready for the scan that may be dropped, once the page is quiet", async () => {
    shelf([]);
    expect(StandInWorker.all).toEqual([]);
    await vi.waitFor(() => expect(StandInWorker.all.map(({ asked }) => asked)).toEqual([["connect", "practise"]]));
  });

  it("says what to do while it is empty", async () => {
    shelf([]);
    expect(await screen.findByText("Drop a scan of your piece here.")).toBeDefined();
  });

  it("offers the demo piece while it is empty, one at a time, and says when it cannot be made", async () => {
    let fail = (_: Error) => {};
    demo.make = () => new Promise((_, reject) => (fail = reject));
    shelf([]);
    const offer = await screen.findByRole("button", { name: /Take the demo piece/ });
    await userEvent.click(offer);
    expect(screen.getByRole("status").textContent).toContain("Making the demo piece");
    expect(offer).toHaveProperty("disabled", true);
    fail(new Error("no worker here"));
    expect((await screen.findByRole("alert")).textContent).toContain("could not be made");
    expect(offer).toHaveProperty("disabled", false);
  });

  it("shows each piece with its station, its figures and its day, and opens it there", async () => {
    shelf([pieceCalled("Heron", "11")]);
    const link = await screen.findByRole("link", { name: "Open Heron" });
    expect(link.getAttribute("href")).toBe(`/pieces/${ID}11/parting`);
    expect(screen.getByText(/3 sections, 12.0 kg silicone/)).toBeDefined();
    expect(screen.getByText(longDate(new Date(2026, 2, 4)))).toBeDefined();
  });

  /** Takes a line of a piece's menu by its keys: the first is on the first line. */
  const fromMenu = async (piece: string, line: string) => {
    const more = await screen.findByRole("button", { name: `More for ${piece}` });
    withoutLayout();
    more.focus();
    await userEvent.keyboard("{Enter}");
    const lines = (await screen.findAllByRole("menuitem")).map(({ textContent }) => textContent);
    await userEvent.keyboard(`${"{ArrowDown}".repeat(lines.indexOf(line))}{Enter}`);
  };

  it("renames a piece by Enter, and leaves it by Escape or where nothing is typed", async () => {
    const log = shelf([pieceCalled("Heron", "11")]);
    const rename = async (keys: string) => {
      await fromMenu("Heron", "Rename");
      await userEvent.clear(screen.getByLabelText("Name of the piece"));
      await userEvent.type(screen.getByLabelText("Name of the piece"), keys);
    };
    await rename("Bittern{Escape}");
    await rename("   {Enter}");
    expect(changes(log)).toEqual([]);
    await rename("Bittern{Enter}");
    expect(await screen.findByRole("heading", { name: "Bittern" })).toBeDefined();
    expect(changes(log)).toEqual([{ method: "PATCH", path: `/pieces/${ID}11`, body: { name: "Bittern" } }]);
  });

  it("duplicates a piece", async () => {
    shelf([pieceCalled("Heron", "11")]);
    await fromMenu("Heron", "Duplicate");
    expect(await screen.findByRole("heading", { name: "Heron (copy)" })).toBeDefined();
  });

  it("puts a piece away and brings it back", async () => {
    shelf([pieceCalled("Heron", "11"), pieceCalled("Finial", "12")]);
    await fromMenu("Heron", "Put away");
    await userEvent.click(await screen.findByRole("button", { name: "Put away (1)" }));
    expect(screen.getByRole("heading", { name: "Heron" })).toBeDefined();
    expect(screen.queryByRole("heading", { name: "Finial" })).toBeNull();
    await fromMenu("Heron", "Bring back");
    expect(await screen.findByText("Nothing is put away.")).toBeDefined();
    await userEvent.click(screen.getByRole("button", { name: "Back to the shelf" }));
    expect(screen.getAllByRole("heading", { level: 2 }).map(({ textContent }) => textContent)).toEqual([
      "Heron",
      "Finial",
    ]);
  });

  it("says so when the server cannot be reached", async () => {
    standInServer(() => "offline");
    render(
      <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
        <MemoryRouter>
          <ShelfPage />
        </MemoryRouter>
      </QueryClientProvider>,
    );
    expect((await screen.findByRole("alert")).textContent).toContain("cannot be reached");
  });
});
