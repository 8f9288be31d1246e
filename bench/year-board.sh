#!/usr/bin/env bash
# The year board of 3,000 classes: server time at the 95th percentile beside a static file of the same bytes from the same server.
set -euo pipefail
cd "$(dirname "$0")/.."
bench=bench/out/bench/SpringLoft.Bench
work=bench/out/board; rm -rf "$work"; mkdir -p "$work"
$bench make-school "$work/school" 3000 25 4
cp -r build/wwwroot "$work/web"
SPRING_LOFT_DATA="$work/school" SPRING_LOFT_WEB="$work/web" build/SpringLoft.Server --demo --today 2027-06-07 --urls http://127.0.0.1:5077 > "$work/server.log" 2>&1 &
server=$!; trap 'kill $server' EXIT
for _ in $(seq 100); do curl -sf http://127.0.0.1:5077/health > /dev/null && break; sleep 0.2; done
cookie=$(curl -s -D - -o /dev/null -H 'Content-Type: application/json' -d '{"userName":"bench","password":"harbour-kiln-seven"}' http://127.0.0.1:5077/api/sign-in | grep -i '^set-cookie: spring-loft=' | sed 's/^[^:]*: //; s/;.*//')
curl -s -H "Cookie: $cookie" http://127.0.0.1:5077/api/board -o "$work/web/board.json"
bytes=$(stat -c %s "$work/web/board.json")
p95() { wrk -t1 -c1 -d"${2:-10}s" --latency -s bench/p95.lua -H "Cookie: $cookie" "http://127.0.0.1:5077$1" | awk '/^p95 /{print $2}'; }
p95 /api/board 5 > /dev/null; p95 /board.json 3 > /dev/null
board=$(p95 /api/board); static=$(p95 /board.json)
echo "year board: 3,000 classes, $bytes bytes of JSON; 95th percentile $board ms, static file of the same bytes $static ms, ratio $(echo "$board $static" | awk '{printf "%.0f", $1 / $2}')"
echo "where the time goes (median, same machine):"
$bench board "$work/school"
kill $server; wait $server 2> /dev/null || true; trap - EXIT
rm -rf "$work"
