#!/usr/bin/env bash
# npm run backup [-- FILE]: everything of the shop (orders, entries, pictures, machines, catalogue, counts) in one archive.
source "$(dirname "$0")/lib.sh"
need_postgres
FILE=${1:-"zealous-tracer-$(date +%Y-%m-%d-%H%M%S).backup"}
case $FILE in /*) ;; *) FILE="$PWD/$FILE" ;; esac
[ ! -e "$FILE" ] || fail "$FILE is there already. Give another name; nothing was overwritten."
room_for "$(dirname "$FILE")"
start_database "${ZT_DB_NAME:-demo}" "$DB_PORT"
trap stop_database EXIT
# PostgreSQL's own format: one file, consistent at one moment, also while the server runs.
PART="$FILE.part"
trap 'rm -f "$PART"; stop_database' EXIT
"$(pg_bin)/pg_dump" --format=custom --no-owner --no-privileges --dbname="$DB_OWNER_URL" >"$PART" || fail 'The backup could not be made; see the lines above. Nothing was left behind.'
"$(pg_bin)/pg_restore" --list "$PART" >/dev/null || fail 'The backup could not be read back; nothing was left behind.'
mv "$PART" "$FILE"
say "backup: $FILE, $(du -h "$FILE" | cut -f1)"
