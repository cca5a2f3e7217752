/** Reads the configuration, migrates, listens. Nothing else. */
import { pino } from "pino";
import { createApp, KEEP_ALIVE_MS } from "./app.ts";
import { readConfig } from "./config.ts";
import { migrate, openDatabase } from "./db/database.ts";
import { clearAbandoned } from "./features/blobs.ts";
import { ensureWorkshop } from "./features/workshop.ts";

const config = readConfig(process.env);
const log = pino({ level: config.logLevel });
const sequelize = openDatabase(config.databaseUrl);
await migrate(sequelize);
await ensureWorkshop();
const { scanLimitBytes, webFolder, hosts } = config;
const app = createApp({ sequelize, log, scanLimitBytes, webFolder, hosts });
const clear = () => clearAbandoned().catch((error: unknown) => log.warn({ err: error }, "uploads were not cleared"));
await clear();
setInterval(clear, 3600_000).unref();
const server = app.listen(config.port, config.host);
server.requestTimeout = 30 * 60_000;
server.keepAliveTimeout = KEEP_ALIVE_MS;
server.on("error", (error: NodeJS.ErrnoException) => {
  const reason =
    error.code === "EADDRINUSE"
      ? `port ${config.port} is taken; set RIMEFELL_PORT to another`
      : error.code === "EACCES"
        ? `port ${config.port} needs rights this user lacks`
        : error.message;
  process.stderr.write(`Rimefell cannot listen on ${config.host}: ${reason}.\n`);
  process.exit(1);
});

async function stop(): Promise<void> {
  server.closeAllConnections();
  server.close();
  await sequelize.close();
  process.exit(0);
}
process.once("SIGTERM", stop);
process.once("SIGINT", stop);
