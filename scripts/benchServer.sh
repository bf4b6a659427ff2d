#!/usr/bin/env bash
# npm run bench:server: a full shop (20,000 orders, 450,000 entries) on a database of its own; prints what each route takes.
source "$(dirname "$0")/lib.sh"
need_node
need_postgres
need_packages
start_database bench "$(free_port)"
trap stop_database EXIT
trap 'exit 130' INT TERM
ZT_LOG=silent ZT_TEST_DATABASE_URL=$DB_URL node --expose-gc -r @swc-node/register bench/server.ts
