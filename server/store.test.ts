import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { SHEET_LIMIT_BYTES, type Sheet } from "../contract/sheets.ts";
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
      ...{
        figures: { densityGPerCm3: 1.85 },
        mix: [],
        hazards: [],
        packs: [{ amount: 20, priceMinor: 500 }],
        supplier: "the river",
      },
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

describe("own entries of before", () => {
  it("had neither a mix nor hazards, and are read all the same", async () => {
    const { revision } = await read();
    const own = {
      ...{ id: "own-old-clay", name: "Old clay", unit: "kg", group: "clays", family: "water-clay" },
      ...{ figures: {}, packs: [], supplier: "", note: "" },
    };
    expect((await put({ ...EMPTY_STORE, own: [own] }, revision)).status).toBe(200);
    expect((await read()).store.own).toEqual([{ ...own, mix: [], hazards: [] }]);
  });

  it("are refused with a mix of one part", async () => {
    const { store, revision } = await read();
    const own = store.own.map((entry) => ({ ...entry, mix: [{ name: "Base", parts: 100 }] }));
    const answer = await put({ ...store, own }, revision);
    expect(answer.status).toBe(400);
    expect(JSON.stringify(await answer.json())).toContain("at least two parts");
  });
});

describe("data sheets and photos", () => {
  const PDF = new TextEncoder().encode("%PDF-1.7\n% made for the test\n");
  const add = (body: Uint8Array, name = "sheet.pdf", material = "tin-brushable") =>
    fetch(`${api.base}/store/sheets?${new URLSearchParams({ material, name })}`, {
      method: "POST",
      headers: { "content-type": "application/octet-stream" },
      body: body as Uint8Array<ArrayBuffer>,
    });
  const kept = async () => (await api.get<{ sheets: Sheet[] }>("/store/sheets")).sheets;

  it("are kept with their material, and given out as attachments only", async () => {
    const made = await add(PDF, "tin \u201csheet\u201d.pdf");
    expect(made.status).toBe(201);
    const [only] = await kept();
    expect(only).toMatchObject({ material: "tin-brushable", type: "application/pdf", bytes: PDF.length });
    const answer = await fetch(`${api.base}/store/sheets/${only.id}`);
    expect(new Uint8Array(await answer.arrayBuffer())).toEqual(PDF);
    expect(answer.headers.get("content-disposition")).toMatch(/^attachment; filename/);
    expect(answer.headers.get("content-type")).toBe("application/pdf");
    expect(answer.headers.get("x-content-type-options")).toBe("nosniff");
  });

  it("go by what they are, not by what they are called", async () => {
    const png = new Uint8Array([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 1, 2]);
    expect(await (await add(png, "photo.pdf")).json()).toMatchObject({ type: "image/png" });
    const page = await add(new TextEncoder().encode("<script>alert(1)</script>"), "sheet.pdf");
    expect(page.status).toBe(415);
    expect(JSON.stringify(await page.json())).toContain("PDF, PNG, JPEG");
    expect((await add(new Uint8Array(0), "nothing.pdf")).status).toBe(415);
  });

  it("are refused past the limit, and nothing of them stays", async () => {
    const before = await api.count("blobs");
    const large = new Uint8Array(SHEET_LIMIT_BYTES + 1);
    large.set(PDF);
    const answer = await add(large, "large.pdf");
    expect(answer.status).toBe(413);
    expect(JSON.stringify(await answer.json())).toContain("Save it smaller");
    expect(await api.count("blobs")).toBe(before);
  });

  it("are taken away with their bytes; the same file kept twice stays for the other", async () => {
    const jpeg = new Uint8Array([0xff, 0xd8, 0xff, 0xe0, 1, 2, 3]);
    const [one, two] = [await (await add(jpeg, "a.jpg")).json(), await (await add(jpeg, "b.jpg")).json()] as Sheet[];
    const blobs = await api.count("blobs");
    const remove = (id: string) => fetch(`${api.base}/store/sheets/${id}`, { method: "DELETE" });
    expect((await remove(one.id)).status).toBe(204);
    expect(await api.count("blobs")).toBe(blobs);
    expect((await remove(two.id)).status).toBe(204);
    expect(await api.count("blobs")).toBe(blobs - 1);
    expect((await remove(two.id)).status).toBe(404);
    expect((await kept()).map(({ id }) => id)).not.toContain(one.id);
  });
});
