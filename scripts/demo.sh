#!/usr/bin/env bash
# Starts Retexa with the demo library and the stand-ins. `-- --reset` starts the demo library afresh.
set -euo pipefail
cd "$(dirname "$0")/.."
. scripts/setup.sh

need_modules
need_build

export RETEXA_DATA="${RETEXA_DATA:-.data/demo}"
export STANDINS_PORT="${STANDINS_PORT:-5181}"
export RETEXA_PORT="${RETEXA_PORT:-5180}"
export RETEXA_ALLOW_HOSTS="*.example=127.0.0.1:$STANDINS_PORT"
export RETEXA_DOI_REGISTRY="https://doi.example"
export RETEXA_BOOK_CATALOGUE="https://books.example/sru?version=1.1&operation=searchRetrieve&query=isbn%3D{isbn}&recordSchema=marcxml"
export RETEXA_PMID_LOOKUP="https://pubmed.example/{pmid}"
export RETEXA_WORK_SEARCH="https://works.example/works"
export RETEXA_HANDLE_RESOLVER="https://hdl.handle.example"
export STANDINS_MAIL_PORT="${STANDINS_MAIL_PORT:-5182}"
export RETEXA_SMTP="smtp://127.0.0.1:$STANDINS_MAIL_PORT"
export RETEXA_TRANSCRIBE="http://127.0.0.1:$STANDINS_PORT/transcribe"
export RETEXA_LOG="${RETEXA_LOG:-warn}"

[ "${1:-}" = "--reset" ] && rm -rf "$RETEXA_DATA"

npx tsx stand-ins/main.ts &
standins=$!
trap 'kill $standins 2>/dev/null || true' EXIT
for _ in $(seq 100); do
  if (exec 3<>"/dev/tcp/127.0.0.1/$STANDINS_PORT") 2>/dev/null; then break; fi
  sleep 0.1
done

npx tsx scripts/demo/build.ts
node scripts/start.mjs
