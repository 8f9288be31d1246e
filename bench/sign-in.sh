#!/usr/bin/env bash
# 200 students who sign in at the same moment: until the last one is in, and what /health takes meanwhile. Beside it the same 200
# hashes computed one after the other by Python's hashlib (PBKDF2 with HMAC-SHA512, as many rounds). No aim is set; nobody may be refused.
set -euo pipefail
cd "$(dirname "$0")/.."
work=bench/out/sign-in; rm -rf "$work"; mkdir -p "$work"
SPRING_LOFT_DATA="$work/data" build/SpringLoft.Server --demo --today 2027-06-07 --urls http://127.0.0.1:5079 > "$work/server.log" 2>&1 &
server=$!; trap 'kill $server' EXIT
for _ in $(seq 600); do curl -sf http://127.0.0.1:5079/health > /dev/null && break; sleep 0.2; done
one() { curl -s -o /dev/null -w '%{http_code}\n' -H 'Content-Type: application/json' -d "{\"userName\":\"s$1\",\"password\":\"tide-pool-lantern\"}" http://127.0.0.1:5079/api/sign-in; }
export -f one
one 1260 > /dev/null
from=$(date +%s.%N)
seq 1001 1200 | xargs -P 200 -I{} bash -c 'one {}' > "$work/answers" &
crowd=$!
while kill -0 $crowd 2> /dev/null; do curl -s -o /dev/null -w '%{time_total}\n' http://127.0.0.1:5079/health; done > "$work/health"
wait $crowd
all=$(echo "$(date +%s.%N) $from" | awk '{printf "%.1f", $1 - $2}')
in=$(grep -c '^200$' "$work/answers"); [ "$in" = 200 ] || { echo "only $in of 200 got in"; sort "$work/answers" | uniq -c; exit 1; }
p95=$(sort -n "$work/health" | awk '{a[NR]=$1} END {printf "%.0f", 1000 * a[int(NR * 0.95)]}')
stock=$(python3 -c "
import hashlib, os, time
t = time.perf_counter()
for i in range(200): hashlib.pbkdf2_hmac('sha512', b'tide-pool-lantern', os.urandom(16), 210000)
print(f'{time.perf_counter() - t:.1f}')")
echo "sign in: 200 students at once, all in after $all s, /health meanwhile 95th percentile $p95 ms; 200 such hashes one after the other by hashlib $stock s, ratio $(echo "$all $stock" | awk '{printf "%.1f", $1 / $2}')"
kill $server; wait $server 2> /dev/null || true; trap - EXIT
rm -rf "$work"
