#!/usr/bin/env bash
# npm run test:server [-- PATTERN] and npm run test:e2e [-- FILE …]: what needs a database, alone.
source "$(dirname "$0")/lib.sh"
need_node
need_postgres
need_packages
WHAT=$1
shift
start_database "some-$WHAT" "$(free_port)" -c fsync=off -c synchronous_commit=off >/dev/null
trap stop_database EXIT
trap 'exit 130' INT TERM
export ZT_TEST_DATABASE_URL=$DB_URL
if [ "$WHAT" = server ]; then npx jest --selectProjects server "$@"; else
  need_browser
  build_web
  npx playwright test "$@"
fi
