#!/usr/bin/env bash
# Packs, verifies and archives a class of 1,000 files and 200 MB, beside `zip -0 -r` and `sha512sum` of the same files.
# Aim: at most 1.5 times, peak memory under 300 MB.
set -euo pipefail
cd "$(dirname "$0")/.."
bench=bench/out/bench/SpringLoft.Bench
work=bench/out/packaging; rm -rf "$work"; mkdir -p "$work/files"
for i in $(seq -w 1000); do head -c 204800 /dev/urandom > "$work/files/file $i.bin"; done
$bench make-class "$work/school" "$work/files"
cp -r "$work/school" "$work/school-2"; cp -r "$work/school" "$work/school-3"
sync
seconds() { local from; from=$(date +%s.%N); "$@" > /dev/null; echo "$(date +%s.%N) $from" | awk '{printf "%.2f", $1 - $2}'; }
stock() { (cd "$work/files" && zip -0 -q -r ../stock.zip . && sha512sum -- *) > /dev/null; sync "$work/stock.zip"; rm -f "$work/stock.zip"; }
best=999; tool=999; memory=0
for school in school school-2 school-3; do
  t=$(seconds stock); tool=$(echo "$t $tool" | awk '{print ($1 < $2) ? $1 : $2}')
  read -r s mb state <<< "$($bench close "$work/$school")"
  [ "$state" = Done ] || { echo "The run ended $state"; exit 1; }
  echo "Spring Loft $s s, peak $mb MB; zip -0 -r and sha512sum $t s"
  best=$(echo "$s $best" | awk '{print ($1 < $2) ? $1 : $2}'); memory=$(echo "$mb $memory" | awk '{print ($1 > $2) ? $1 : $2}')
done
echo "packaging: pack + read back + archive $best s, stock tools $tool s, ratio $(echo "$best $tool" | awk '{printf "%.2f", $1 / $2}') (aim 1.5), peak memory $memory MB (aim 300)"
rm -rf "$work"
