/** The whole application on a throw-away data folder, for the browser tests. */
import { spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";

const data = mkdtempSync(join(tmpdir(), "rimefell-e2e-"));
const child = spawn(process.execPath, ["--import", "tsx", "scripts/launch/start.ts", "start"], {
  stdio: "inherit",
  env: { ...process.env, RIMEFELL_DATA: data },
});
const stop = () => child.kill("SIGTERM");
process.on("SIGTERM", stop);
process.on("SIGINT", stop);
child.once("exit", (code) => {
  rmSync(data, { recursive: true, force: true });
  process.exit(code ?? 0);
});
