#!/usr/bin/env bash
# npm run kills [-- ROUNDS]: server, database and both are killed again and again while entries come in; prints a table.
source "$(dirname "$0")/lib.sh"
need_node
need_postgres
need_packages
PORT=$(free_port)
start_database kills "$PORT"
trap stop_database EXIT
trap 'exit 130' INT TERM
ZT_LOG=silent ZT_TEST_DATABASE_URL=$DB_URL ZT_KILL_DB="bash scripts/db.sh kill kills $PORT" ZT_START_DB="bash scripts/db.sh start kills $PORT" \
  node -r @swc-node/register bench/kills.ts "${1:-200}"
