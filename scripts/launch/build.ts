/** Builds the web application when its sources changed since the last build. */
import { execFileSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, readdirSync, readFileSync, renameSync, rmSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";

const SOURCES = ["web", "core", "contract", "vite.config.ts", "package-lock.json"];

/**
 * Leaves the current application in `dist/web`. It is built beside it and put there whole, since the server may be
 * answering already: nobody gets a page without the scripts it asks for.
 * @param root the project's folder
 */
export function buildWeb(root: string): void {
  const place = join(root, "dist", "web");
  const mark = join(place, ".sources");
  const now = fingerprint(root);
  if (existsSync(mark) && readFileSync(mark, "utf8") === now) return;
  const next = join(root, "dist", "web.next");
  process.stdout.write("Building the web application...\n");
  execFileSync(
    join(root, "node_modules/.bin/vite"),
    ["build", "--logLevel", "warn", "--outDir", next, "--emptyOutDir"],
    {
      cwd: root,
      stdio: ["ignore", "inherit", "inherit"],
    },
  );
  writeFileSync(join(next, ".sources"), now);
  rmSync(place, { recursive: true, force: true });
  renameSync(next, place);
}

function fingerprint(root: string): string {
  const hash = createHash("sha256");
  const visit = (path: string) => {
    const info = statSync(path);
    if (info.isDirectory()) for (const name of readdirSync(path).sort()) visit(join(path, name));
    else if (!path.endsWith(".test.ts")) hash.update(`${path}\0`).update(readFileSync(path));
  };
  for (const source of SOURCES) visit(join(root, source));
  return hash.digest("hex");
}
