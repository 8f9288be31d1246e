#!/usr/bin/env bash
# Every measurement, each beside the stock tool it is held against.
set -euo pipefail
cd "$(dirname "$0")/.."
command -v wrk > /dev/null || { apt-get update -qq && DEBIAN_FRONTEND=noninteractive apt-get install -y -qq wrk; }
dotnet publish bench/SpringLoft.Bench -c Release -o bench/out/bench --nologo -v quiet
for b in packaging put-plan take-back year-board today past together access tree sign-in deliveries closing-year first-screen; do echo "== $b"; bash "bench/$b.sh"; done
