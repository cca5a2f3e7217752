/** A whole server in its own process, for tests that kill it. */
import { type ChildProcess, spawn } from "node:child_process";
import { once } from "node:events";
import { freePort } from "../../scripts/launch/database.ts";

export interface RunningServer {
  readonly api: string;
  readonly process: ChildProcess;
  kill(signal: NodeJS.Signals): Promise<void>;
}

export async function runServer(databaseUrl: string, env: NodeJS.ProcessEnv = {}): Promise<RunningServer> {
  const port = await freePort();
  const child = spawn(process.execPath, ["--import", "tsx", "server/main.ts"], {
    env: {
      ...process.env,
      RIMEFELL_LOG: "silent",
      ...env,
      RIMEFELL_DATABASE_URL: databaseUrl,
      RIMEFELL_PORT: String(port),
    },
    stdio: ["ignore", "inherit", "inherit"],
  });
  const api = `http://127.0.0.1:${port}/api`;
  for (const until = Date.now() + 30_000; ; ) {
    const ok = await fetch(`${api}/health`).then(
      (answer) => answer.ok,
      () => false,
    );
    if (ok) break;
    if (child.exitCode !== null || Date.now() > until) throw new Error("The server under test did not start.");
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  return {
    api,
    process: child,
    async kill(signal) {
      if (child.exitCode !== null || child.signalCode !== null) return;
      const gone = once(child, "exit");
      child.kill(signal);
      await gone;
    },
  };
}
