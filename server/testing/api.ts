/** The whole server on a free port over the tests' database, and how tests talk to it. */
import { once } from "node:events";
import { type Logger, pino } from "pino";
import { QueryTypes, type Sequelize } from "sequelize";
import { type Piece, partPath } from "../../contract/pieces.ts";
import { writeStl } from "../../core/export/stl.ts";
import { newPlan, type PlanDocument } from "../../core/plan/document/document.ts";
import { sphere } from "../../core/testing/shapes.ts";
import { createApp, type Dependencies, KEEP_ALIVE_MS } from "../app.ts";
import { migrate, openDatabase } from "../db/database.ts";
import { ensureWorkshop } from "../features/workshop.ts";

export const SCAN_LIMIT_BYTES = 3 * 1024 * 1024;
export const scanBytes = writeStl(sphere(100, 24));

export interface TestApi {
  readonly base: string;
  readonly port: number;
  readonly sequelize: Sequelize;
  /** What the server logged as errors. */
  readonly errors: string[];
  send(method: string, path: string, body: unknown, headers?: Record<string, string>): Promise<Response>;
  get<T>(path: string): Promise<T>;
  upload(bytes?: Uint8Array, name?: string): Promise<Response>;
  newPiece(name?: string, document?: PlanDocument): Promise<{ piece: Piece; path: string; partId: string }>;
  rows<T extends object>(sql: string, replacements?: readonly unknown[]): Promise<T[]>;
  count(table: string): Promise<number>;
  close(): Promise<void>;
}

export async function startApi(more: Partial<Dependencies> = {}): Promise<TestApi> {
  const sequelize = openDatabase(process.env.RIMEFELL_DATABASE_URL ?? "");
  await migrate(sequelize);
  await ensureWorkshop("Test shop", "Tester");
  const errors: string[] = [];
  const log: Logger = pino({ level: "error" }, { write: (line: string) => void errors.push(line) });
  const app = createApp({ sequelize, log, scanLimitBytes: SCAN_LIMIT_BYTES, webFolder: null, ...more });
  const server = app.listen(0, "127.0.0.1");
  server.keepAliveTimeout = KEEP_ALIVE_MS;
  await once(server, "listening");
  const address = server.address();
  const port = typeof address === "object" && address ? address.port : 0;
  const base = `http://127.0.0.1:${port}/api`;
  const send: TestApi["send"] = (method, path, body, headers = {}) =>
    fetch(base + path, {
      method,
      headers: { "content-type": "application/json", ...headers },
      body: JSON.stringify(body),
    });
  const upload: TestApi["upload"] = (bytes = scanBytes, name = "ball.stl") =>
    fetch(`${base}/scans?name=${name}`, {
      method: "POST",
      headers: { "content-type": "application/octet-stream" },
      body: bytes as Uint8Array<ArrayBuffer>,
    });
  const rows = async <T extends object>(sql: string, replacements: readonly unknown[] = []): Promise<T[]> =>
    sequelize.query<T>(sql, { type: QueryTypes.SELECT, replacements: [...replacements] });
  return {
    ...{ base, port, sequelize, errors, send, upload, rows },
    get: async <T>(path: string) => (await fetch(base + path)).json() as Promise<T>,
    async newPiece(name = "Ball", document = newPlan()) {
      const scan = (await (await upload()).json()) as { id: string };
      const piece = (await (await send("POST", "/pieces", { name, scanId: scan.id, document })).json()) as Piece;
      const partId = piece.parts[0].id;
      return { piece, partId, path: partPath(piece.id, partId) };
    },
    count: async (table) => Number((await rows<{ n: number }>(`SELECT COUNT(*) AS n FROM ${table}`))[0].n),
    async close() {
      server.closeAllConnections();
      server.close();
      await sequelize.close();
    },
  };
}
