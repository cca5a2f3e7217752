/** `./run start`, `demo` and `dev`: database, build, server, and a clean end. */
import { type ChildProcess, execFileSync, spawn } from "node:child_process";
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { createServer } from "node:net";
import { dirname, join, resolve } from "node:path";
import { fileURLToPath } from "node:url";
import { buildWeb } from "./build.ts";
import { hasEnded, type PrivateDatabase, SetupProblem, startDatabase } from "./database.ts";

const root = join(dirname(fileURLToPath(import.meta.url)), "../..");
const mode = process.argv[2] ?? "start";
const dataFolder = resolve(process.env.RIMEFELL_DATA ?? join(root, "data"));
const port = process.env.RIMEFELL_PORT ?? "4870";
const host = process.env.RIMEFELL_HOST ?? "127.0.0.1";
/** What is run as the server; with the demo workshop it is made first, where there is none. */
const SERVERS = { plain: "server/main.ts", demo: "demo/serve.ts" } as const;
/** To make the demo workshop takes a minute or two, on a slow machine more. */
const HEALTHY_WITHIN_MS = mode === "demo" ? 20 * 60_000 : 60_000;
const children: ChildProcess[] = [];
let database: PrivateDatabase | null = null;
let stopping = false;

async function end(code: number): Promise<void> {
  if (stopping) return;
  stopping = true;
  for (const child of children) child.kill("SIGTERM");
  await Promise.all(
    children.map((child) => (hasEnded(child) ? null : new Promise((done) => child.once("exit", done)))),
  );
  await database?.stop();
  rmSync(join(dataFolder, "server.pid"), { force: true });
  process.exit(code);
}

function isFree(wanted: number, address: string): Promise<boolean> {
  return new Promise((resolve) => {
    const probe = createServer();
    probe.once("error", (error: NodeJS.ErrnoException) => resolve(error.code !== "EADDRINUSE"));
    probe.listen(wanted, address, () => probe.close(() => resolve(true)));
  });
}

/** A server of ours that outlived its launcher would hold the port. */
function stopLeftoverServer(): void {
  const file = join(dataFolder, "server.pid");
  if (!existsSync(file)) return;
  const pid = Number(readFileSync(file, "utf8"));
  const isOurs = () => {
    try {
      const command = readFileSync(`/proc/${pid}/cmdline`, "utf8");
      return Object.values(SERVERS).some((script) => command.includes(script));
    } catch {
      return false;
    }
  };
  if (!isOurs()) return;
  process.kill(pid, "SIGTERM");
  for (let k = 0; k < 50 && isOurs(); k++) execFileSync("sleep", ["0.1"]);
}

function node(script: string, env: NodeJS.ProcessEnv, args: string[] = []): ChildProcess {
  return spawn(process.execPath, ["--import", "tsx", join(root, script), ...args], {
    cwd: root,
    env,
    stdio: "inherit",
    detached: true,
  });
}

async function healthy(server: ChildProcess): Promise<void> {
  const until = Date.now() + HEALTHY_WITHIN_MS;
  while (Date.now() < until) {
    if (hasEnded(server)) throw new SetupProblem("The server stopped while starting; see its message above.");
    try {
      if ((await fetch(`http://${host}:${port}/api/health`)).ok) return;
    } catch {
      // Not listening yet.
    }
    await new Promise((resolve) => setTimeout(resolve, 60));
  }
  throw new SetupProblem("The server did not become healthy; see its messages above.");
}

async function main(): Promise<void> {
  mkdirSync(dataFolder, { recursive: true });
  stopLeftoverServer();
  if (!(await isFree(Number(port), host)))
    throw new SetupProblem(`Port ${port} is taken by another program; set RIMEFELL_PORT to another.`);
  if (!process.env.RIMEFELL_DATABASE_URL) database = await startDatabase(dataFolder);
  const env = {
    ...process.env,
    RIMEFELL_DATABASE_URL: process.env.RIMEFELL_DATABASE_URL ?? database?.url,
    RIMEFELL_PORT: port,
    RIMEFELL_HOST: host,
  };
  const server = node(SERVERS[mode === "demo" ? "demo" : "plain"], { ...env, RIMEFELL_WEB: join(root, "dist/web") });
  children.push(server);
  writeFileSync(join(dataFolder, "server.pid"), String(server.pid));
  if (mode !== "dev") buildWeb(root);
  await healthy(server);
  if (mode === "dev") {
    children.push(
      spawn(join(root, "node_modules/.bin/vite"), ["--host", host], {
        cwd: root,
        env,
        stdio: "inherit",
        detached: true,
      }),
    );
  } else process.stdout.write(`Rimefell is ready at http://${host}:${port}\nCtrl-C stops it.\n`);
  server.once("exit", (code) => {
    if (!stopping) void end(code ?? 1);
  });
  database?.process.once("exit", () => {
    if (stopping) return;
    process.stderr.write("The database stopped; Rimefell stops too. Start it again: nothing acknowledged is lost.\n");
    void end(1);
  });
}

/** What went wrong with a file or folder, and what to do about it. */
function inWords(error: NodeJS.ErrnoException): string {
  if (error.code === "EACCES" || error.code === "EPERM" || error.code === "EROFS")
    return `Rimefell may not write to ${error.path}. Give this user the right to, or set RIMEFELL_DATA to a folder of its own.`;
  if (error.code === "ENOSPC")
    return `The disk is full${error.path ? ` (${error.path})` : ""}. Make room, then start again: nothing acknowledged is lost.`;
  return error.message;
}

// A second Ctrl-C while stopping must not cut the stopping short.
process.on("SIGINT", () => void end(0));
process.on("SIGTERM", () => void end(0));
main().catch((error: unknown) => {
  const known = error instanceof SetupProblem || typeof (error as NodeJS.ErrnoException).code === "string";
  process.stderr.write(known ? `${inWords(error as NodeJS.ErrnoException)}\n` : `${(error as Error).stack}\n`);
  void end(1);
});
