// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter, Route, Routes } from "react-router";
import { afterEach, beforeAll, beforeEach, describe, expect, it, vi } from "vitest";
import { partPath } from "../../../contract/pieces.ts";
import { DEFAULT_SETTINGS } from "../../../contract/settings.ts";
import type { PlanFigures, ShownPlan } from "../../../core/plan/results/figures.ts";
import { TYPICAL_RATES } from "../../../core/takeoff/rates.ts";
import { formatMoneyMinor } from "../../../core/units/index.ts";
import { usePlan } from "../../document/planStore.ts";
import type { SaveState } from "../../document/useAutosave.ts";
import { SettingsContext } from "../../lib/show.ts";
import { ballPlan, figuresOfABall } from "../../testing/figures.ts";
import { withoutLayout } from "../../testing/layout.ts";
import { FINIAL } from "../../testing/pieces.ts";
import { documentNow, openDocument, planningWith } from "../../testing/planning.ts";
import { type Asked, standInServer } from "../../testing/server.ts";
import { BuildPage } from "./BuildPage.tsx";
import { BuiltFrom } from "./BuiltFrom.tsx";

const PATH = partPath(FINIAL.id, FINIAL.parts[0].id);
const BUILD = "7f8a2c1e-0d4b-4c53-9f0e-6a1b2c3d4e70";
const INES = { id: "7f8a2c1e-0d4b-4c53-9f0e-6a1b2c3d4e61", name: "Ines" };
const AT = "2026-03-02T09:15:00.000Z";

let figures: PlanFigures;
beforeAll(async () => {
  figures = await figuresOfABall();
});
beforeEach(() => openDocument(ballPlan()));
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

/** A server with the builds that were made of the plan as it was then. */
function server(made: { name: string }[]): Asked[] {
  const summary = ({ name }: { name: string }) => ({ id: BUILD, name, revision: 1, madeAt: AT, madeBy: INES });
  return standInServer(({ method, path, body }) => {
    if (path === `${PATH}/builds` && method === "POST") {
      made.unshift({ name: (body as { name: string }).name });
      return { status: 201, body: summary(made[0]) };
    }
    if (path === `${PATH}/builds`) return { status: 200, body: { builds: made.map(summary) } };
    if (path === `${PATH}/revisions`)
      return { status: 200, body: { revisions: [{ revision: 1, savedAt: AT, savedBy: INES }] } };
    if (path === `${PATH}/revisions/1`)
      return {
        status: 200,
        body: { partId: FINIAL.parts[0].id, revision: 1, document: ballPlan(), updatedAt: AT, updatedBy: INES },
      };
    if (path === `/pieces/${FINIAL.id}`) return { status: 200, body: FINIAL };
    if (path === `${PATH}/builds/${BUILD}/result`)
      return {
        status: 404,
        body: { error: { code: "not-found", message: "Only the figures of this build were kept." } },
      };
    const kept = { document: ballPlan(), rates: { ...TYPICAL_RATES, currency: "$" }, figures, catalogue: {} };
    return { status: 200, body: { ...summary(made[0]), ...kept } };
  });
}

const SAVED: SaveState = { kind: "saved" };

/** The part of the course over the plan as the store has it. */
function Shown({ save }: { save: SaveState }) {
  const document = usePlan((plan) => plan.document);
  const planning = planningWith({ bundle: { figures } as ShownPlan });
  return document && <BuiltFrom piece={FINIAL} document={document} planning={planning} save={save} />;
}

function shown(save: SaveState = SAVED) {
  render(
    <QueryClientProvider client={new QueryClient()}>
      <SettingsContext value={{ ...DEFAULT_SETTINGS, memberName: "Ines" }}>
        <MemoryRouter>
          <Shown save={save} />
        </MemoryRouter>
      </SettingsContext>
    </QueryClientProvider>,
  );
}

describe("building from a plan", () => {
  it("keeps it under a name, with its rates, figures and the catalogue's entries; then it is being built", async () => {
    const log = server([]);
    shown();
    await userEvent.click(screen.getByRole("button", { name: "Build from this" }));
    const dialog = within(screen.getByRole("dialog"));
    await userEvent.type(dialog.getByLabelText("Name it"), "For the quay");
    await userEvent.click(dialog.getByRole("button", { name: "Build from this" }));
    expect(await screen.findByText("For the quay")).toBeDefined();
    expect(screen.getByTestId("built-from").textContent).toContain("Being built:");
    expect(screen.queryByRole("button", { name: "Build from this" })).toBeNull();
    const { body } = log.find(({ method }) => method === "POST") as Asked;
    expect(body).toMatchObject({ name: "For the quay", revision: 1, rates: TYPICAL_RATES, resultKey: "ab".repeat(32) });
    const asked = body as { figures: PlanFigures; catalogue: Record<string, unknown> };
    expect(asked.figures.takeoff.costMinor).toBe(figures.takeoff.costMinor);
    expect(Object.keys(asked.catalogue)).toContain("tin-brushable-low");
  });

  it("waits until the plan is saved", () => {
    server([]);
    shown({ kind: "saving" });
    expect(screen.getByRole("button", { name: "Build from this" })).toHaveProperty("disabled", true);
  });

  it("says that a plan that was changed since is a new draft", async () => {
    server([{ name: "For the quay" }]);
    shown();
    expect(await screen.findByText("For the quay")).toBeDefined();
    usePlan.getState().edit((plan) => ({ ...plan, brief: { ...plan.brief, edition: 30 } }));
    expect(await screen.findByText(/New draft/)).toBeDefined();
    expect(screen.getByTestId("built-from").textContent).toContain("“For the quay” is being built.");
  });
});

describe("earlier plans", () => {
  const open = async () => {
    server([{ name: "For the quay" }]);
    shown();
    usePlan.getState().edit((plan) => ({
      ...plan,
      brief: { ...plan.brief, edition: 30 },
      identity: { ...plan.identity, next: 40 },
    }));
    await userEvent.click(screen.getByRole("button", { name: "Earlier plans" }));
    return within(screen.getByRole("dialog"));
  };

  it("are compared with the open one in words and in the tally", async () => {
    const dialog = await open();
    const builds = within(await dialog.findByTestId("builds"));
    await userEvent.click(await builds.findByRole("button", { name: "Compare" }));
    const comparison = within(await dialog.findByTestId("comparison"));
    expect(comparison.getByText("Casts: 30 instead of 1")).toBeDefined();
    expect(comparison.getAllByRole("row").map((row) => row.textContent)).toEqual(
      expect.arrayContaining([expect.stringMatching(/^Sections22$/)]),
    );
  });

  it("are gone on from; ids that were given since are not given again", async () => {
    const dialog = await open();
    const revisions = within(await dialog.findByTestId("revisions"));
    await userEvent.click(await revisions.findByRole("button", { name: "Go on from it" }));
    await vi.waitFor(() => expect(documentNow().brief.edition).toBe(1));
    expect(documentNow().identity.next).toBe(40);
    expect(screen.queryByRole("dialog")).toBeNull();
  });
});

describe("a plan that is built from", () => {
  it("is shown as it stood on that day, with its own money, whatever the rates are now", async () => {
    // Nothing is laid out here, so that nothing is drawn.
    withoutLayout();
    server([{ name: "For the quay" }]);
    render(
      <QueryClientProvider client={new QueryClient()}>
        <SettingsContext value={{ ...DEFAULT_SETTINGS, memberName: "Ines" }}>
          <MemoryRouter initialEntries={[`/pieces/${FINIAL.id}/builds/${BUILD}`]}>
            <Routes>
              <Route path="/pieces/:pieceId/builds/:buildId" element={<BuildPage />} />
            </Routes>
          </MemoryRouter>
        </SettingsContext>
      </QueryClientProvider>,
    );
    expect(await screen.findByRole("heading", { name: `${FINIAL.name}: For the quay` })).toBeDefined();
    expect(screen.getByText(/Kept as it stood on 2 Mar|Kept as it stood on Mar 2/)).toBeDefined();
    const costs = formatMoneyMinor(figures.takeoff.costMinor, "$");
    expect(screen.getByTestId("built-tally").textContent).toContain(costs);
    expect(screen.getAllByText(/^Section \d$/)).toHaveLength(figures.report.sections.length);
    expect(screen.getByText("The shapes of this plan were not kept, its figures were.")).toBeDefined();
  });
});
