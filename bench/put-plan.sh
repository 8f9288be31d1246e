#!/usr/bin/env bash
# Puts a plan of 250 folders to 300 classes, beside the same rows inserted by the sqlite3 shell in one transaction into a
# table with the same indexes. Aim: at most 4 times.
set -euo pipefail
cd "$(dirname "$0")/.."
bench=bench/out/bench/SpringLoft.Bench
work=bench/out/put; rm -rf "$work"; mkdir -p "$work"
$bench make-school "$work/school" 300 0 0
cp "$work/school/spring-loft.db" "$work/bare.db"
read -r ours folders state <<< "$($bench put "$work/school")"
[ "$state" = Done ] || { echo "The run ended $state"; exit 1; }
before=$(sqlite3 "$work/bare.db" "SELECT max(id) FROM folder")
{ echo "PRAGMA synchronous=FULL; BEGIN;"; sqlite3 "$work/school/spring-loft.db" -cmd ".mode insert folder" "SELECT * FROM folder WHERE id > $before"; echo "COMMIT;"; } > "$work/rows.sql"
from=$(date +%s.%N); sqlite3 "$work/bare.db" < "$work/rows.sql"; stock=$(echo "$(date +%s.%N) $from" | awk '{printf "%.2f", $1 - $2}')
echo "put plan: $folders folders to 300 classes, decided, written and reported $ours s; the same rows by the sqlite3 shell in one transaction $stock s, ratio $(echo "$ours $stock" | awk '{printf "%.1f", $1 / $2}') (aim 4)"
rm -rf "$work"
