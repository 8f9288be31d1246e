#!/usr/bin/env bash
# What was set up in 1,000 archived classes found by words of its text: server time at the 95th percentile beside the bare /health of the same server in the same run.
set -euo pipefail
cd "$(dirname "$0")/.."
bench=bench/out/bench/SpringLoft.Bench
work=bench/out/past; rm -rf "$work"; mkdir -p "$work"
at=http://127.0.0.1:5076
$bench make-school "$work/school" 1001 0 0
# A loft as ten years leave it: in each class 40 assignments with instructions of 60 words, of 5,000 that there are.
python3 - "$work/school/spring-loft.db" <<'PY'
import random, sqlite3, sys
c = sqlite3.connect(sys.argv[1]); r = random.Random(3)
words = ["".join(r.choice("bdfgklmnprst") + r.choice("aeiou") for _ in range(r.randint(2, 4))) for _ in range(5000)]
at = c.execute("SELECT max(made_at) FROM class").fetchone()[0]
ids = [k for (k,) in c.execute("SELECT id FROM class ORDER BY id")]
for k in ids[1:]:
    folder = c.execute("SELECT id FROM folder WHERE class_id = ? LIMIT 1", (k,)).fetchone()[0]
    for n in range(40):
        title = " ".join(r.choices(words, k=3)) + f" {n}"
        a = c.execute("INSERT INTO assignment(class_id, title, title_key, instructions, made_at) VALUES(?, ?, ?, ?, ?) RETURNING id", (k, title, title, " ".join(r.choices(words, k=60)), at)).fetchone()[0]
        c.execute("INSERT INTO assignment_filing VALUES(?, ?)", (a, folder))
    c.execute("UPDATE class SET state = 'Archived' WHERE id = ?", (k,))
c.commit()
print(" ".join(words[:40]), file=open(sys.argv[1] + ".words", "w"))
PY
SPRING_LOFT_DATA="$work/school" build/SpringLoft.Server --demo --today 2027-06-07 --urls $at > "$work/server.log" 2>&1 &
server=$!; trap 'kill $server' EXIT
for _ in $(seq 300); do curl -sf $at/health > /dev/null && break; sleep 0.2; done
cookie=$(curl -s -D - -o /dev/null -H 'Content-Type: application/json' -d '{"userName":"bench","password":"harbour-kiln-seven"}' $at/api/sign-in | grep -i '^set-cookie: spring-loft=' | sed 's/^[^:]*: //; s/;.*//')
class=$(curl -s -H "Cookie: $cookie" $at/api/board | python3 -c 'import json,sys; print(next(r["id"] for r in json.load(sys.stdin)["rows"] if r["state"] != "Archived"))')
ask() { curl -s -H "Cookie: $cookie" "$at/api/classes/$class/past?find=$1"; }
began=$(date +%s.%N)
until ask zz | grep -q '"ready":true'; do sleep 0.2; done
read_all=$(echo "$(date +%s.%N) $began" | awk '{printf "%.1f", $1 - $2}')
shape=$(ask zz | python3 -c 'import json,sys; a=json.load(sys.stdin); print(a["progress"]["of"], "things in", a["classes"], "classes")')
# Each request asks for another pair of words, as a person types them.
cat > "$work/ask.lua" <<LUA
local words = {}
for w in io.open("$work/school/spring-loft.db.words"):read("*a"):gmatch("%a+") do words[#words + 1] = w end
local n = 0
request = function()
  n = n + 1
  local a = words[n % #words + 1]
  return wrk.format(nil, "/api/classes/$class/past?find=" .. (n % 2 == 0 and a or a:sub(1, 3) .. "%20" .. words[(n * 7) % #words + 1]))
end
$(cat bench/p95.lua)
LUA
p95() { wrk -t1 -c1 -d"${3:-10}s" --latency -s "$1" -H "Cookie: $cookie" "$at$2" | awk '/^p95 /{print $2} /^errors/{print "errors" > "/dev/stderr"}'; }
p95 "$work/ask.lua" / 3 > /dev/null; p95 bench/p95.lua /health 3 > /dev/null
found=$(p95 "$work/ask.lua" /); bare=$(p95 bench/p95.lua /health)
echo "$shape, read in $read_all s: found by words at the 95th percentile in $found ms; /health $bare ms, so $(echo "$found $bare" | awk '{printf "%.0f", $1 / $2}') times"
kill $server; wait $server 2> /dev/null || true; trap - EXIT
rm -rf "$work"
