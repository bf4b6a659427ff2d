#!/usr/bin/env bash
# npm run dev [-- --reset]: the page with fast refresh, a server that starts anew when its code changes, and a database that is kept.
source "$(dirname "$0")/lib.sh"
need_node
need_postgres
need_packages
if [ "${1:-}" = --reset ]; then
  DIR=$(data_folder dev)
  as_pg "$(pg_bin)/pg_ctl" -D "$DIR" -m fast -w stop >/dev/null 2>&1 || true
  rm -rf "$DIR"
elif [ -n "${1:-}" ]; then fail "\"$1\" is not known. Use: npm run dev [-- --reset]"; fi
PORT_DB=${ZT_DB_PORT:-$(free_port)}
start_database dev "$PORT_DB" -c fsync=off
trap 'trap - EXIT INT TERM; kill $(jobs -p) 2>/dev/null || true; wait || true; stop_database' EXIT INT TERM
program_user "$PORT_DB"
API=$(free_port)
BUNDLER=$(free_port)
STANDIN=$(free_port)
node -r @swc-node/register apps/server/src/link/standInMain.ts demo/machines "$STANDIN" &
ZT_STANDIN=tcp://127.0.0.1:$STANDIN ZT_OWNER_URL=$DB_OWNER_URL ZT_DATABASE_URL=$DB_URL ZT_DEMO=demo ZT_PORT=$API \
  node --watch --watch-preserve-output -r @swc-node/register apps/server/src/main.ts &
(cd apps/client && CI=0 npx expo start --web --port "$BUNDLER" --host localhost) </dev/null &
ZT_PORT=${ZT_PORT:-4722} ZT_DEV_API=http://127.0.0.1:$API ZT_DEV_BUNDLER=http://localhost:$BUNDLER \
  node -r @swc-node/register scripts/devFront.ts &
say 'the first page takes a minute to bundle, every later change a second; Ctrl-C stops everything, the data is kept'
wait -n
