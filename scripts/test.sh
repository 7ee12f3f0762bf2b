#!/usr/bin/env bash
# Every test there is; called by ./ironing test. Ends with a summary, and non-zero when anything failed.
# ./ironing test STAGE… runs some of: page server permissions small-disk browser
set -euo pipefail
ROOT=$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)
cd "$ROOT"
. scripts/machine.sh
. scripts/build.sh
. scripts/database.sh

STAGES=("$@")
[ ${#STAGES[@]} -gt 0 ] || STAGES=(page server permissions small-disk browser)
SUMMARY=()
FAILED=0
WORK=$(mktemp -d "${TMPDIR:-/tmp}/ironing-test.XXXXXX")
# the database's account and the unprivileged one must be able to enter
chmod 755 "$WORK"

finish() {
  trap - EXIT INT TERM
  database_stop
  rm -rf "$WORK"
}
trap finish EXIT
trap 'exit 130' INT
trap 'exit 143' TERM

# stage NAME FUNCTION: runs it, keeps its output for when it fails, and notes how it went.
stage() {
  local name=$1 log="$WORK/$1.log" began=$SECONDS word=ok
  say "· $name …"
  if ! (set -e; "$2") >"$log" 2>&1; then
    word=FAILED
    FAILED=1
    tail -n 150 "$log" >&2
  fi
  SUMMARY+=("$(printf '%-7s %-12s %4d s   %s' "$word" "$name" $((SECONDS - began)) "$(counted "$name" "$log")")")
}

# counted STAGE LOG: how many tests that was, as the runners themselves count.
counted() {
  case $1 in
    page) sed -n 's/\x1b\[[0-9;]*m//g; s/^ *Tests  *\(.*\)/\1/p' "$2" | tail -n 1 ;;
    server) junit_count ;;
    permissions | small-disk) sed -n 's/^\[ *\([0-9]* tests successful\) *\]$/\1/p' "$2" | tail -n 1 ;;
    browser) sed -n 's/^ *\([0-9]* passed\).*/\1/p' "$2" | tail -n 1 ;;
  esac
}

junit_count() {
  local sum=0 n
  for n in $(grep -ho '<testsuite [^>]*' {core,standins,demo,server,bench}/target/surefire-reports/TEST-*.xml 2>/dev/null |
    sed -n 's/.* tests="\([0-9]*\)".*/\1/p'); do sum=$((sum + n)); done
  echo "$sum tests"
}

page() {
  npm_install web
  cd web
  npm run --silent check
  npm run --silent test
  npm run --silent build
}

server() {
  rm -rf {core,standins,demo,server,bench}/target/surefire-reports
  IRONING_TEST_DB_URL=$DB_URL maven verify
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

# run_group GROUP COMMAND…: the tests of one group, by a command that gets the whole of theirs as arguments.
run_group() {
  local group=$1
  shift
  test_classes
  (cd "$WORK" && IRONING_TEST_DB_URL=$DB_URL "$@" java -cp "$(class_path)" \
    org.junit.platform.console.ConsoleLauncher execute --select-package ironing --include-tag "$group" \
    --include-engine junit-jupiter --include-classname '.*(Test|IT)' --fail-if-no-tests --disable-banner --details=tree --disable-ansi-colors)
}

permissions() {
  if [ "$(id -u)" -ne 0 ]; then
    run_group permissions
  else
    run_group permissions setpriv --reuid=nobody --regid=nogroup --clear-groups --no-new-privs -- env HOME=/
  fi
}

# A drive of two megabytes that only these tests see. A user namespace gives it without root.
small_disk() {
  mkdir -p "$WORK/drive"
  local mounted="mount -t tmpfs -o size=2m,mode=0777 small '$WORK/drive' && exec \"\$@\""
  IRONING_SMALL_DISK="$WORK/drive" run_group small-disk unshare --mount --map-root-user -- sh -c "$mounted" sh
}

browser() {
  npm_install e2e
  cd e2e
  npm run --silent check
  npm run --silent test
}

# ran STAGE: whether it is among those that were asked for.
ran() {
  [[ " ${STAGES[*]} " == *" $1 "* ]]
}

main() {
  require_programs
  require_packages chromium rsync curl jq zip unzip 7zz=7zip zstd bzip2 xz=xz-utils tar git diff3=diffutils
  local s before
  before=$(product_sum)
  for s in "${STAGES[@]}"; do
    case $s in
      page) stage page page ;;
      server | permissions | small-disk)
        if [ -z "${DB_PID:-}" ]; then database_start "$WORK/db" fsync=off; fi
        stage "$s" "${s/-/_}"
        ;;
      browser)
        # the product as it was built just now, not built once more
        if [ $FAILED -eq 0 ] && ran page && ran server; then
          mark_built "$before"
        else
          build_product
        fi
        stage browser browser
        ;;
      *) fail "there is no stage “$s”" ;;
    esac
  done
  echo
  printf '%s\n' "${SUMMARY[@]}"
  if [ $FAILED -ne 0 ]; then
    echo "Some tests failed; what they said is above."
    exit 1
  fi
  echo "All tests passed."
}

main
