#!/usr/bin/env bash
# npm test: the same set-up as the demo with a database of its own, then every check.
source "$(dirname "$0")/lib.sh"
need_node
need_postgres
need_browser
need_packages
start_database test "${ZT_TEST_DB_PORT:-$(free_port)}" -c fsync=off -c synchronous_commit=off
trap stop_database EXIT
trap 'exit 130' INT TERM
export ZT_TEST_DATABASE_URL=$DB_URL
run() {
  local name=$1
  shift
  local began=$SECONDS
  say "$name"
  "$@" || fail "$name: not in order (see above)"
  say "$name: in order, $((SECONDS - began)) s"
}
# What only reads runs side by side: one of them leaves a core idle.
(run lint npm run --silent lint) &
lint=$!
run formatting npx prettier --check .
run 'import rules' npm run --silent imports
run types npm run --silent types
wait "$lint"
run 'unit and server tests' npx jest
# Killing and starting again is mostly waiting: the web app is built beside it.
(build_web) &
web=$!
run 'backup and restore' bash scripts/testBackup.sh
run 'kills: nothing acknowledged is lost' bash scripts/kills.sh 21
wait "$web" || fail 'the web app did not build (see above)'
run 'Playwright tests' npx playwright test
