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

WORK=$(mktemp -d "$(scratch_folder)/ironing-stress.XXXXXX")
trap 'rm -rf "$WORK"' EXIT
classes=$(grep -rlE '@Property|Tries\.' "$ROOT/core/src/test/java" | xargs -n1 basename -s .java | paste -sd,)
maven verify -Dspotless.check.skip=true -pl core -Dtest.forks=2 -Dtest.folder="$WORK" -Dironing.tries="$TIMES" -Dtest="$classes"
echo "No test failed."
