#!/usr/bin/env bash
# npm run bench:page: what the page costs on a slow phone over a slow line; prints a table.
source "$(dirname "$0")/lib.sh"
need_node
need_postgres
need_browser
need_packages
start_database bench-page "$(free_port)" -c fsync=off >/dev/null
trap stop_database EXIT
trap 'exit 130' INT TERM
build_web
ZT_LOG=silent ZT_TEST_DATABASE_URL=$DB_URL node -r @swc-node/register bench/page.ts
