#!/usr/bin/env bash
# db.sh kill|start NAME PORT: ends a private cluster as a power cut would, or starts it again. For tests of what survives.
source "$(dirname "$0")/lib.sh"
DB_DIR=$(data_folder "$2")
case $1 in
  kill)
    PID=$(as_pg head -1 "$DB_DIR/postmaster.pid")
    pkill -KILL -P "$PID" 2>/dev/null || true
    kill -KILL "$PID" 2>/dev/null || true
    while kill -0 "$PID" 2>/dev/null; do sleep 0.05; done
    ;;
  start)
    # Children of a killed postmaster end by themselves; until then the memory is theirs.
    for _ in $(seq 100); do
      as_pg "$(pg_bin)/pg_ctl" -D "$DB_DIR" -w -t 30 -l "$DB_DIR/server.log" \
        -o "-p $3 -c listen_addresses=127.0.0.1 -c unix_socket_directories=$DB_DIR" start >/dev/null 2>&1 && exit 0
      sleep 0.2
    done
    fail "The database did not start again; see $DB_DIR/server.log."
    ;;
  *) fail 'Use: db.sh kill|start NAME PORT' ;;
esac
