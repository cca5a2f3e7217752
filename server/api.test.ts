import { request } from "node:http";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { Piece } from "../contract/pieces.ts";
import { newPlan } from "../core/plan/document/document.ts";
import { SCAN_LIMIT_BYTES, scanBytes, startApi, type TestApi } from "./testing/api.ts";

let api: TestApi;
let base: string;
let send: TestApi["send"];
let upload: TestApi["upload"];
let newPiece: TestApi["newPiece"];
let count: TestApi["count"];

beforeAll(async () => {
  api = await startApi({ hosts: ["bench.workshop.example"] });
  ({ base, send, upload, newPiece, count } = api);
});

afterAll(() => api.close());

describe("scans", () => {
  it("come back bit for bit, the same content kept once", async () => {
    const before = await count("blobs");
    const [a, b] = [await (await upload()).json(), await (await upload()).json()] as { id: string; sha256: string }[];
    expect(a.sha256).toBe(b.sha256);
    expect(a.id).not.toBe(b.id);
    expect((await count("blobs")) - before).toBeLessThanOrEqual(1);
    const back = new Uint8Array(await (await fetch(`${base}/scans/${a.id}/content`)).arrayBuffer());
    expect(back).toEqual(scanBytes);
  });

  it("over several chunks too", async () => {
    const large = Uint8Array.from({ length: 2_500_000 }, (_, k) => (k * 31) & 255);
    const scan = (await (await upload(large, "large.stl")).json()) as { id: string };
    const back = Buffer.from(await (await fetch(`${base}/scans/${scan.id}/content`)).arrayBuffer());
    expect(back.equals(large)).toBe(true);
  });

  it("beyond the limit are refused clearly, and leave nothing behind", async () => {
    const before = await count("blob_chunks");
    const answer = await upload(new Uint8Array(SCAN_LIMIT_BYTES + 1));
    expect(answer.status).toBe(413);
    expect(await answer.json()).toMatchObject({
      error: { code: "too-large", message: expect.stringContaining("3 MB") },
    });
    expect(await count("blob_chunks")).toBe(before);
  });

  it("cut off in mid-upload leave nothing behind", async () => {
    const before = [await count("blobs"), await count("blob_chunks"), await count("scans")];
    const half = new ReadableStream({
      start(controller) {
        controller.enqueue(new Uint8Array(1_500_000));
      },
      pull(controller) {
        controller.error(new Error("the cable was pulled"));
      },
    });
    await expect(
      fetch(`${base}/scans?name=cut.stl`, { method: "POST", body: half, duplex: "half" } as RequestInit),
    ).rejects.toThrow();
    await expect
      .poll(async () => [await count("blobs"), await count("blob_chunks"), await count("scans")])
      .toEqual(before);
  });

  it("that are empty are refused", async () => {
    expect((await upload(new Uint8Array(0))).status).toBe(400);
  });
});

describe("pieces", () => {
  it("are added, renamed, put away, brought back and duplicated", async () => {
    const { piece } = await newPiece();
    expect(await (await send("PATCH", `/pieces/${piece.id}`, { name: "Bowl", away: true })).json()).toMatchObject({
      name: "Bowl",
      away: true,
    });
    expect(await (await send("PATCH", `/pieces/${piece.id}`, { away: false })).json()).toMatchObject({ away: false });
    const copy = (await (await send("POST", `/pieces/${piece.id}/duplicate`, {})).json()) as Piece;
    expect(copy).toMatchObject({ name: "Bowl (copy)", parts: [{ name: "Whole", scanId: piece.parts[0].scanId }] });
    expect(copy.parts[0].id).not.toBe(piece.parts[0].id);
    const list = (await (await fetch(`${base}/pieces`)).json()) as { pieces: { id: string }[] };
    expect(list.pieces.map((p) => p.id)).toEqual(expect.arrayContaining([piece.id, copy.id]));
    const plan = (await (await fetch(`${base}/pieces/${copy.id}/parts/${copy.parts[0].id}/plan`)).json()) as {
      revision: number;
    };
    expect(plan.revision).toBe(1);
  });

  it("refuse bad names and unknown scans, saying where", async () => {
    const answer = await send("POST", "/pieces", { name: "  ", scanId: "no", document: newPlan() });
    expect(answer.status).toBe(400);
    expect(await answer.json()).toMatchObject({
      error: { code: "bad-request", fields: { name: expect.any(String), scanId: expect.any(String) } },
    });
    const missing = await send("POST", "/pieces", {
      name: "Ghost",
      scanId: "7d444840-9dc0-41d1-b245-5ffdce74fad2",
      document: newPlan(),
    });
    expect(missing.status).toBe(400);
  });

  it("keep a picture", async () => {
    const { piece } = await newPiece();
    const png = Uint8Array.of(0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10, 0);
    expect(
      (
        await fetch(`${base}/pieces/${piece.id}/cover`, {
          method: "PUT",
          headers: { "content-type": "image/png" },
          body: png,
        })
      ).status,
    ).toBe(204);
    expect(new Uint8Array(await (await fetch(`${base}/pieces/${piece.id}/cover`)).arrayBuffer())).toEqual(png);
    const put = (body: string | Uint8Array<ArrayBuffer>) =>
      fetch(`${base}/pieces/${piece.id}/cover`, { method: "PUT", headers: { "content-type": "image/png" }, body });
    expect((await put("not a picture")).status).toBe(415);
    expect((await put(Uint8Array.of(0x89))).status).toBe(415);
    expect((await put("")).status).toBe(415);
  });
});

describe("plans", () => {
  it("are saved on the revision they were made on; a second writer is told and loses nothing", async () => {
    const { path, partId } = await newPiece();
    const mine = { ...newPlan(), brief: { ...newPlan().brief, edition: 7 } };
    const theirs = { ...newPlan(), brief: { ...newPlan().brief, edition: 9 } };
    expect(await (await send("PUT", `${path}/plan`, { revision: 1, document: mine })).json()).toMatchObject({
      revision: 2,
      document: { brief: { edition: 7 } },
    });
    const conflict = await send("PUT", `${path}/plan`, { revision: 1, document: theirs });
    expect(conflict.status).toBe(409);
    expect(await conflict.json()).toMatchObject({
      error: { code: "conflict" },
      current: { revision: 2, document: { brief: { edition: 7 } } },
    });
    expect((await send("PUT", `${path}/plan`, { revision: 2, document: theirs })).status).toBe(200);
    const kept = await api.rows<{ revision: number }>(
      "SELECT revision FROM part_plan_revisions WHERE part_id = ? ORDER BY revision",
      [partId],
    );
    expect(kept.map((row) => row.revision)).toEqual([1, 2, 3]);
  });

  it("of two saves at once just one wins", async () => {
    const { path } = await newPiece();
    const answers = await Promise.all(
      [1, 2, 3, 4].map((edition) =>
        send("PUT", `${path}/plan`, {
          revision: 1,
          document: { ...newPlan(), brief: { ...newPlan().brief, edition } },
        }),
      ),
    );
    expect(answers.map((answer) => answer.status).sort()).toEqual([200, 409, 409, 409]);
  });

  it("that are out of bounds are refused with the place", async () => {
    const { path } = await newPiece();
    const bad = { ...newPlan(), jacket: { ...newPlan().jacket, coats: [] } };
    const answer = await send("PUT", `${path}/plan`, { revision: 1, document: bad });
    expect(answer.status).toBe(400);
    expect(await answer.json()).toMatchObject({ error: { message: expect.stringContaining("at least one coat") } });
  });
});

describe("results and settings", () => {
  it("a result is found under its key, and only there", async () => {
    const key = "ab".repeat(32);
    const { path } = await newPiece();
    expect((await fetch(`${base}/results/${key}`)).status).toBe(404);
    const left = await fetch(`${base}${path}/results/${key}`, { method: "PUT", body: Uint8Array.of(1, 2, 3) });
    expect(left.status).toBe(204);
    expect(new Uint8Array(await (await fetch(`${base}/results/${key}`)).arrayBuffer())).toEqual(Uint8Array.of(1, 2, 3));
    expect((await fetch(`${base}/results/not-a-key`)).status).toBe(400);
  });

  it("settings are kept", async () => {
    const session = (await (await fetch(`${base}/session`)).json()) as { settings: { rates: object } };
    const changed = { ...session.settings, units: "imperial", memberName: "Ines" };
    expect((await send("PUT", "/session/settings", changed)).status).toBe(200);
    expect(await (await fetch(`${base}/session`)).json()).toMatchObject({
      member: { name: "Ines" },
      settings: { units: "imperial" },
    });
    expect((await send("PUT", "/session/settings", { ...changed, units: "cubits" })).status).toBe(400);
  });
});

describe("manners of the server", () => {
  it("one shape of error, whatever is wrong", async () => {
    for (const [path, status] of [
      ["/nothing", 404],
      ["/pieces/7d444840-9dc0-41d1-b245-5ffdce74fad2", 404],
    ] as const) {
      const answer = await fetch(base + path);
      expect(answer.status).toBe(status);
      expect(await answer.json()).toMatchObject({ error: { code: "not-found", message: expect.any(String) } });
    }
    const broken = await fetch(`${base}/pieces`, {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: "{",
    });
    expect(broken.status).toBe(400);
  });

  it("takes writes from its own pages only", async () => {
    expect((await send("POST", "/pieces", {}, { origin: "http://elsewhere.example" })).status).toBe(403);
    expect((await send("POST", "/pieces", {}, { "sec-fetch-site": "cross-site" })).status).toBe(403);
  });

  it("sends the headers that keep a page safe and its workers fast", async () => {
    const { headers } = await fetch(`${base}/session`);
    expect(headers.get("content-security-policy")).toContain("default-src 'self'");
    expect(headers.get("cross-origin-opener-policy")).toBe("same-origin");
    expect(headers.get("cross-origin-embedder-policy")).toBe("require-corp");
    expect(headers.get("x-powered-by")).toBeNull();
  });
});

describe("the names the server goes by", () => {
  const asked = (host: string) =>
    new Promise<number>((resolve, reject) => {
      const options = { host: "127.0.0.1", port: api.port, path: "/api/session", headers: { host } };
      request(options, (response) => {
        response.resume();
        resolve(response.statusCode ?? 0);
      })
        .on("error", reject)
        .end();
    });

  it("are addresses, localhost and those it was told; no other is answered, not even with what may be read", async () => {
    expect(await asked(`127.0.0.1:${api.port}`)).toBe(200);
    expect(await asked(`localhost:${api.port}`)).toBe(200);
    expect(await asked(`[::1]:${api.port}`)).toBe(200);
    expect(await asked("Bench.workshop.example:80")).toBe(200);
    expect(await asked(`rebound.example:${api.port}`)).toBe(403);
    expect(await asked("localhost.rebound.example")).toBe(403);
    expect(await asked("not a host")).toBeGreaterThanOrEqual(400);
  });
});

describe("types survive the database", () => {
  it("BIGINT, JSON, LONGBLOB and DATE(3)", async () => {
    const { piece, partId, path } = await newPiece();
    const found = await api.rows<{ bytes: number }>(
      "SELECT b.bytes FROM parts p JOIN scans s ON s.id = p.scan_id JOIN blobs b ON b.id = s.blob_id WHERE p.id = ?",
      [partId],
    );
    expect(Number(found[0].bytes)).toBe(scanBytes.length);
    expect((await api.get<Piece>(`/pieces/${piece.id}`)).updatedAt).toMatch(/\.\d{3}Z$/);
    expect(await api.get(`${path}/plan`)).toMatchObject({
      document: newPlan(),
      updatedBy: { name: expect.any(String) },
    });
  });
});
