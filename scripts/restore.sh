#!/usr/bin/env bash
# npm run restore -- FILE: puts a backup in place of what is there; what was there is kept as a backup of its own first.
source "$(dirname "$0")/lib.sh"
need_postgres
FILE=${1:-}
[ -n "$FILE" ] || fail 'Say which file: npm run restore -- FILE'
[ -r "$FILE" ] || fail "$FILE cannot be read."
"$(pg_bin)/pg_restore" --list "$FILE" >/dev/null 2>&1 || fail "$FILE is no backup of this application, or it is damaged. Nothing was changed."
start_database "${ZT_DB_NAME:-demo}" "$DB_PORT"
trap stop_database EXIT
ADMIN=${DB_OWNER_URL%/zealous}/postgres
sql() { "$(pg_bin)/psql" -q -v ON_ERROR_STOP=1 -d "$ADMIN" -tAc "$1"; }
[ "$(sql "select count(*) from pg_stat_activity where datname = 'zealous'")" = 0 ] || fail 'The server is running. Stop it first (Ctrl-C where it was started), then restore.'
# Into a new database first: a backup that breaks off changes nothing.
sql 'drop database if exists zealous_restored' && sql 'create database zealous_restored'
"$(pg_bin)/pg_restore" --no-owner --no-privileges --exit-on-error --dbname="${DB_OWNER_URL%/zealous}/zealous_restored" "$FILE" || fail 'The backup could not be put in place; what was there is untouched.'
BEFORE="zealous_before_$(date +%Y%m%d%H%M%S)"
sql "alter database zealous rename to $BEFORE" && sql 'alter database zealous_restored rename to zealous'
say "restored from $FILE; what was there before is kept in the database $BEFORE"
