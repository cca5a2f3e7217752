import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { StoredStore } from "../contract/store.ts";
import { EMPTY_STORE, type Store } from "../core/materials/stock.ts";
import { startApi, type TestApi } from "./testing/api.ts";

let api: TestApi;
beforeAll(async () => {
  api = await startApi();
});
afterAll(() => api.close());

const read = async () => (await (await fetch(`${api.base}/store`)).json()) as StoredStore;
const put = (store: unknown, revision: number) => api.send("PUT", "/store", { store, revision });
const lot = {
  id: "lot-1",
  material: "tin-brushable",
  amount: 2.5,
  openedOn: "2026-10-01",
  expiresOn: null,
  place: "shelf 2",
};

describe("the workshop's store", () => {
  it("is empty at first, and comes back as it was written", async () => {
    expect(await read()).toEqual({ store: EMPTY_STORE, revision: 0 });
    const own = {
      ...{ id: "own-river-clay", name: "River clay", unit: "kg", group: "clays", family: "water-clay", note: "" },
      ...{ figures: { densityGPerCm3: 1.85 }, packs: [{ amount: 20, priceMinor: 500 }], supplier: "the river" },
    };
    const edits = { "water-clay": { packs: [{ amount: 10, priceMinor: 900 }], supplier: "the pit", shipped: [] } };
    const store = {
      lots: [lot, { ...lot, id: "lot-2", material: "own-river-clay" }],
      edits,
      own: [own],
    } as unknown as Store;
    const answer = await put(store, 0);
    expect(answer.status).toBe(200);
    expect(await read()).toEqual({ store, revision: 1 });
  });

  it("is not overwritten by somebody who saw it earlier", async () => {
    const { store, revision } = await read();
    expect((await put({ ...store, lots: [] }, revision)).status).toBe(200);
    const late = await put({ ...store, lots: [lot] }, revision);
    expect(late.status).toBe(409);
    expect(await late.json()).toMatchObject({ error: { code: "conflict" }, current: { revision: revision + 1 } });
    expect((await read()).store.lots).toEqual([]);
  });

  it.each([
    ["a lot of a material nobody knows", { lots: [{ ...lot, material: "unobtainium" }] }, "catalogue"],
    ["an amount less than nothing", { lots: [{ ...lot, amount: -1 }] }, "not less than nothing"],
    ["a date that is none", { lots: [{ ...lot, openedOn: "soon" }] }, "2026-11-30"],
    [
      "a pack of nothing",
      { edits: { "water-clay": { packs: [{ amount: 0, priceMinor: 1 }], supplier: "", shipped: [] } } },
      "more than nothing",
    ],
  ])("refuses %s, and says where", async (_what, change, words) => {
    const { revision } = await read();
    const answer = await put({ ...EMPTY_STORE, ...change }, revision);
    expect(answer.status).toBe(400);
    expect(JSON.stringify(await answer.json())).toContain(words);
    expect((await read()).revision).toBe(revision);
  });
});
