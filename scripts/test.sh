#!/usr/bin/env bash
# The whole test suite: lint, types, unit, outside and browser tests. Ends with a line `N passed, N failed`.
set -uo pipefail
cd "$(dirname "$0")/.."
. scripts/setup.sh
# What is fetched from Debian comes beside the packages, of which one is compiled.
need_modules &
modules=$!
need_tools || {
  kill $modules
  exit 1
}
left_out=()
need_outside
outside=$?
wait $modules || exit 1
if [ $outside -ne 0 ]; then
  [ -n "${CI:-}" ] && exit 1
  echo "Left out: the CSL test suite, and the example files of BibTeX and biblatex." >&2
  left_out=(--exclude tests/outside/csl-suite.test.ts --exclude tests/outside/bib.test.ts)
fi
if ! command -v soffice >/dev/null; then
  echo "Left out: what LibreOffice reads in our .docx and .odt, since it is not installed." >&2
  left_out+=(--exclude tests/outside/office.test.ts)
fi

# What is tested asks nothing of the outside world. Certificates of the machine are read anew by every process of Node that
# starts, and the tests start many.
unset NODE_EXTRA_CA_CERTS

failed=0
step() {
  echo "== $1"
  shift
  "$@" || failed=1
}
# What reads the sources alone goes on beside the build, and is printed when that is through.
npx svelte-kit sync
(
  failed=0
  step "format" npx prettier --check . --log-level warn
  step "lint" npx eslint .
  exit $failed
) >lint.log 2>&1 &
linting=$!
step "types" npm run check --silent
step "build" need_build
wait $linting || failed=1
cat lint.log
rm -f lint.log
# Browser tests come last: on two cores nothing else should run beside them.
rm -f results-*.json
step "unit and outside tests" npx vitest run --project unit --project outside --maxWorkers=2 "${left_out[@]}" --reporter=default --reporter=json --outputFile.json=results-1.json
step "browser tests" npx vitest run --project browser --reporter=default --reporter=json --outputFile.json=results-2.json
node -e '
  const read = (n) => JSON.parse(require("node:fs").readFileSync(`results-${n}.json`, "utf8"));
  const sum = (key) => read(1)[key] + read(2)[key];
  // What failed is said once more at the end, where it is seen.
  for (const n of [1, 2])
    for (const file of read(n).testResults) {
      if (file.status === "failed" && file.message) console.log(`FAILED ${file.name}: ${file.message}`);
      for (const test of file.assertionResults.filter((t) => t.status === "failed"))
        console.log(`FAILED ${file.name} > ${test.fullName}\n${test.failureMessages.join("\n").slice(0, 2000)}`);
    }
  console.log(`${sum("numPassedTests")} passed, ${sum("numFailedTests")} failed`);
' || failed=1
rm -f results-*.json
exit $failed
