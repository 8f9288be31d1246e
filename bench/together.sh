#!/usr/bin/env bash
# Thirty people write one page at once: how long a letter of one is on its way to each of the others, beside the bare echo of SignalR in the same run.
set -euo pipefail
cd "$(dirname "$0")/.."
dotnet publish bench/SpringLoft.Bench -c Release -o bench/out/bench --nologo -v quiet
node bench/together.mjs
