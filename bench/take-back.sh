#!/usr/bin/env bash
# Takes a plan of 20,000 folders back from a class, each looked at whether it is as the plan left it, beside the same rows
# deleted by the sqlite3 shell in one statement from a copy with the same indexes and its foreign keys on. Aim: at most 4 times.
set -euo pipefail
cd "$(dirname "$0")/.."
bench=bench/out/bench/SpringLoft.Bench
work=bench/out/take-back; rm -rf "$work"; mkdir -p "$work"
$bench make-school "$work/school" 1 0 0
first=$(sqlite3 "$work/school/spring-loft.db" "SELECT ifnull(max(id), 0) FROM folder")
read -r ours gone stay class cold <<< "$($bench take-back "$work/school" "$work/bare.db")"
[ "$stay" = 0 ] || { echo "$stay folders stayed"; exit 1; }
from=$(date +%s.%N)
sqlite3 "$work/bare.db" "PRAGMA synchronous=FULL; PRAGMA foreign_keys=ON; DELETE FROM folder WHERE class_id = $class AND id > $first;"
stock=$(echo "$(date +%s.%N) $from" | awk '{printf "%.2f", $1 - $2}')
[ "$(sqlite3 "$work/bare.db" "SELECT count(*) FROM folder WHERE class_id = $class")" = "$(sqlite3 "$work/school/spring-loft.db" "SELECT count(*) FROM folder WHERE class_id = $class")" ] || { echo "Not the same rows are gone"; exit 1; }
echo "take back: $gone folders $ours s (the first in a fresh process $cold s); deleted by the sqlite3 shell in one statement $stock s, ratio $(echo "$ours $stock" | awk '{printf "%.1f", $1 / $2}') (aim 4)"
rm -rf "$work"
