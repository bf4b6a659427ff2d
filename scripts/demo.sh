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
start_database demo "$DB_PORT"
trap stop_database EXIT
trap 'exit 130' INT TERM
build_web
program_user "$DB_PORT"
room_for "$(dirname "$DB_DIR")"
say 'migrating, loading demo data where there is none, and serving; Ctrl-C stops server and database'
# Simulated printers for machines on the line, in one process on loopback.
STANDIN_PORT=$(free_port)
node -r @swc-node/register apps/server/src/link/standInMain.ts demo/machines "$STANDIN_PORT" &
STANDIN=$!
export ZT_STANDIN=tcp://127.0.0.1:$STANDIN_PORT
SERVER=''
STOP=0
# Ctrl-C reaches all of them at once: one that has ended already must not keep the database running.
trap 'kill $STANDIN 2>/dev/null || true; stop_database' EXIT
trap 'STOP=1; kill -TERM $SERVER 2>/dev/null || true; wait $SERVER 2>/dev/null || true; exit 130' INT TERM
# A server that ends by itself is started again, a little later each time; 78 says that it would not help.
PAUSE=1
while :; do
  BEGAN=$SECONDS
  # Few arenas, and large pieces given back at once: pictures that come and go would otherwise leave the memory in pieces.
  MALLOC_ARENA_MAX=2 MALLOC_MMAP_THRESHOLD_=65536 MALLOC_TRIM_THRESHOLD_=131072 ZT_OWNER_URL=$DB_OWNER_URL ZT_DATABASE_URL=$DB_URL ZT_DEMO=demo ZT_WEB=apps/client/dist node --max-semi-space-size=8 -r @swc-node/register apps/server/src/main.ts &
  SERVER=$!
  CODE=0
  wait $SERVER || CODE=$?
  [ "$STOP" = 1 ] || [ "$CODE" = 78 ] || [ "$CODE" = 0 ] && exit "$CODE"
  # The database may have gone with it.
  as_pg "$(pg_bin)/pg_ctl" -D "$DB_DIR" status >/dev/null 2>&1 || {
    room_for "$(dirname "$DB_DIR")"
    say 'the database has ended; starting it again'
    start_database demo "$DB_PORT"
    program_user "$DB_PORT"
  }
  [ $((SECONDS - BEGAN)) -gt 60 ] && PAUSE=1
  say "the server ended (code $CODE); starting it again in $PAUSE s"
  sleep "$PAUSE"
  PAUSE=$((PAUSE < 30 ? PAUSE * 2 : 30))
done
