/** Kills without warning: what was acknowledged is there, what was not is there whole or not at all. */
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { QueryTypes } from "sequelize";
import { afterAll, expect, it } from "vitest";
import { type Piece, partPath } from "../contract/pieces.ts";
import { writeStl } from "../core/export/stl.ts";
import { newPlan } from "../core/plan/document/document.ts";
import { sphere } from "../core/testing/shapes.ts";
import { type PrivateDatabase, startDatabase } from "../scripts/launch/database.ts";
import { openDatabase } from "./db/database.ts";
import { clearAbandoned } from "./features/blobs.ts";
import { type RunningServer, runServer } from "./testing/running.ts";

const folder = mkdtempSync(join(tmpdir(), "rimefell-kill-"));
let database: PrivateDatabase;
let server: RunningServer;

afterAll(async () => {
  await server?.kill("SIGTERM");
  await database?.stop();
  rmSync(folder, { recursive: true, force: true });
});

const json = { "content-type": "application/json" };

/** @returns where its one part stands */
async function makePiece(api: string): Promise<string> {
  const scan = (await (
    await fetch(`${api}/scans?name=ball.stl`, {
      method: "POST",
      body: writeStl(sphere(100, 16)) as Uint8Array<ArrayBuffer>,
    })
  ).json()) as { id: string };
  const piece = (await (
    await fetch(`${api}/pieces`, {
      method: "POST",
      headers: json,
      body: JSON.stringify({ name: "Ball", scanId: scan.id, document: newPlan() }),
    })
  ).json()) as Piece;
  return partPath(piece.id, piece.parts[0].id);
}

const save = (api: string, path: string, revision: number) =>
  fetch(`${api}${path}/plan`, {
    method: "PUT",
    headers: json,
    body: JSON.stringify({ revision, document: { ...newPlan(), brief: { ...newPlan().brief, edition: revision } } }),
  });

it("kill -9 of the server in mid-save", async () => {
  database = await startDatabase(folder);
  server = await runServer(database.url);
  const path = await makePiece(server.api);
  let acknowledged = 1;
  const writing = (async () => {
    for (;;) {
      const answer = await save(server.api, path, acknowledged);
      if (!answer.ok) return;
      acknowledged++;
      if (acknowledged === 12) void server.kill("SIGKILL");
    }
  })();
  await writing.catch(() => undefined);
  expect(acknowledged).toBeGreaterThanOrEqual(12);
  server = await runServer(database.url);
  const plan = (await (await fetch(`${server.api}${path}/plan`)).json()) as {
    revision: number;
    document: { brief: { edition: number } };
  };
  // The save in flight may have landed or not; if it did, it did whole.
  expect([acknowledged, acknowledged + 1]).toContain(plan.revision);
  expect(plan.document.brief.edition).toBe(plan.revision - 1);
});

it("kill -9 of MariaDB in mid-upload", async () => {
  const path = await makePiece(server.api);
  let sent = 0;
  const body = new ReadableStream<Uint8Array>({
    async pull(controller) {
      controller.enqueue(new Uint8Array(700_000).fill(sent));
      if (++sent === 6) database.process.kill("SIGKILL");
      if (sent === 40) controller.close();
    },
  });
  const upload = await fetch(`${server.api}/scans?name=late.stl`, {
    method: "POST",
    body,
    duplex: "half",
  } as RequestInit).catch(() => null);
  expect(upload?.ok ?? false).toBe(false);
  await server.kill("SIGKILL");
  database = await startDatabase(folder);
  server = await runServer(database.url);
  expect((await fetch(`${server.api}${path}/plan`)).status).toBe(200);
  const sequelize = openDatabase(database.url);
  // What had come in, if anything, is not to be seen anywhere, and is cleared once it is old.
  expect(await clearAbandoned(0)).toBeLessThanOrEqual(1);
  const orphans = await sequelize.query<{ n: number }>(
    "SELECT (SELECT COUNT(*) FROM blobs WHERE sha256 LIKE 'pending%') + (SELECT COUNT(*) FROM blob_chunks c LEFT JOIN blobs b ON b.id = c.blob_id WHERE b.id IS NULL) + (SELECT COUNT(*) FROM scans WHERE name = 'late.stl') AS n",
    { type: QueryTypes.SELECT },
  );
  await sequelize.close();
  expect(Number(orphans[0].n)).toBe(0);
});
