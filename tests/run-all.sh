#!/usr/bin/env bash
# Every test of every runner, side by side; what failed is run once more at the end. One that passes then is named as shaky
# and counted as passed: it is to be mended in the same change. Ends with one line that adds all up, and fails if any failed
# or a runner ran none.
cd "$(dirname "$0")/.." || exit 1
export DOTNET_CLI_TELEMETRY_OPTOUT=1
# Starts are most of what tests wait for: code is not guarded against being written to while it is compiled.
export DOTNET_EnableWriteXorExecute=0
# The files of tests are real, but nothing of them is to last: where memory has room they lie there, and no test waits for a disk.
scratch=$(mktemp -d)
if [ "$(df --output=avail -k /dev/shm 2> /dev/null | tail -n 1)" -gt 4000000 ] 2> /dev/null; then rm -rf "$scratch"; scratch=$(mktemp -d -p /dev/shm); fi
export TMPDIR=$scratch
logs=$(mktemp -d); trap 'rm -rf "$scratch"' EXIT
# The tests of the server start the program as `make build` published it, without the client: it is compiled for the machine
# and so starts sooner. Run by itself, this script tests what was published last: use `make test`.
if [ -f build/SpringLoft.Server.dll ]; then
  cp -r build "$scratch/program" && rm -rf "$scratch/program/wwwroot"
  export SPRING_LOFT_PROGRAM=$scratch/program
fi
# How many projects at a time; the browser's tests are two workers by themselves.
lanes=${LANES:-3}

dotnet build SpringLoft.slnx -c Release --nologo -v quiet || exit 1

# One runner, its output kept: "name" and how it is run.
run() {
  local name=$1; shift
  local began=$SECONDS
  case $name in
    client) (cd client && npx vitest run --no-color) ;;
    e2e) (cd tests/e2e && npx playwright test) ;;
    *) dotnet test "tests/$name" -c Release --no-build --nologo "$@" ;;
  esac > "$logs/$name" 2>&1
  echo $? > "$logs/$name.code"
  echo "$name: $((SECONDS - began)) s, $(grep -E 'Passed!|Failed!|Tests +[0-9]|^ +[0-9]+ (passed|failed|flaky)' "$logs/$name" | tr -s ' \n' ' ' | cut -c 1-160)"
}
export -f run; export logs

# The longest first, so that none is left alone at the end.
printf '%s\n' e2e SpringLoft.Server.Tests SpringLoft.App.Tests SpringLoft.Demo.Tests SpringLoft.Store.Tests SpringLoft.Core.Tests SpringLoft.Formats.Tests client \
  $(cd tests && ls -d SpringLoft.*.Tests) | awk '!seen[$0]++' > "$logs/all"
xargs -P "$lanes" -I{} bash -c 'run {}' < "$logs/all"

passed=0; failed=0; broken=""; shaky=""
# What failed, with its reason, is said again at the end: the last lines of a long run are what is read.
told=$(mktemp -p "$logs")
tell() { sed -E 's/\x1b\[[0-9;]*m//g' "$logs/$1" | grep -E "$2" -A "$3" | cut -c 1-600 >> "$told"; }
number() { sed -E 's/\x1b\[[0-9;]*m//g' "$logs/$1" | grep -oE "$2" | grep -oE '[0-9]+' | tail -n 1; }

while read -r name; do
  code=$(cat "$logs/$name.code")
  case $name in
    client) p=$(number $name 'Tests .*[0-9]+ passed'); f=$(number $name 'Tests +[0-9]+ failed'); tell $name '^ FAIL ' 12 ;;
    e2e)
      # Playwright runs a failed file once more by itself, on a school made anew.
      p=$(number $name '^ +[0-9]+ passed'); f=$(number $name '^ +[0-9]+ failed'); again=$(number $name '^ +[0-9]+ flaky')
      p=$((${p:-0} + ${again:-0}))
      [ "${again:-0}" -gt 0 ] && shaky="$shaky$(sed -n '/ flaky$/,/^  [0-9]* \(passed\|skipped\)/p' "$logs/$name" | grep '›')"$'\n'
      tell $name '^  [0-9]+\) ' 24 ;;
    *)
      p=$(number $name 'Passed: +[0-9]+'); f=$(number $name 'Failed: +[0-9]+')
      if [ "${f:-0}" -gt 0 ]; then
        tests=$(grep -oE '^  Failed [A-Za-z0-9_.+]+' "$logs/$name" | awk '{print $2}' | sort -u)
        tell $name '^  Failed .+\[' 12
        filter=$(echo "$tests" | sed 's/^/FullyQualifiedName=/' | paste -sd '|')
        dotnet test "tests/$name" -c Release --no-build --nologo --filter "$filter" > "$logs/$name.again" 2>&1
        still=$(number "$name.again" 'Failed: +[0-9]+'); ran=$(number "$name.again" 'Passed: +[0-9]+')
        [ -z "$still$ran" ] && still=$f
        if [ "${still:-0}" -lt "$f" ]; then shaky="$shaky$tests (${still:-0} of $f failed again)"$'\n'; p=$((p + f - ${still:-0})); fi
        f=${still:-0}; code=$([ "$f" -eq 0 ] && echo 0 || echo 1)
      fi ;;
  esac
  passed=$((passed + ${p:-0})); failed=$((failed + ${f:-0}))
  if [ "${p:-0}" -eq 0 ] || { [ "$code" -ne 0 ] && [ "${f:-0}" -eq 0 ]; }; then broken="$broken $name"; tail -n 40 "$logs/$name" >> "$told"; fi
done < "$logs/all"

[ -n "$broken" ] && { echo "These runners broke off or ran nothing:$broken"; failed=$((failed + 1)); }
[ -s "$told" ] && { echo "What failed:"; cat "$told"; }
[ -n "$shaky" ] && { echo "Shaky, passed when run once more:"; printf '%s' "$shaky"; }
echo "$passed passed, $failed failed"
[ "$failed" -eq 0 ]
