#!/usr/bin/env bash
# Every test of every runner; ends with one line that adds them up, and fails if any failed or a runner ran none.
cd "$(dirname "$0")/.." || exit 1
export DOTNET_CLI_TELEMETRY_OPTOUT=1
log=$(mktemp); told=$(mktemp); trap 'rm -f "$log" "$told"' EXIT
passed=0; failed=0; broken=""

# Adds what a runner said: its name, how many passed, how many failed, its exit code.
add() {
  local name=$1 p=${2:-0} f=${3:-0} code=$4
  passed=$((passed + p)); failed=$((failed + f))
  if [ "$p" -eq 0 ] || { [ "$code" -ne 0 ] && [ "$f" -eq 0 ]; }; then broken="$broken $name"; fi
}
# What failed, with its reason, is said again at the end: the last lines of a long run are what is read.
tell() { sed -E 's/\x1b\[[0-9;]*m//g' "$log" | grep -E "$1" -A "$2" | cut -c 1-600 >> "$told"; }
number() { grep -oE "$1" "$log" | grep -oE '[0-9]+' | tail -n 1; }

dotnet build SpringLoft.slnx --nologo -v quiet || exit 1
for project in tests/SpringLoft.*.Tests; do
  dotnet test "$project" --no-build --nologo 2>&1 | tee "$log" | grep -vE '^\s*$|Test run for|VSTest|Starting test|total of'; code=${PIPESTATUS[0]}
  add "$(basename "$project")" "$(number 'Passed: +[0-9]+')" "$(number 'Failed: +[0-9]+')" "$code"
  tell '^  Failed .+\[' 12
done

(cd client && npx vitest run --no-color) 2>&1 | tee "$log"; code=${PIPESTATUS[0]}
add client "$(number 'Tests .*[0-9]+ passed' )" "$(number 'Tests +[0-9]+ failed')" "$code"
tell '^ FAIL ' 12

(cd tests/e2e && npx playwright test) 2>&1 | tee "$log"; code=${PIPESTATUS[0]}
add e2e "$(number '^ +[0-9]+ passed')" "$(number '^ +[0-9]+ failed')" "$code"
tell '^  [0-9]+\) ' 24

[ -n "$broken" ] && { echo "These runners broke off or ran nothing:$broken"; failed=$((failed + 1)); }
[ -s "$told" ] && { echo "What failed:"; cat "$told"; }
echo "$passed passed, $failed failed"
[ "$failed" -eq 0 ]
