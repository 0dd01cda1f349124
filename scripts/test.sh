#!/usr/bin/env bash
# The whole test suite: lint, types, unit, outside and browser tests. Ends with a line `N passed, N failed`.
set -uo pipefail
cd "$(dirname "$0")/.."
. scripts/setup.sh
need_modules && need_tools || exit 1

failed=0
step() {
  echo "== $1"
  shift
  "$@" || failed=1
}
step "format" npx prettier --check . --log-level warn
step "lint" npx eslint .
step "types" npm run check --silent
step "build" need_build
rm -f results.json
step "tests" npx vitest run --reporter=default --reporter=json --outputFile.json=results.json
node -e '
  const r = JSON.parse(require("node:fs").readFileSync("results.json", "utf8"));
  console.log(`${r.numPassedTests} passed, ${r.numFailedTests} failed`);
' || failed=1
rm -f results.json
exit $failed
