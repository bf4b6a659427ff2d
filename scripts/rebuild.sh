#!/usr/bin/env bash
# npm run rebuild: works out anew what lists show of every order in the demo's database.
source "$(dirname "$0")/lib.sh"
need_node
need_postgres
need_packages
start_database demo "$DB_PORT"
trap stop_database EXIT
ZT_DATABASE_URL=$DB_URL node -r @swc-node/register apps/server/src/rebuild.ts
