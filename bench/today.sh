#!/usr/bin/env bash
# A student's day over 12 classes, and a class's marking desk: server time at the 95th percentile beside the bare /health of the same server in the same run.
set -euo pipefail
cd "$(dirname "$0")/.."
work=bench/out/today; rm -rf "$work"; mkdir -p "$work"
at=http://127.0.0.1:5078
SPRING_LOFT_DATA="$work/school" build/SpringLoft.Server --demo --today 2027-06-07 --urls $at > "$work/server.log" 2>&1 &
server=$!; trap 'kill $server' EXIT
for _ in $(seq 300); do curl -sf $at/health > /dev/null && break; sleep 0.2; done
signed() { curl -s -D - -o /dev/null -H 'Content-Type: application/json' -d "{\"userName\":\"$1\",\"password\":\"$2\"}" $at/api/sign-in | grep -i '^set-cookie: spring-loft=' | sed 's/^[^:]*: //; s/;.*//'; }
post() { curl -sf -o /dev/null -H "Cookie: $1" -H "Origin: $at" -H "Idempotency-Key: k$RANDOM$RANDOM" -H 'Content-Type: application/json' -d "$3" "$at$2"; }
wren=$(signed wren harbour-kiln-seven)
student=$(curl -s -H "Cookie: $wren" "$at/api/people?Text=s1001" | python3 -c 'import json,sys; print(json.load(sys.stdin)["people"][0]["id"])')
for class in $(curl -s -H "Cookie: $wren" $at/api/board | python3 -c 'import json,sys; print(*[r["id"] for r in json.load(sys.stdin)["rows"] if r["state"] == "Open"][:14])'); do
  post "$wren" "/api/classes/$class/roster" "{\"people\":[$student],\"role\":\"Student\",\"includeOpen\":true}" || true
done
own=$(signed s1001 tide-pool-lantern); post "$own" /api/me/password '{"oldPassword":"tide-pool-lantern","newPassword":"blue-otter-walks-9"}'
own=$(signed s1001 blue-otter-walks-9)
classes=$(curl -s -H "Cookie: $own" $at/api/my-classes | python3 -c 'import json,sys; print(sum(k["state"] == "Open" for k in json.load(sys.stdin)))')
marking=$(curl -s -H "Cookie: $wren" $at/api/board | python3 -c 'import json,sys; print(next(r["id"] for r in json.load(sys.stdin)["rows"] if r["name"].startswith("Clay and Glass 9B")))')
assignment=$(curl -s -H "Cookie: $wren" $at/api/classes/$marking/returns | python3 -c 'import json,sys; print(json.load(sys.stdin)["assignments"][0]["id"])')
p95() { wrk -t1 -c1 -d"${3:-10}s" --latency -s bench/p95.lua -H "Cookie: $1" "$at$2" | awk '/^p95 /{print $2} /^errors/{print "errors" > "/dev/stderr"}'; }
p95 "$own" /api/today 5 > /dev/null; p95 "$own" /health 3 > /dev/null
day=$(p95 "$own" /api/today); desk=$(p95 "$wren" "/api/classes/$marking/marking?assignment=$assignment"); bare=$(p95 "$own" /health)
echo "a student's day over $classes classes: 95th percentile $day ms; the marking desk of a class of 28: $desk ms; /health $bare ms, so $(echo "$day $bare" | awk '{printf "%.0f", $1 / $2}') and $(echo "$desk $bare" | awk '{printf "%.0f", $1 / $2}') times"
kill $server; wait $server 2> /dev/null || true; trap - EXIT
rm -rf "$work"
