/** A database as version 1 left it opens with all that is in it. */
import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, expect, it } from "vitest";
import type { Piece, StoredPlan } from "../contract/pieces.ts";
import { writeStl } from "../core/export/stl.ts";
import { newPlan } from "../core/plan/document/document.ts";
import { sphere } from "../core/testing/shapes.ts";
import { type PrivateDatabase, startDatabase } from "../scripts/launch/database.ts";
import { type RunningServer, runServer } from "./testing/running.ts";

const folder = mkdtempSync(join(tmpdir(), "rimefell-upgrade-"));
const dump = join(import.meta.dirname, "testing", "fixtures", "workshop-001.sql");
let database: PrivateDatabase;
let server: RunningServer;

beforeAll(async () => {
  database = await startDatabase(folder);
  const { hostname, port, username, password, pathname } = new URL(database.url);
  const at = ["-h", hostname, "-P", port, "-u", username, `-p${password}`, pathname.slice(1)];
  execFileSync("mariadb", at, { input: readFileSync(dump) });
  server = await runServer(database.url);
});

afterAll(async () => {
  await server?.kill("SIGTERM");
  await database?.stop();
  rmSync(folder, { recursive: true, force: true });
});

const get = async <T>(path: string) => (await fetch(server.api + path)).json() as Promise<T>;

it("keeps pieces, plans, revisions, settings and results", async () => {
  const { pieces } = await get<{ pieces: Piece[] }>("/pieces");
  expect(pieces.map(({ name, away }) => [name, away]).sort()).toEqual([
    ["Bowl", true],
    ["Finial", false],
  ]);
  const finial = pieces.find(({ name }) => name === "Finial");
  const [part] = finial?.parts ?? [];
  const path = `/pieces/${finial?.id}/parts/${part.id}`;
  const scan = new Uint8Array(await (await fetch(`${server.api}/scans/${part.scanId}/content`)).arrayBuffer());
  expect(scan).toEqual(writeStl(sphere(100, 12)));

  const plan = await get<StoredPlan>(`${path}/plan`);
  expect(plan).toMatchObject({ revision: 2, updatedBy: { name: "Ines" } });
  expect(plan.document.brief.edition).toBe(7);
  expect(plan.document.parting.layout?.lines).toHaveLength(1);
  expect(plan.document.parting.fills).toEqual([{ at: [1, 2, 3], kind: "clay" }]);
  // What is new since stands at its beginning.
  expect(plan.document.version).toBe(newPlan().version);
  expect(plan.document.identity).toEqual(newPlan().identity);
  expect(plan.document.jacket.coats).toEqual(newPlan().jacket.coats);
  const first = await get<StoredPlan>(`${path}/revisions/1`);
  // A plan from before feet keeps none.
  const { shell, ...fresh } = newPlan();
  expect(first.document).toEqual({ ...fresh, shell: { ...shell, foot: { ...shell.foot, isFlanged: false } } });

  // The rates that the one member had set are the workshop's now; the rest stays the member's.
  expect(await get("/session")).toMatchObject({
    member: { name: "Ines" },
    settings: { units: "imperial", theme: "night", fineness: "quick", rates: { hourMinor: 5100, liftMin: 60 } },
  });
  const result = await fetch(`${server.api}/results/${"a".repeat(64)}`);
  expect(new Uint8Array(await result.arrayBuffer())).toEqual(Uint8Array.of(1, 2, 3, 4));
});
