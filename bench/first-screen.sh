#!/usr/bin/env bash
# The first screen on a slow line (50 kB/s, 2 s there and back, a processor slowed 4 times): bytes of script over the wire, and until the
# heading stands; beside one page with one script of the same bytes from Python's own web server.
set -euo pipefail
cd "$(dirname "$0")/.."
node bench/first-screen.mjs
