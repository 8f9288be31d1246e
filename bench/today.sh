#!/usr/bin/env bash
# A student's day over 12 classes, a class's marking desk, and a score table of 200 students and 40 assignments: server time at the 95th percentile beside the bare /health of the same server in the same run.
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
desk=$(p95 "$wren" "/api/classes/$marking/marking?assignment=$assignment")
# Rows of one class as they stand after a year, written beside the running server.
python3 - "$work/school/spring-loft.db" "$marking" <<'PY'
import sqlite3, sys
c = sqlite3.connect(sys.argv[1], timeout=30); k = int(sys.argv[2])
at = c.execute("SELECT joined_at FROM member WHERE class_id = ? LIMIT 1", (k,)).fetchone()[0]
for (p,) in c.execute("SELECT id FROM person WHERE role = 'Student' ORDER BY id LIMIT 200").fetchall():
    c.execute("INSERT OR IGNORE INTO member(class_id, person_id, role, joined_at, since) VALUES(?, ?, 'Student', ?, ?)", (k, p, at, at))
folder = c.execute("SELECT id FROM folder WHERE class_id = ? AND binned_at IS NULL AND parent_id IS NULL LIMIT 1", (k,)).fetchone()[0]
students = [p for (p,) in c.execute("SELECT person_id FROM member WHERE class_id = ? AND role = 'Student' AND left_at IS NULL", (k,))]
for n in range(40):
    a = c.execute("INSERT INTO assignment(class_id, title, title_key, instructions, points, published_at, made_at) VALUES(?, ?, ?, '', 20, ?, ?) RETURNING id", (k, f"Bench {n}", f"bench {n}", at, at)).fetchone()[0]
    c.execute("INSERT INTO assignment_filing VALUES(?, ?)", (a, folder))
    c.executemany("INSERT INTO work(assignment_id, class_id, student_id, state, score, returned_score, handed_in_at, returned_at) VALUES(?, ?, ?, 'Returned', ?, ?, ?, ?)", [(a, k, s, (s + n) % 21, (s + n) % 21, at, at) for s in students])
c.commit()
PY
shape=$(curl -s -H "Cookie: $wren" $at/api/classes/$marking/scores | python3 -c 'import json,sys; t=json.load(sys.stdin); print(len(t["students"]), "students and", len(t["columns"]), "assignments")')
p95 "$own" /api/today 5 > /dev/null; p95 "$own" /health 3 > /dev/null
day=$(p95 "$own" /api/today); table=$(p95 "$wren" "/api/classes/$marking/scores"); bare=$(p95 "$own" /health)
echo "the scores of $shape: 95th percentile $table ms, $(echo "$table $bare" | awk '{printf "%.0f", $1 / $2}') times /health"
echo "a student's day over $classes classes: 95th percentile $day ms; the marking desk of a class of 28: $desk ms; /health $bare ms, so $(echo "$day $bare" | awk '{printf "%.0f", $1 / $2}') and $(echo "$desk $bare" | awk '{printf "%.0f", $1 / $2}') times"
kill $server; wait $server 2> /dev/null || true; trap - EXIT
rm -rf "$work"
