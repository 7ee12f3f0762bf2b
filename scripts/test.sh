#!/usr/bin/env bash
# Every test there is; called by ./ironing test. Ends with a summary, and non-zero when anything failed.
# ./ironing test STAGE…             runs some of: page core server disks browser
# ./ironing test --changed [COMMIT] runs what a change since that commit (HEAD, if left out) can break: scripts/changed.sh
set -euo pipefail
ROOT=$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)
cd "$ROOT"
. scripts/machine.sh
. scripts/build.sh
. scripts/database.sh
. scripts/changed.sh

ALL=(page core server disks browser)
SUMMARY=()
FAILED=0
declare -A BEGAN LOG PID
WORK=$(mktemp -d "$(scratch_folder)/ironing-test.XXXXXX")
# the database's account and the unprivileged one must be able to enter
chmod 755 "$WORK"
mkdir -m 1777 "$WORK/tmp"
export TMPDIR=$WORK/tmp
RESULTS=$WORK/results
COVERAGE=$ROOT/target/coverage.exec
# surefire: how many JVMs, where their files go
FORKS=(-Dtest.forks=2 -Dtest.folder="$TMPDIR")
# what --changed leaves of each stage; empty for all
CORE_ONLY=() SERVER_ONLY=() BROWSER_ONLY=()
NONE_IS_WELL=(-Dsurefire.failIfNoSpecifiedTests=false)

finish() {
  trap - EXIT INT TERM
  local pid
  for pid in "${PID[@]}"; do kill -TERM -- "-$pid" 2>/dev/null || true; done
  wait
  database_stop
  rm -rf "$WORK"
}
trap finish EXIT
trap 'exit 130' INT
trap 'exit 143' TERM

# begin STAGE ARGUMENT…: starts a stage behind what else goes on; its output is kept for when it fails.
begin() {
  say "· $1 …"
  BEGAN[$1]=$SECONDS
  LOG[$1]=$WORK/$1.log
  # a group of processes of its own, which can be ended as one
  set -m
  (set -e; "$@") >"${LOG[$1]}" 2>&1 </dev/null &
  set +m
  PID[$1]=$!
}

# end STAGE: waits for it, and notes how it went.
end() {
  local word=ok pid=${PID[$1]}
  if ! wait "$pid"; then
    word=FAILED
    FAILED=1
    say "· $1 failed:"
    tail -n 150 "${LOG[$1]}" >&2
  fi
  unset "PID[$1]"
  SUMMARY+=("$(printf '%-7s %-8s %4d s   %s' "$word" "$1" $((SECONDS - BEGAN[$1])) "$(node scripts/junit.mjs count "$RESULTS/$1")")")
}

# stage STAGE ARGUMENT…: begins and ends it.
stage() {
  begin "$@"
  end "$1"
}

# passed STAGE…: whether each of them has been run just now, and passed.
passed() {
  local s
  for s in "$@"; do [[ " ${SUMMARY[*]} " =~ \ ok\ +$s\  ]] || return 1; done
}

# collect STAGE MODULE…: what surefire says of the tests of some modules, on their way to the summary.
collect() {
  local to=$RESULTS/$1 m
  shift
  mkdir -p "$to"
  for m in "$@"; do
    if compgen -G "$m/target/surefire-reports/TEST-*.xml" >/dev/null; then cp "$m"/target/surefire-reports/TEST-*.xml "$to"; fi
  done
}

# tests MODULES STAGE PHASE ARGUMENT…: has Maven build some modules up to a phase and run their tests.
tests() {
  local modules=$1 stage=$2 phase=$3 ended=0
  shift 3
  local each=${modules//,/ } m
  for m in $each; do rm -rf "$m/target/surefire-reports"; done
  IRONING_TEST_DB_URL=${DB_URL:-} maven "$phase" -pl "$modules" "${FORKS[@]}" "$@" || ended=$?
  # shellcheck disable=SC2086
  collect "$stage" $each
  return $ended
}

# The page as it is served.
web() {
  build_web
}

page() {
  npm run --silent check
  npm run --silent test -w web -- --reporter=default --reporter=junit --outputFile.junit="$RESULTS/page/vitest.xml"
}

# The product, under all the checks of the strict build, as the browser's tests start it.
build() {
  maven verify -DskipTests
  mark_built "$1"
}

core() {
  tests core,standins,demo core test ${CORE_ONLY[@]+"${CORE_ONLY[@]}"}
}

# Nothing is packed once more: the browser's tests use what is packed at the same time.
server() {
  tests server,bench server test -am -Dcore.tested ${SERVER_ONLY[@]+"${SERVER_ONLY[@]}"}
}

# The tests that need an account without rights, and those that need a drive of two megabytes, by JUnit's own launcher:
# that drive is seen by them alone.
disks() {
  local mounted="mount -t tmpfs -o size=2m,mode=0777 small '$WORK/drive' && exec \"\$@\"" user=() drop
  if [ "$(id -u)" -eq 0 ]; then
    drop=(setpriv --reuid=nobody --regid=nogroup --clear-groups --no-new-privs -- env HOME=/)
  else
    user=(--map-root-user)
    drop=(setpriv --securebits=+noroot,+noroot_locked --inh-caps=-all --ambient-caps=-all --bounding-set=-all --)
  fi
  mkdir -p "$WORK/drive" "$RESULTS/disks"
  chmod 777 "$RESULTS/disks"
  test_classes
  (cd "$WORK" && IRONING_SMALL_DISK=$WORK/drive IRONING_TEST_DB_URL=$DB_URL \
    unshare --mount "${user[@]}" -- sh -c "$mounted" sh "${drop[@]}" \
    java -Djava.io.tmpdir="$TMPDIR" -cp "$(class_path)" org.junit.platform.console.ConsoleLauncher execute \
    --select-package ironing --include-tag permissions --include-tag small-disk --include-engine junit-jupiter \
    --include-classname '.*(Test|IT)' --fail-if-no-tests --disable-banner --details=tree --disable-ansi-colors \
    --reports-dir "$RESULTS/disks")
}

# Maven's store and the checkout may be closed to other accounts: what the tests need is copied out.
test_classes() {
  [ -d "$WORK/classes" ] && return
  mkdir -p "$WORK/classes"
  local jar n=0
  for jar in server/target/classes server/target/test-classes $(tr ':' ' ' <server/target/test-classpath); do
    n=$((n + 1))
    if [ -d "$jar" ]; then cp -r "$jar" "$WORK/classes/$n"; else cp "$jar" "$WORK/classes/$n.jar"; fi
  done
  chmod -R a+rX "$WORK/classes"
}

class_path() {
  local entry path=
  for entry in $(ls "$WORK/classes" | sort -n); do path+="${path:+:}$WORK/classes/$entry"; done
  echo "$path"
}

browser() {
  npm_install
  # a test uses the product for too short a time for the optimizing compiler to be worth its own
  IRONING_JAVA_OPTIONS=-XX:TieredStopAtLevel=1 PLAYWRIGHT_JUNIT_OUTPUT_FILE=$RESULTS/browser/playwright.xml npm run --silent test -w e2e -- ${BROWSER_ONLY[@]+"${BROWSER_ONLY[@]}"}
}

# covered: what share of each module the Java tests of this run have gone through.
covered() {
  [ -f "$COVERAGE" ] || return 0
  local m
  maven jacoco:report -pl core,standins,demo,server -Djacoco.dataFile="$COVERAGE" >/dev/null 2>&1 || return 0
  for m in core standins demo server; do
    awk -F, -v m="$m" 'NR > 1 { lm += $8; lc += $9; bm += $6; bc += $7 }
      END { if (lm + lc) printf "covered %-8s %5.1f %% of its lines, %5.1f %% of its branches\n", m, 100 * lc / (lm + lc), 100 * bc / (bm + bc) }' \
      "$m/target/site/jacoco/jacoco.csv"
  done
}

# run STAGE…: those stages, side by side where the machine has room and neither needs the other. What all of them need is
# built before, whichever they are.
run() {
  local before=$1 wanted
  shift
  wanted=" $* "
  wants() { [[ $wanted == *" $1 "* ]]; }
  stage web
  if ! passed web; then return; fi
  if wants page; then begin page; fi
  if [ "$wanted" != " page " ]; then
    # of sources that were changed meanwhile it is not said that they are built
    stage build "$before"
  fi
  if wants page; then end page; fi
  if [ "$wanted" = " page " ] || ! passed build; then return; fi
  if wants server || wants disks; then database_start "$WORK/db" fsync=off; fi
  if wants browser; then begin browser; fi
  if wants core; then stage core; fi
  if wants server; then stage server; fi
  if wants disks; then stage disks; fi
  if wants browser; then end browser; fi
}

main() {
  local s began=$SECONDS
  require_programs
  require_packages chromium-headless-shell rsync curl jq clasp nginx=nginx-light zip unzip 7zz=7zip zstd bzip2 xz=xz-utils tar git diff3=diffutils xmllint=libxml2-utils
  rm -f "$COVERAGE"
  mkdir -p "$RESULTS" "$(dirname "$COVERAGE")"
  if [ "${1:-}" = --changed ]; then
    changed "${2:-HEAD}"
  else
    for s in "$@"; do [[ " ${ALL[*]} " == *" $s "* ]] || fail "there is no stage “$s”; there are: ${ALL[*]}"; done
    [ $# -gt 0 ] || set -- "${ALL[@]}"
    run "$(product_sum)" "$@"
  fi
  echo
  printf '%s\n' "${SUMMARY[@]}"
  echo
  node scripts/junit.mjs slowest 10 "$RESULTS"
  echo
  covered
  echo "$((SECONDS - began)) s in all."
  if [ $FAILED -ne 0 ]; then
    echo "Some tests failed; what they said is above."
    exit 1
  fi
  echo "All tests passed."
}

main "$@"
