// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, cleanup, renderHook } from "@testing-library/react";
import type { ReactNode } from "react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { StoredPlan } from "../../contract/pieces.ts";
import { newPlan, type PlanDocument } from "../../core/plan/document/document.ts";
import { keys } from "../lib/queries.ts";
import { type Asked, standInServer, type Told } from "../testing/server.ts";
import { openPlan, undo, usePlan } from "./planStore.ts";
import { unsavedOf } from "./unsaved.ts";
import { useAutosave } from "./useAutosave.ts";

const PART = "7f8a2c1e-0d4b-4c53-9f0e-6a1b2c3d4e5f";
const PATH = `/pieces/p/parts/${PART}`;
const AT = "2026-03-02T09:15:00.000Z";

const stored = (document: PlanDocument, revision: number): StoredPlan => ({
  partId: PART,
  revision,
  document,
  updatedAt: AT,
  updatedBy: { id: "7f8a2c1e-0d4b-4c53-9f0e-6a1b2c3d4e61", name: "Ines" },
});
const withEdition = (edition: number): PlanDocument => ({ ...newPlan(), brief: { ...newPlan().brief, edition } });
const setEdition = (edition: number) =>
  act(() => usePlan.getState().edit((plan) => ({ ...plan, brief: { ...plan.brief, edition } })));
const edition = () => usePlan.getState().document?.brief.edition;
const sent = ({ body }: Asked) => body as { revision: number; document: PlanDocument };

/** Lets timers run and their answers come in. */
const wait = (ms: number) => act(() => vi.advanceTimersByTimeAsync(ms));

function autosave(answer: (asked: Asked) => Told) {
  const log = standInServer(answer);
  const client = new QueryClient();
  const wrapper = ({ children }: { children: ReactNode }) => (
    <QueryClientProvider client={client}>{children}</QueryClientProvider>
  );
  return { log, ...renderHook(() => useAutosave(PART, PATH), { wrapper }) };
}

beforeEach(() => {
  localStorage.clear();
  vi.useFakeTimers();
  openPlan(PART, newPlan(), 3);
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe("an edit", () => {
  it("is saved a moment later on the revision it was made on, once for a burst of them", async () => {
    const { log, result } = autosave((asked) => ({ status: 200, body: stored(sent(asked).document, 4) }));
    await wait(2000);
    expect(log).toEqual([]);
    for (const value of [2, 3, 12]) {
      setEdition(value);
      await wait(200);
    }
    await wait(1000);
    expect(log.map((asked) => [asked.method, sent(asked).revision, sent(asked).document.brief.edition])).toEqual([
      ["PUT", 3, 12],
    ]);
    expect(result.current.state).toEqual({ kind: "saved" });
    expect(usePlan.getState().revision).toBe(4);
  });

  it("made while another is being saved is saved after it, on the revision that one made", async () => {
    let revision = 3;
    const { log } = autosave((asked) => {
      revision++;
      // While the first is on its way.
      if (revision === 4) queueMicrotask(() => usePlan.getState().edit((plan) => ({ ...plan, zones: withZone })));
      return { status: 200, body: stored(sent(asked).document, revision) };
    });
    const withZone = { ...newPlan().zones, fragile: [0, 0, 0, 0, 0, 1, 30] };
    setEdition(5);
    for (let k = 0; k < 3; k++) await wait(1000);
    expect(log.map((asked) => [sent(asked).revision, sent(asked).document.zones.fragile.length])).toEqual([
      [3, 0],
      [4, 7],
    ]);
  });

  it("is kept while the server is away, and saved when it answers again", async () => {
    let away = true;
    const { log, result } = autosave((asked) =>
      away ? "offline" : { status: 200, body: stored(sent(asked).document, 4) },
    );
    setEdition(8);
    await wait(1000);
    expect(result.current.state).toMatchObject({ kind: "waiting", message: expect.stringContaining("kept here") });
    expect(edition()).toBe(8);
    away = false;
    await wait(10_000);
    expect(result.current.state).toEqual({ kind: "saved" });
    expect(sent(log[log.length - 1]).document.brief.edition).toBe(8);
  });

  it("that is not saved yet holds the page back from being closed", async () => {
    autosave((asked) => ({ status: 200, body: stored(sent(asked).document, 4) }));
    const closing = () => {
      const event = new Event("beforeunload", { cancelable: true });
      window.dispatchEvent(event);
      return event.defaultPrevented;
    };
    await wait(100);
    expect(closing()).toBe(false);
    setEdition(8);
    expect(closing()).toBe(true);
    await wait(2000);
    expect(closing()).toBe(false);
  });
});

describe("an edit that is not saved when the page is left", () => {
  it("is sent at once, typed a moment ago or not", async () => {
    const { log, unmount } = autosave((asked) => ({ status: 200, body: stored(sent(asked).document, 4) }));
    await wait(10);
    setEdition(21);
    // Well within the pause before an edit is saved.
    await wait(100);
    unmount();
    expect(log.map((asked) => sent(asked).document.brief.edition)).toEqual([21]);
    await wait(10);
    expect(unsavedOf(PART)).toBeNull();
  });

  it("is sent when the page is hidden or closed, once", async () => {
    const { log } = autosave((asked) => ({ status: 200, body: stored(sent(asked).document, 4) }));
    await wait(10);
    setEdition(22);
    await wait(100);
    act(() => void window.dispatchEvent(new Event("pagehide")));
    await wait(10);
    act(() => void window.dispatchEvent(new Event("pagehide")));
    await wait(5000);
    expect(log.map((asked) => sent(asked).document.brief.edition)).toEqual([22]);
  });

  it("is found again on this machine where the server was away, and saved", async () => {
    const away = autosave(() => "offline");
    await wait(10);
    setEdition(23);
    away.unmount();
    await wait(10);
    // Opened again: the server has the plan as it was.
    openPlan(PART, newPlan(), 3);
    const { log } = autosave((asked) => ({ status: 200, body: stored(sent(asked).document, 4) }));
    await wait(2000);
    expect(edition()).toBe(23);
    expect(log.map((asked) => [sent(asked).revision, sent(asked).document.brief.edition])).toEqual([[3, 23]]);
    expect(unsavedOf(PART)).toBeNull();
  });
});

describe("an edit that was sent as the page was closed", () => {
  it("is not asked about where it arrived, though its answer did not", async () => {
    const away = autosave(() => "offline");
    await wait(10);
    setEdition(24);
    away.unmount();
    await wait(10);
    // It had arrived all the same: the server stands a revision further, at just this plan.
    openPlan(PART, withEdition(24), 4);
    const { log, result } = autosave((asked) => ({ status: 200, body: stored(sent(asked).document, 5) }));
    await wait(2000);
    expect(log).toEqual([]);
    expect(result.current.state).toEqual({ kind: "saved" });
    expect(unsavedOf(PART)).toBeNull();
  });

  it("is asked about where somebody else has saved another plan meanwhile", async () => {
    const away = autosave(() => "offline");
    await wait(10);
    setEdition(25);
    away.unmount();
    await wait(10);
    openPlan(PART, withEdition(30), 4);
    const client = new QueryClient();
    client.setQueryData(keys.plan(PART), stored(withEdition(30), 4));
    const wrapper = ({ children }: { children: ReactNode }) => (
      <QueryClientProvider client={client}>{children}</QueryClientProvider>
    );
    const { result } = renderHook(() => useAutosave(PART, PATH), { wrapper });
    await wait(2000);
    expect(result.current.state).toMatchObject({ kind: "conflict", theirs: { revision: 4 } });
    expect(edition()).toBe(25);
  });
});

describe("an edit that is refused for good", () => {
  it("is told, kept on this machine, and not sent again until it is changed", async () => {
    let full = true;
    const { log, result } = autosave((asked) =>
      full
        ? { status: 413, body: { error: { code: "too-large", message: "This is larger than 8 MB." } } }
        : { status: 200, body: stored(sent(asked).document, 4) },
    );
    await wait(10);
    setEdition(31);
    await wait(60_000);
    expect(log).toHaveLength(1);
    expect(result.current.state).toEqual({
      kind: "refused",
      message: "This is larger than 8 MB. Your edits are kept on this machine.",
    });
    expect(unsavedOf(PART)?.document.brief.edition).toBe(31);
    full = false;
    setEdition(32);
    await wait(2000);
    expect(result.current.state).toEqual({ kind: "saved" });
    expect(log).toHaveLength(2);
    expect(unsavedOf(PART)).toBeNull();
  });
});

describe("two people who edit the same plan", () => {
  const conflict = (theirs: StoredPlan) => ({
    status: 409,
    body: { error: { code: "conflict", message: "Changed in the meantime." }, current: theirs },
  });

  it("are told, and nothing is overwritten meanwhile", async () => {
    const theirs = stored(withEdition(30), 9);
    const { log, result } = autosave(() => conflict(theirs));
    setEdition(12);
    await wait(1000);
    expect(result.current.state).toEqual({ kind: "conflict", theirs });
    setEdition(13);
    await wait(10_000);
    expect(log).toHaveLength(1);
    expect(edition()).toBe(13);
  });

  it("are not asked where one of them has changed nothing: the page's own notes give way", async () => {
    const { result } = autosave(() => conflict(stored(withEdition(30), 9)));
    await wait(10);
    act(() => usePlan.getState().edit((plan) => ({ ...plan, identity: { ...plan.identity, next: 40 } })));
    await wait(1000);
    expect(result.current.state).toEqual({ kind: "saved" });
    expect([edition(), usePlan.getState().revision]).toEqual([30, 9]);
    expect(unsavedOf(PART)).toBeNull();
  });

  it("may go on with their own: it is saved over the other, which stays among the revisions", async () => {
    const theirs = stored(withEdition(30), 9);
    let asked = 0;
    const { log, result } = autosave((ask) =>
      asked++ === 0 ? conflict(theirs) : { status: 200, body: stored(sent(ask).document, 10) },
    );
    setEdition(12);
    await wait(1000);
    act(() => result.current.keepMine());
    await wait(2000);
    expect(log.map((ask) => [sent(ask).revision, sent(ask).document.brief.edition])).toEqual([
      [3, 12],
      [9, 12],
    ]);
    expect(result.current.state).toEqual({ kind: "saved" });
  });

  it("may take the other's: that is shown, and undo does not go back past it", async () => {
    const { log, result } = autosave(() => conflict(stored(withEdition(30), 9)));
    setEdition(12);
    await wait(1000);
    act(() => result.current.takeTheirs());
    await wait(2000);
    expect([edition(), usePlan.getState().revision, log.length]).toEqual([30, 9, 1]);
    act(() => undo());
    expect(edition()).toBe(30);
  });
});
