#!/usr/bin/env bash
# The core's properties with fresh random values, many times as many as in ./ironing test, where their seed is fixed
# so that a run says the same of the same code. What fails here names its seed: give it to the property and mend.
# scripts/stress.sh [TIMES]: how many times as many tries, 10 if left out.
set -euo pipefail
ROOT=$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)
. "$ROOT/scripts/machine.sh"
TIMES=${1:-10}
case $TIMES in '' | 0* | *[!0-9]*) fail "“$TIMES” is no number of times; give a whole one, such as 10" ;; esac

COPY=$(mktemp -d "${TMPDIR:-/tmp}/ironing-stress.XXXXXX")
trap 'rm -rf "$COPY"' EXIT
(cd "$ROOT" && tar -c --exclude=target --exclude=node_modules pom.xml core docs) | tar -x -C "$COPY"
mkdir -p "$COPY"/{standins,demo,server,bench}
cp "$ROOT"/standins/pom.xml "$COPY/standins" && cp "$ROOT"/demo/pom.xml "$COPY/demo"
cp "$ROOT"/server/pom.xml "$COPY/server" && cp "$ROOT"/bench/pom.xml "$COPY/bench"
cd "$COPY"
grep -rl '@Property' core/src/test/java >properties
xargs sed -i 's/@Property(seed = "[0-9]*")/@Property/; s/, seed = "[0-9]*")/)/' <properties
xargs perl -pi -e 's/(?<=tries = )(\d+)/$1 * '"$TIMES"'/e if /\@Property\(/' <properties
sed -i "s/^\(jqwik.tries.default = \)\([0-9]*\)/echo \"\1\$((\2 * $TIMES))\"/e" core/src/test/resources/junit-platform.properties
mvn -q -B verify -Dspotless.check.skip=true -pl core -Dtest="$(xargs -n1 basename -s .java <properties | paste -sd,)"
echo "No property failed."
