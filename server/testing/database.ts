/** One throw-away MariaDB for the API tests; its address goes to the tests through the environment. */
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { startDatabase } from "../../scripts/launch/database.ts";

export default async function setup(): Promise<() => Promise<void>> {
  const folder = mkdtempSync(join(tmpdir(), "rimefell-test-"));
  const database = await startDatabase(folder);
  process.env.RIMEFELL_DATABASE_URL = database.url;
  return async () => {
    await database.stop();
    rmSync(folder, { recursive: true, force: true });
  };
}
