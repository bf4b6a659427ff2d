#!/usr/bin/env bash
# A shop is backed up, its whole cluster destroyed, and everything is there again after the restore; a broken file changes nothing.
source "$(dirname "$0")/lib.sh"
export ZT_DB_NAME=backup ZT_DB_PORT
ZT_DB_PORT=$(free_port)
DIR=$(data_folder backup)
FILE=$ROOT/.build/test.backup
gone() {
  if [ -d "$DIR" ]; then as_pg "$(pg_bin)/pg_ctl" -D "$DIR" -m immediate -w stop >/dev/null 2>&1 || true; fi
  rm -rf "$DIR"
}
trap 'gone || true; rm -f "$FILE" "$FILE.broken" .build/before.txt .build/after.txt' EXIT
contents() {
  start_database backup "$ZT_DB_PORT" >/dev/null
  ZT_DATABASE_URL=$DB_URL node -r @swc-node/register apps/server/src/contents.ts "$@"
  stop_database
}
gone || true
rm -f "$FILE"
contents fill >.build/before.txt
bash scripts/backup.sh "$FILE" >/dev/null
gone
head -c 2000 "$FILE" >"$FILE.broken"
if bash scripts/restore.sh "$FILE.broken" >/dev/null 2>&1; then fail 'A broken backup was taken.'; fi
# Beneath a server at work nothing is restored.
start_database backup "$ZT_DB_PORT" >/dev/null
"$(pg_bin)/psql" -q -d "$DB_OWNER_URL" -c 'select pg_sleep(30)' >/dev/null 2>&1 &
BUSY=$!
until [ "$("$(pg_bin)/psql" -d "${DB_OWNER_URL%/zealous}/postgres" -tAc "select count(*) from pg_stat_activity where datname = 'zealous'")" = 1 ]; do sleep 0.1; done
if bash scripts/restore.sh "$FILE" >/dev/null 2>&1; then fail 'A backup was put in place beneath a server at work.'; fi
kill "$BUSY" 2>/dev/null || true
stop_database
bash scripts/restore.sh "$FILE" >/dev/null
contents sum >.build/after.txt
diff .build/before.txt .build/after.txt || fail 'What was restored is not what was backed up (see above).'
say "restored after the cluster was destroyed: $(wc -l <.build/after.txt) tables the same"
