#!/usr/bin/env bash
# Everything CI checks, cheapest first; stops at the first that fails. The API's tests, which mostly wait for the database, run
# beside the checks of the text and the first of the unit tests; what they said is shown once they have ended.
set -euo pipefail
bin=node_modules/.bin
step() { printf '\n== %s\n' "$1"; shift; "$@"; }
log=$(mktemp)
$bin/vitest run --project api >"$log" 2>&1 &
api=$!
trap 'kill "$api" 2>/dev/null || true; rm -f "$log"' EXIT
shown() {
  local code=0
  wait "$api" || code=$?
  cat "$log"
  return "$code"
}
step "types of the core" $bin/tsc -p core --noEmit
step "types" $bin/tsc -p tsconfig.json --noEmit
step "lint" $bin/biome lint --error-on-warnings .
step "format" $bin/biome format .
step "dependency rules" node --import tsx scripts/checkDependencies.ts
step "unit" $bin/vitest run --project core --project unit --maxWorkers 2
step "API on MariaDB" shown
step "browser" $bin/playwright test
