#!/usr/bin/env bash
# The tests of random values with fresh ones, and many times as many as in ./ironing test, where their seed is fixed
# so that a run says the same of the same code; among them every run of git and diff3, of which that takes a fifth.
# What fails here names its seed: give it to the property and mend.
# scripts/stress.sh [TIMES]: how many times as many tries as the test names, 10 if left out.
set -euo pipefail
ROOT=$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)
. "$ROOT/scripts/machine.sh"
. "$ROOT/scripts/build.sh"
TIMES=${1:-10}
case $TIMES in '' | 0* | *[!0-9]*) fail "“$TIMES” is no number of times; give a whole one, such as 10" ;; esac

. "$ROOT/scripts/database.sh"
require_packages clasp git diff3=diffutils
WORK=$(mktemp -d "$(scratch_folder)/ironing-stress.XXXXXX")
# the database's account must be able to enter
chmod 755 "$WORK"
mkdir -m 1777 "$WORK/tmp"
trap 'database_stop; rm -rf "$WORK"' EXIT
trap 'exit 130' INT
trap 'exit 143' TERM

# classes MODULE: the test classes of a module that make more or fewer tries.
classes() {
  grep -rlE '@Property|Tries\.' "$ROOT/$1/src/test/java" | grep -v testkit | xargs -n1 basename -s .java | paste -sd,
}

database_start "$WORK/db" fsync=off
export IRONING_TEST_DB_URL=$DB_URL
maven test -pl core,standins,demo,server -Dtest.forks=2 -Dtest.folder="$WORK/tmp" -Dironing.tries="$TIMES" \
  -Dtest="$(classes core),$(classes server)" -Dsurefire.failIfNoSpecifiedTests=false
echo "No test failed."
