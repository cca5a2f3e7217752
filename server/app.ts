import { existsSync } from "node:fs";
import { join, resolve } from "node:path";
import express, { type Express } from "express";
import helmet from "helmet";
import type { Logger } from "pino";
import { QueryTypes, type Sequelize } from "sequelize";
import { PLAN_LIMIT_BYTES } from "../contract/pieces.ts";
import { buildRoutes } from "./features/builds/routes.ts";
import { pieceRoutes } from "./features/pieces/routes.ts";
import { planRoutes } from "./features/plans/routes.ts";
import { RESULTS_LIMIT_BYTES } from "./features/results/cache.ts";
import { partResultRoutes, resultRoutes } from "./features/results/routes.ts";
import { scanRoutes } from "./features/scans/routes.ts";
import { settingsRoutes } from "./features/settings/routes.ts";
import { storeRoutes } from "./features/store/routes.ts";
import { sheetRoutes } from "./features/store/sheets.ts";
import { answerErrors, notFound } from "./middleware/errors.ts";
import { knownHosts } from "./middleware/knownHosts.ts";
import { actAsFirstMember } from "./middleware/member.ts";
import { sameOriginWrites } from "./middleware/sameOrigin.ts";

export interface Dependencies {
  readonly sequelize: Sequelize;
  readonly log: Logger;
  readonly scanLimitBytes: number;
  /** Folder of the built web application, or null for the API alone. */
  readonly webFolder: string | null;
  /** Host names it answers to beside addresses and localhost. */
  readonly hosts?: readonly string[];
  /** All results of a workshop together may take so much room, bytes. */
  readonly resultsLimitBytes?: number;
}

/** A connection that nothing goes over is kept so long: a page, or a client, that asks again at its end is cut off. */
export const KEEP_ALIVE_MS = 75_000;

/** The whole server, listening nowhere yet. */
export function createApp({
  sequelize,
  log,
  scanLimitBytes,
  webFolder,
  hosts = [],
  resultsLimitBytes = RESULTS_LIMIT_BYTES,
}: Dependencies): Express {
  const app = express();
  app.disable("x-powered-by");
  app.use(securityHeaders());
  app.use(knownHosts(hosts));
  app.get("/api/health", async (_request, response) => {
    await sequelize.query("SELECT 1", { type: QueryTypes.SELECT });
    response.json({ ok: true });
  });
  app.use("/api", sameOriginWrites, actAsFirstMember);
  app.use("/api/scans", scanRoutes(sequelize, scanLimitBytes));
  app.use("/api/results", resultRoutes());
  app.use("/api/pieces/:id/parts/:partId/results", partResultRoutes(sequelize, resultsLimitBytes));
  app.use("/api/store/sheets", sheetRoutes(sequelize));
  app.use("/api", express.json({ limit: PLAN_LIMIT_BYTES }));
  app.use("/api/session", settingsRoutes());
  app.use("/api/store", storeRoutes());
  app.use("/api/pieces/:id/parts/:partId/builds", buildRoutes(sequelize));
  app.use("/api/pieces/:id/parts/:partId", planRoutes(sequelize, log));
  app.use("/api/pieces", pieceRoutes(sequelize));
  app.use("/api", notFound);
  if (webFolder) serveWeb(app, resolve(webFolder));
  app.use(answerErrors(log));
  return app;
}

function securityHeaders() {
  return helmet({
    contentSecurityPolicy: {
      directives: {
        defaultSrc: ["'self'"],
        // Mesh simplification is WebAssembly; the workers are our own files.
        scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
        workerSrc: ["'self'", "blob:"],
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", "data:", "blob:"],
        connectSrc: ["'self'", "data:", "blob:"],
        fontSrc: ["'self'", "data:"],
        objectSrc: ["'none'"],
        upgradeInsecureRequests: null,
      },
    },
    crossOriginOpenerPolicy: { policy: "same-origin" },
    crossOriginEmbedderPolicy: { policy: "require-corp" },
    crossOriginResourcePolicy: { policy: "same-origin" },
    strictTransportSecurity: false,
  });
}

function serveWeb(app: Express, folder: string): void {
  app.use("/assets", express.static(join(folder, "assets"), { immutable: true, maxAge: "1y", fallthrough: false }));
  app.use(express.static(folder, { index: false }));
  const page = join(folder, "index.html");
  app.use((request, response, next) => {
    if (request.method !== "GET" || !existsSync(page)) {
      next();
      return;
    }
    response.setHeader("cache-control", "no-cache");
    response.sendFile(page);
  });
}
