#!/usr/bin/env bash
# Everything CI checks, cheapest first; stops at the first that fails.
set -euo pipefail
bin=node_modules/.bin
step() { printf '\n== %s\n' "$1"; shift; "$@"; }
step "types of the core" $bin/tsc -p core --noEmit
step "types" $bin/tsc -p tsconfig.json --noEmit
step "lint" $bin/biome lint --error-on-warnings .
step "format" $bin/biome format .
step "dependency rules" node --import tsx scripts/checkDependencies.ts
step "unit" $bin/vitest run --project core --project unit --maxWorkers 2
step "API on MariaDB" $bin/vitest run --project api
step "browser" $bin/playwright test
