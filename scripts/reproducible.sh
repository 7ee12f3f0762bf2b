#!/usr/bin/env bash
# Builds the last commit twice, in two folders and at two hours, and compares all that would ship, byte by byte.
set -euo pipefail
ROOT=$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)
. "$ROOT/scripts/machine.sh"
WORK=$(mktemp -d "$(scratch_folder)/ironing-twice.XXXXXX")
trap 'rm -rf "$WORK"' EXIT

# build NAME: the product of the last commit, built in a folder of that name.
build() {
  git clone -q "$ROOT" "$WORK/$1"
  say "· building in $WORK/$1 …"
  (cd "$WORK/$1" && ROOT=$WORK/$1 && . scripts/build.sh && build_product)
}

# sums NAME: what each file of the product is.
sums() {
  (cd "$WORK/$1" && find server/target/app server/target/ironing.jar standins/target/*.jar demo/target/*.jar core/target/*.jar web/dist -type f -print0 |
    LC_ALL=C sort -z | xargs -0 sha256sum)
}

build one
build another-folder
sums one >"$WORK/sums"
sums another-folder | diff "$WORK/sums" - || fail "two builds of one commit differ; the files are named above"
say "$(wc -l <"$WORK/sums") files are the same, byte by byte."
