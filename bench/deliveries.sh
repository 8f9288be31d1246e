#!/usr/bin/env bash
# Deliveries of 30,000 students, 7,200 classes, 187,000 enrollments.
#  - read, match and compare, beside a pandas script that only reads the enrollments of two deliveries and merges them: at most 2 times
#  - apply to the empty database, beside the sqlite3 shell's .import of the same files into tables with the same indexes: at most 4 times
#  - the same delivery again: no longer than the bare import. Peak memory: 500 MB
#  - type-ahead on that directory under 20 clients: 95th percentile at most 30 ms, beside /health in the same run
set -euo pipefail
cd "$(dirname "$0")/.."
bench=bench/out/bench/SpringLoft.Bench
work=bench/out/deliveries; rm -rf "$work"; mkdir -p "$work/bare"
/usr/bin/python3 -c 'import pandas' 2> /dev/null || { apt-get update -qq && DEBIAN_FRONTEND=noninteractive apt-get install -y -qq python3-pandas > /dev/null; }
python3 bench/deliveries.py "$work"
$bench make-school "$work/school" 0 0 0
per() { echo "$1 $2" | awk '{printf "%.1f", $1 / $2}'; }
cat > "$work/merge.py" <<'PY'
import sys, pandas
a, b = (pandas.read_csv(f) for f in sys.argv[1:3])
m = a.merge(b, on=["classSourcedId", "userSourcedId"], how="outer", indicator=True)
print(len(m), (m["_merge"] != "both").sum())
PY
from=$(date +%s.%N); /usr/bin/python3 "$work/merge.py" "$work/enrollments1.csv" "$work/enrollments2.csv" > /dev/null; pandas=$(echo "$(date +%s.%N) $from" | awk '{printf "%.2f", $1 - $2}')
cat > "$work/import.sql" <<'SQL'
PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL;
CREATE TABLE users(sourcedId, status, enabledUser, username, givenName, familyName, identifier, email, grades, role);
CREATE UNIQUE INDEX u1 ON users(sourcedId); CREATE UNIQUE INDEX u2 ON users(username); CREATE INDEX u3 ON users(familyName); CREATE INDEX u4 ON users(givenName); CREATE INDEX u5 ON users(identifier);
CREATE TABLE classes(sourcedId, status, title, courseSourcedId, classCode, location, periods);
CREATE UNIQUE INDEX k1 ON classes(sourcedId); CREATE INDEX k2 ON classes(title); CREATE INDEX k3 ON classes(courseSourcedId);
CREATE TABLE enrollments(sourcedId, classSourcedId, userSourcedId, role, "primary");
CREATE UNIQUE INDEX e1 ON enrollments(classSourcedId, userSourcedId); CREATE INDEX e2 ON enrollments(userSourcedId);
.mode csv
SQL
for f in users classes enrollments; do echo ".import --skip 1 $work/${f}1.csv $f" >> "$work/import.sql"; done
import() { local from; rm -f "$work"/bare.db*; from=$(date +%s.%N); sqlite3 "$work/bare.db" < "$work/import.sql" > /dev/null; echo "$(date +%s.%N) $from" | awk '{printf "%.2f", $1 - $2}'; }
# Of three, the middle one: what stands beside each other takes about a second, and a busy machine is felt.
median() { printf '%s\n' "$@" | sort -n | sed -n 2p; }
bare1=$(import)
{ read -r first n1 _ mem1; read -r applied n2 mem2; } <<< "$($bench apply "$work/school" "$work/term1.zip")"
bare2=$(import)
for i in 1 2 3; do
  read -r "again$i" n3 _ mem3 <<< "$($bench deliver "$work/school" "$work/term1.zip")"
  [ "$n3" = 0 ] || { echo "The same delivery again makes $n3 changes"; exit 1; }
done
bare=$(median "$bare1" "$bare2" "$(import)"); again=$(median "$again1" "$again2" "$again3")
read -r second n4 held mem4 <<< "$($bench deliver "$work/school" "$work/term2.zip")"
echo "(in a process that has compared a delivery before, as the server has)"
echo "read, match, compare: first $first s ($n1 changes), a term later $second s ($n4 changes, $held on hold); pandas reads and merges enrollments in $pandas s: $(per "$second" "$pandas") times (aim 2)"
echo "apply to the empty database: $n2 changes in $applied s; sqlite3 .import of the same files $bare s: $(per "$applied" "$bare") times (aim 4)"
echo "the same delivery again: $again s (of $again1, $again2, $again3), $n3 changes; the bare import $bare s: $(per "$again" "$bare") times (aim 1)"
echo "peak memory: $mem1 MB, $mem2 MB, $mem3 MB, $mem4 MB (aim 500)"
SPRING_LOFT_DATA="$work/school" build/SpringLoft.Server --demo --today 2027-06-07 --urls http://127.0.0.1:5078 > "$work/server.log" 2>&1 &
server=$!; trap 'kill $server' EXIT
for _ in $(seq 100); do curl -sf http://127.0.0.1:5078/health > /dev/null && break; sleep 0.2; done
cookie=$(curl -s -D - -o /dev/null -H 'Content-Type: application/json' -d '{"userName":"bench","password":"harbour-kiln-seven"}' http://127.0.0.1:5078/api/sign-in | grep -i '^set-cookie: spring-loft=' | sed 's/^[^:]*: //; s/;.*//')
p95() { wrk -t2 -c20 -d"${2:-8}s" --latency -s bench/p95.lua -H "Cookie: $cookie" "http://127.0.0.1:5078$1" | awk '/^p95 /{print $2} /^errors/{print "with errors"}'; }
# As in a server that has run for some minutes: the runtime compiles what is used often a second time.
for w in thor gri 1234; do p95 "/api/directory?starts=$w&students=true" 5 > /dev/null; done
echo "type-ahead under 20 clients, 95th percentile: thor $(p95 '/api/directory?starts=thor&students=true') ms, gri $(p95 '/api/directory?starts=gri&students=true') ms, 1234 $(p95 '/api/directory?starts=1234&students=true') ms; /health $(p95 /health) ms (aim 30)"
kill $server; wait $server 2> /dev/null || true; trap - EXIT
rm -rf "$work"
