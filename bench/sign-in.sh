#!/usr/bin/env bash
# 200 students who sign in at the same moment while a closing run of every class goes on: until the last one is in, and what the year
# board takes meanwhile beside what it takes alone (aim: at most twice as long). Beside the sign-ins the same 200 hashes computed one after
# the other by Python's hashlib (PBKDF2 with HMAC-SHA512, as many rounds). Nobody may be refused.
set -euo pipefail
cd "$(dirname "$0")/.."
work=bench/out/sign-in; rm -rf "$work"; mkdir -p "$work"
SPRING_LOFT_DATA="$work/data" build/SpringLoft.Server --demo --today 2027-06-07 --urls http://127.0.0.1:5079 > "$work/server.log" 2>&1 &
server=$!; trap 'kill $server' EXIT
for _ in $(seq 600); do curl -sf http://127.0.0.1:5079/health > /dev/null && break; sleep 0.2; done
one() { curl -s -o /dev/null -w '%{http_code}\n' -H 'Content-Type: application/json' -d "{\"userName\":\"s$1\",\"password\":\"tide-pool-lantern\"}" http://127.0.0.1:5079/api/sign-in; }
export -f one
one 1260 > /dev/null
at=http://127.0.0.1:5079; jar="$work/jar"
curl -s -o /dev/null -c "$jar" -H 'Content-Type: application/json' -d '{"userName":"wren","password":"harbour-kiln-seven"}' $at/api/sign-in
board() { curl -s -o /dev/null -b "$jar" -w '%{http_code} %{time_total}\n' $at/api/board; }
p95of() { awk '{print $2}' "$1" | sort -n | awk '{a[NR]=$1} END {printf "%.0f", 1000 * a[int(NR * 0.95 + 0.5)]}'; }
for _ in $(seq 40); do board; done > "$work/alone"
classes=$(curl -s -b "$jar" $at/api/board | python3 -c "import json,sys; print(json.dumps([r['id'] for r in json.load(sys.stdin)['rows'] if r['state'] == 'Open']))")
run=$(curl -s -b "$jar" -H 'Content-Type: application/json' -d "{\"classes\":$classes,\"options\":{\"after\":\"View\"}}" $at/api/closing/runs)
echo "$run" | grep -q '"id"' || { echo "the closing run did not begin: $run"; exit 1; }
from=$(date +%s.%N)
seq 1001 1200 | xargs -P 200 -I{} bash -c 'one {}' > "$work/answers" &
crowd=$!
while kill -0 $crowd 2> /dev/null; do board; done > "$work/meanwhile"
wait $crowd
all=$(echo "$(date +%s.%N) $from" | awk '{printf "%.1f", $1 - $2}')
in=$(grep -c '^200$' "$work/answers"); [ "$in" = 200 ] || { echo "only $in of 200 got in"; sort "$work/answers" | uniq -c; exit 1; }
grep -qv '^200 ' "$work/meanwhile" && { echo "the board was refused meanwhile"; exit 1; }
closed=$(curl -s -b "$jar" $at/api/board | python3 -c "import json,sys; print(sum(r['state'] == 'Archived' for r in json.load(sys.stdin)['rows']))")
alone=$(p95of "$work/alone"); p95=$(p95of "$work/meanwhile")
stock=$(python3 -c "
import hashlib, os, time
t = time.perf_counter()
for i in range(200): hashlib.pbkdf2_hmac('sha512', b'tide-pool-lantern', os.urandom(16), 210000)
print(f'{time.perf_counter() - t:.1f}')")
echo "sign in: 200 students at once beside a closing run ($closed classes archived by then), all in after $all s; the year board meanwhile 95th percentile $p95 ms, alone $alone ms, ratio $(echo "$p95 $alone" | awk '{printf "%.1f", $1 / $2}') (aim 2); 200 such hashes one after the other by hashlib $stock s, ratio $(echo "$all $stock" | awk '{printf "%.1f", $1 / $2}')"
kill $server; wait $server 2> /dev/null || true; trap - EXIT
rm -rf "$work"
