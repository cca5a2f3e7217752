import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { Build, BuildSummary } from "../contract/builds.ts";
import type { StoredPlan } from "../contract/pieces.ts";
import { MATERIALS } from "../core/materials/catalogue.ts";
import { newPlan } from "../core/plan/document/document.ts";
import { TYPICAL_RATES } from "../core/takeoff/rates.ts";
import { startApi, type TestApi } from "./testing/api.ts";
import { figuresOfABall } from "./testing/figures.ts";

let api: TestApi;
const KEY = "cd".repeat(32);
const { name, unit } = MATERIALS["water-clay"];
const catalogue = { "water-clay": { name, unit } };

beforeAll(async () => {
  // Room for one result of three bytes and a little.
  api = await startApi({ resultsLimitBytes: 5 });
});
afterAll(() => api.close());

const leave = (path: string, key: string, bytes: number[]) =>
  fetch(`${api.base}${path}/results/${key}`, { method: "PUT", body: Uint8Array.from(bytes) });

describe("plans that are built from", () => {
  it("stand as they stood, with their rates, figures and geometry, whatever is changed later", async () => {
    const { path } = await api.newPiece();
    const figures = await figuresOfABall();
    await leave(path, KEY, [1, 2, 3]);
    const asked = { name: "For the quay", revision: 1, resultKey: KEY, rates: TYPICAL_RATES, figures, catalogue };
    const made = await api.send("POST", `${path}/builds`, asked);
    expect(made.status).toBe(201);
    const { id, madeBy } = (await made.json()) as BuildSummary;
    expect(madeBy?.name.length).toBeGreaterThan(0);

    const changed = { ...newPlan(), brief: { ...newPlan().brief, edition: 40 } };
    expect((await api.send("PUT", `${path}/plan`, { revision: 1, document: changed })).status).toBe(200);
    const session = await api.get<{ settings: { rates: object } }>("/session");
    const dearer = { ...session.settings, rates: { ...session.settings.rates, hourMinor: 9900 } };
    expect((await api.send("PUT", "/session/settings", dearer)).status).toBe(200);

    const build = await api.get<Build>(`${path}/builds/${id}`);
    expect(build.document).toEqual(newPlan());
    expect(build.rates).toEqual(TYPICAL_RATES);
    expect(build.figures).toEqual(JSON.parse(JSON.stringify(figures)));
    expect(build.catalogue).toEqual(catalogue);
    expect((await api.get<{ builds: BuildSummary[] }>(`${path}/builds`)).builds).toMatchObject([
      { id, name: "For the quay", revision: 1 },
    ]);
    // Its geometry stays when the result is let go of.
    await leave(path, "ef".repeat(32), [4, 5, 6, 7]);
    expect((await fetch(`${api.base}/results/${KEY}`)).status).toBe(404);
    const kept = await fetch(`${api.base}${path}/builds/${id}/result`);
    expect(new Uint8Array(await kept.arrayBuffer())).toEqual(Uint8Array.of(1, 2, 3));
  });

  it("are made from the plan as it is saved, and from no other", async () => {
    const { path } = await api.newPiece();
    const asked = { name: "Too late", revision: 2, resultKey: KEY, rates: TYPICAL_RATES, catalogue };
    const answer = await api.send("POST", `${path}/builds`, { ...asked, figures: await figuresOfABall() });
    expect(answer.status).toBe(409);
    const wrong = await api.send("POST", `${path}/builds`, { ...asked, revision: 1, figures: { report: {} } });
    expect(wrong.status).toBe(400);
  });
});

describe("revisions of a plan", () => {
  it("are listed with who and when, and each can be read again", async () => {
    const { path } = await api.newPiece();
    for (const revision of [1, 2]) {
      const document = { ...newPlan(), brief: { ...newPlan().brief, edition: 10 * revision } };
      await api.send("PUT", `${path}/plan`, { revision, document });
    }
    const { revisions } = await api.get<{ revisions: { revision: number; savedBy: object }[] }>(`${path}/revisions`);
    expect(revisions.map(({ revision }) => revision)).toEqual([3, 2, 1]);
    expect(revisions[0].savedBy).toMatchObject({ name: expect.any(String) });
    const second = await api.get<StoredPlan>(`${path}/revisions/2`);
    expect(second.document.brief.edition).toBe(10);
    expect((await fetch(`${api.base}${path}/revisions/9`)).status).toBe(404);
  });

  it("one that cannot be read is the server's fault: told, logged, offered as a file, and the last readable opened", async () => {
    const { path, partId } = await api.newPiece();
    const document = { ...newPlan(), brief: { ...newPlan().brief, edition: 12 } };
    await api.send("PUT", `${path}/plan`, { revision: 1, document });
    const spoiled = JSON.stringify({ version: 3, nonsense: true });
    for (const table of ["part_plans", "part_plan_revisions"])
      await api.sequelize.query(`UPDATE ${table} SET document = ? WHERE part_id = ? AND revision = 2`, {
        replacements: [spoiled, partId],
      });
    const before = api.errors.length;
    const opened = await fetch(`${api.base}${path}/plan`);
    expect(opened.status).toBe(200);
    expect(await opened.json()).toMatchObject({
      revision: 2,
      unreadableRevision: 2,
      document: { brief: { edition: 1 } },
    });
    expect(api.errors.slice(before).join()).toContain("cannot be read");
    const file = await fetch(`${api.base}${path}/revisions/2/file`);
    expect(file.headers.get("content-disposition")).toContain("plan-revision-2.json");
    expect(await file.json()).toEqual({ version: 3, nonsense: true });

    await api.sequelize.query("UPDATE part_plan_revisions SET document = ? WHERE part_id = ?", {
      replacements: [spoiled, partId],
    });
    const lost = await fetch(`${api.base}${path}/plan`);
    expect(lost.status).toBe(500);
    expect(await lost.json()).toMatchObject({ error: { code: "internal", message: expect.stringContaining("file") } });
  });
});

describe("results that are kept", () => {
  it("have a limit: those used least lately go first, and their bytes with them", async () => {
    const { path } = await api.newPiece();
    const [a, b, c] = ["1a", "2b", "3c"].map((start) => start.repeat(32));
    await leave(path, a, [10, 11]);
    await leave(path, b, [20, 21]);
    expect((await fetch(`${api.base}/results/${a}`)).status).toBe(200);
    await leave(path, c, [30, 31]);
    const there = async (key: string) => (await fetch(`${api.base}/results/${key}`)).status === 200;
    expect([await there(a), await there(b), await there(c)]).toEqual([true, false, true]);
    const orphans = "blobs b LEFT JOIN results r ON r.blob_id = b.id LEFT JOIN scans s ON s.blob_id = b.id";
    expect(
      await api.count(
        `${orphans} LEFT JOIN builds u ON u.blob_id = b.id WHERE r.blob_id IS NULL AND s.id IS NULL AND u.id IS NULL`,
      ),
    ).toBe(0);
  });

  it("are left only by who may change the piece they are of", async () => {
    const nobodys = "/pieces/7d444840-9dc0-41d1-b245-5ffdce74fad2/parts/7d444840-9dc0-41d1-b245-5ffdce74fad3";
    expect((await leave(nobodys, "9f".repeat(32), [1])).status).toBe(404);
    expect((await fetch(`${api.base}/results/${"9f".repeat(32)}`, { method: "PUT", body: "x" })).status).toBe(404);
  });
});
