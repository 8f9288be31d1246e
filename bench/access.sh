#!/usr/bin/env bash
# Decides the rights of 40 people in each of 600 folders. There is no stock tool for it: the time a pair is told.
set -euo pipefail
cd "$(dirname "$0")/.."
work=bench/out/access; rm -rf "$work"; mkdir -p "$work"
read -r us seen <<< "$(bench/out/bench/SpringLoft.Bench access "$work")"
echo "access: 40 people x 600 folders, $us microseconds a pair, each with the steps that led to it ($seen of 24,000 pairs see)"
rm -rf "$work"
