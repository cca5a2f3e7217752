import { afterAll, beforeAll, expect, it } from "vitest";
import { clearAbandoned } from "./features/blobs.ts";
import { startApi, type TestApi } from "./testing/api.ts";

let api: TestApi;
beforeAll(async () => {
  api = await startApi();
});
afterAll(() => api.close());

it("slow uploads hold no connection: twenty at once, and the shelf still answers", async () => {
  const open: ReadableStreamDefaultController[] = [];
  const uploads = Array.from({ length: 20 }, (_, k) => {
    const body = new ReadableStream({
      start(controller) {
        controller.enqueue(new Uint8Array(1_200_000).fill(k));
        open.push(controller);
      },
    });
    return fetch(`${api.base}/scans?name=slow-${k}.stl`, { method: "POST", body, duplex: "half" } as RequestInit);
  });
  await expect.poll(() => api.count("blobs")).toBeGreaterThanOrEqual(20);
  // None of them is through, and nothing of them is to be seen.
  expect(await api.count("scans WHERE name LIKE 'slow-%'")).toBe(0);
  const { piece } = await api.newPiece("Meanwhile");
  expect(piece.name).toBe("Meanwhile");
  for (const controller of open) controller.close();
  const answers = await Promise.all(uploads);
  expect(answers.map(({ status }) => status)).toEqual(answers.map(() => 201));
  expect(await api.count("blobs WHERE sha256 LIKE 'pending%'")).toBe(0);
});

it("equal scans that come at once are all taken, and kept once", async () => {
  const bytes = Uint8Array.from({ length: 900_000 }, (_, k) => (k * 7) & 255);
  const answers = await Promise.all(Array.from({ length: 6 }, (_, k) => api.upload(bytes, `equal-${k}.stl`)));
  expect(answers.map(({ status }) => status)).toEqual(answers.map(() => 201));
  const scans = (await Promise.all(answers.map((answer) => answer.json()))) as { id: string; sha256: string }[];
  expect(new Set(scans.map(({ sha256 }) => sha256)).size).toBe(1);
  expect(new Set(scans.map(({ id }) => id)).size).toBe(6);
  expect(await api.count(`blobs WHERE sha256 = '${scans[0].sha256}'`)).toBe(1);
  expect(await api.count("blobs WHERE sha256 LIKE 'pending%'")).toBe(0);
});

it("one that is never finished is cleared away once it is old", async () => {
  const body = new ReadableStream({
    start: (controller) => controller.enqueue(new Uint8Array(1_200_000).fill(3)),
  });
  const ending = new AbortController();
  const slow = { method: "POST", body, duplex: "half", signal: ending.signal } as RequestInit;
  const upload = fetch(`${api.base}/scans?name=never.stl`, slow).catch(() => null);
  await expect
    .poll(() => api.count("blob_chunks c JOIN blobs b ON b.id = c.blob_id WHERE b.sha256 LIKE 'pending%'"))
    .toBe(1);
  expect(await clearAbandoned()).toBe(0);
  await api.sequelize.query("UPDATE blobs SET created_at = '2020-01-01' WHERE sha256 LIKE 'pending%'");
  expect(await clearAbandoned()).toBe(1);
  expect(await api.count("blob_chunks c LEFT JOIN blobs b ON b.id = c.blob_id WHERE b.id IS NULL")).toBe(0);
  ending.abort();
  await upload;
});
