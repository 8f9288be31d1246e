#!/usr/bin/env bash
# Takes in a tree of 2,000 files and 500 MB, beside `cp -r` and `sha256sum` of the same tree. Ours is on the disk when it
# returns, so the copy is flushed too; without that the stock time is told as well. Aim: at most 1.5 times, memory flat.
set -euo pipefail
cd "$(dirname "$0")/.."
bench=bench/out/bench/SpringLoft.Bench
work=bench/out/tree; rm -rf "$work"; mkdir -p "$work/tree"
for d in $(seq -w 100); do mkdir -p "$work/tree/Unit $d/Papers"; for f in $(seq -w 20); do head -c 262144 /dev/urandom > "$work/tree/Unit $d/Papers/paper $f.bin"; done; done
mkdir -p "$work/small"; cp -r "$work/tree/Unit 001" "$work/tree/Unit 002" "$work/small"
sync
seconds() { local from; from=$(date +%s.%N); "$@" > /dev/null; echo "$(date +%s.%N) $from" | awk '{printf "%.2f", $1 - $2}'; }
bare() { cp -r "$work/tree" "$work/copy"; (cd "$work/copy" && find . -type f -print0 | xargs -0 sha256sum); }
flushed() { bare; sync -f "$work/copy"; }
best=999; tool=999; quick=999; memory=0
for n in 1 2 3; do
  t=$(seconds flushed); rm -rf "$work/copy"; sync; q=$(seconds bare); rm -rf "$work/copy"; sync
  read -r s mb files <<< "$($bench tree "$work/school-$n" "$work/tree")"
  [ "$files" = 2000 ] || { echo "$files files came"; exit 1; }
  rm -rf "$work/school-$n"; sync
  echo "Spring Loft $s s, peak $mb MB; cp -r, sha256sum and sync $t s; without sync $q s"
  best=$(echo "$s $best" | awk '{print ($1 < $2) ? $1 : $2}'); tool=$(echo "$t $tool" | awk '{print ($1 < $2) ? $1 : $2}')
  quick=$(echo "$q $quick" | awk '{print ($1 < $2) ? $1 : $2}'); memory=$(echo "$mb $memory" | awk '{print ($1 > $2) ? $1 : $2}')
done
read -r _ small _ <<< "$($bench tree "$work/school-small" "$work/small")"
echo "tree: 2,000 files, 500 MB in $best s; cp -r, sha256sum and sync $tool s, ratio $(echo "$best $tool" | awk '{printf "%.2f", $1 / $2}') (aim 1.5); without sync $quick s, $(echo "$best $quick" | awk '{printf "%.2f", $1 / $2}'); peak memory $memory MB against $small MB for 40 files of 10 MB"
rm -rf "$work"
