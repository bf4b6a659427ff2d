#!/usr/bin/env bash
# npm run demo [-- --reset]: everything from a fresh clone to the running demo.
source "$(dirname "$0")/lib.sh"
RESET=0
for word in "$@"; do
  case $word in
    --reset) RESET=1 ;;
    *) fail "\"$word\" is not known. Use: npm run demo [-- --reset]" ;;
  esac
done
need_node
need_postgres
need_packages
if [ "$RESET" = 1 ]; then
  DIR=$(data_folder demo)
  if [ -d "$DIR" ]; then
    say 'removing the demo data to begin again'
    as_pg "$(pg_bin)/pg_ctl" -D "$DIR" -m fast -w stop >/dev/null 2>&1 || true
    rm -rf "$DIR"
  fi
fi
start_database demo "${ZT_DB_PORT:-54720}"
trap stop_database EXIT
trap 'exit 130' INT TERM
build_web
say 'migrating, loading demo data where there is none, and serving; Ctrl-C stops server and database'
ZT_DATABASE_URL=$DB_URL ZT_DEMO=demo ZT_WEB=apps/client/dist node -r @swc-node/register apps/server/src/main.ts &
SERVER=$!
trap 'kill -TERM $SERVER 2>/dev/null; wait $SERVER 2>/dev/null; exit 130' INT TERM
wait $SERVER
