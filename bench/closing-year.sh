#!/usr/bin/env bash
# Closes a whole school in one run, beside `zip -0 -r` and `sha512sum` over the same files; then for fewer classes, to see
# whether the time is a straight line; then rolls the school over, beside the same rows inserted by the sqlite3 shell.
#  - 500 classes, 20,000 files, 2 GB, 100,000 pieces of work: at most 1.5 times, peak memory under 400 MB
#  - roll over of the same 500: at most 4 times
set -euo pipefail
cd "$(dirname "$0")/.."
bench=bench/out/bench/SpringLoft.Bench
work=bench/out/year; rm -rf "$work"; mkdir -p "$work"
per() { echo "$1 $2" | awk '{printf "%.2f", $1 / $2}'; }
seconds() { local from; from=$(date +%s.%N); "$@" > /dev/null; echo "$(date +%s.%N) $from" | awk '{printf "%.2f", $1 - $2}'; }
stock() { (cd "$work/school/files" && zip -0 -q -r ../../stock.zip . && find . -type f -print0 | xargs -0 sha512sum) > /dev/null; sync "$work/stock.zip"; rm -f "$work/stock.zip"; }
line=""
for n in 50 100 200 500; do
  rm -rf "$work/school"; $bench make-year "$work/school" "$n" $((n * 40)) 100 $((n * 200)); sync
  tool=$(seconds stock)
  if [ "$n" = 500 ]; then cp "$work/school/spring-loft.db" "$work/open.db"; fi
  read -r s mb verified all <<< "$($bench close-year "$work/school")"
  [ "$verified" = "$all" ] || { echo "Only $verified of $all classes are verified"; exit 1; }
  echo "closing $n classes, $((n * 40)) files, $((n * 4)) MB, $((n * 200)) pieces of work: $s s, peak $mb MB; zip -0 -r and sha512sum of the same files $tool s: $(per "$s" "$tool") times"
  line="$line $n:$(echo "$s $n" | awk '{printf "%.1f", 1000 * $1 / $2}')"
done
echo "milliseconds a class:$line (aim: a straight line)"
# A bar for each, as long as the run took: the ends lie on a straight line through nothing if each class costs the same.
for point in $line; do
  n=${point%%:*}; total=$(echo "${point##*:} $n" | awk '{printf "%.0f", $1 * $2 / 1000}')
  printf '%4d classes |%s %s s\n' "$n" "$(printf '#%.0s' $(seq $((total > 0 ? total : 1))))" "$total"
done
echo "closing 500 classes: $(per "$s" "$tool") times (aim 1.5), peak memory $mb MB (aim 400)"
rm -rf "$work/school/spring-loft.db"*; cp "$work/open.db" "$work/school/spring-loft.db"
read -r ours made shown <<< "$($bench roll-year "$work/school")"
[ "$made" = 500 ] || { echo "Only $made classes are made, or a difference has no reason"; exit 1; }
{ echo "PRAGMA synchronous=FULL; BEGIN;"
  for t in class member folder item filing assignment assignment_filing class_group; do
    case $t in
      class) where="rolled_from IS NOT NULL";;
      filing) where="item_id IN (SELECT id FROM item WHERE class_id IN (SELECT id FROM class WHERE rolled_from IS NOT NULL))";;
      assignment_filing) where="assignment_id IN (SELECT id FROM assignment WHERE class_id IN (SELECT id FROM class WHERE rolled_from IS NOT NULL))";;
      *) where="class_id IN (SELECT id FROM class WHERE rolled_from IS NOT NULL)";;
    esac
    sqlite3 "$work/school/spring-loft.db" -cmd ".mode insert $t" "SELECT * FROM $t WHERE $where"
  done; echo "COMMIT;"; } > "$work/rows.sql"
bare=$(seconds sqlite3 "$work/open.db" < "$work/rows.sql")
echo "roll over 500 classes: $(grep -c '^INSERT' "$work/rows.sql") rows, decided, written and compared $ours s (shown before in $shown s, as on the desk); the same rows by the sqlite3 shell in one transaction $bare s: $(per "$ours" "$bare") times (aim 4)"
rm -rf "$work"
