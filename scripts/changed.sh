# Which tests a change since a commit can break: ./ironing test --changed. Sourced by test.sh.
#
# A changed package of the core brings the core's tests of all packages that stand on it, found by their imports; a
# changed part of a feature (features.txt) brings the feature's tests of the server and of the browser; what everything
# stands on (the open workspaces, platform, the page's ui and api, pom.xml, scripts) brings the whole of its stages.
FEATURES=$ROOT/scripts/features.txt

# changed_paths COMMIT: what differs from it in the checkout, new files among them.
changed_paths() {
  git diff --name-only "$1" -- && git ls-files --others --exclude-standard
}

# features_of KIND PART: the features that have a part.
features_of() {
  awk -v kind="$1" -v part="$2" '/^[^#]/ { for (i = 2; i <= NF; i++) if (split($i, kv, "=") == 2 && kv[1] == kind) {
    n = split(kv[2], parts, ","); for (j = 1; j <= n; j++) if (parts[j] == part) print $1 } }' "$FEATURES"
}

# parts_of FEATURE KIND: the parts of a kind that it has.
parts_of() {
  awk -v feature="$1" -v kind="$2" '$1 == feature { for (i = 2; i <= NF; i++) if (split($i, kv, "=") == 2 && kv[1] == kind) {
    n = split(kv[2], parts, ","); for (j = 1; j <= n; j++) if (parts[j] != "-") print parts[j] } }' "$FEATURES"
}

# standing_on PACKAGE…: those packages of the core, and all that import them, however far behind.
standing_on() {
  local known="$*" before= p
  while [ "$known" != "$before" ]; do
    before=$known
    for p in $known; do
      known+=" $(grep -rlE "^import (static )?ironing\.core\.$p\." core/src/main/java/ironing/core 2>/dev/null |
        sed -n 's|.*/ironing/core/\([a-z]*\)/.*|\1|p' | sort -u | tr '\n' ' ')"
    done
    known=$(tr ' ' '\n' <<<"$known" | sed '/^$/d' | sort -u | tr '\n' ' ' | sed 's/ $//')
  done
  echo "$known"
}

# words TEXT…: each once, in one line.
words() {
  tr ' ' '\n' <<<"$*" | sed '/^$/d' | sort -u | tr '\n' ' ' | sed 's/ $//'
}

# joined SEPARATOR WORD…
joined() {
  local IFS=$1
  shift
  echo "$*"
}

# changed COMMIT: runs what can have been broken since.
changed() {
  local paths path part features= packages= stages= f
  local core_all= server_all= browser_all= server_tests= specs=
  paths=$(changed_paths "$1") || fail "“$1” is no commit of this checkout"
  [ -n "$paths" ] || { say "Nothing has changed since $1."; return; }
  while IFS= read -r path; do
    case $path in
      web/src/*) part=$(cut -d/ -f3 <<<"$path") ;;
      *) part=$(cut -d/ -f7 <<<"$path") ;;
    esac
    case $path in
      core/src/*/java/ironing/core/*)
        # what lies at the top, or helps all tests, is everybody's
        if [[ $part == *.java || $part == testkit ]]; then core_all=1; else packages+=" $part" features+=" $(features_of core "$part")"; fi
        ;;
      server/src/main/java/ironing/server/workspace/* | server/src/main/java/ironing/server/platform/* | server/src/main/java/ironing/server/job/* | \
        server/src/main/resources/* | server/src/test/java/ironing/server/testkit/*) server_all=1; features+=" start interface" ;;
      server/src/main/java/ironing/server/*) features+=" $(features_of server "$part") interface" ;;
      server/src/test/java/ironing/server/*) server_tests+=" $(basename "$path" .java)" ;;
      standins/src/* | demo/*) core_all=1; features+=" $(features_of tests WholeWayIT) game testrun" ;;
      web/src/*.test.ts) stages+=" page" ;;
      web/src/*)
        if [[ $part == *.* || $part == ui || $part == api ]]; then browser_all=1; else features+=" $(features_of web "$part")"; fi
        ;;
      e2e/tests/*.spec.ts) specs+=" $(basename "$path" .spec.ts)" ;;
      e2e/support/*) browser_all=1 ;;
      bench/* | README.md | docs/screenshots/* | docs/decisions/*) stages+=" page" ;;
      docs/formats/* | core/src/*) core_all=1 ;;
      docs/api/* | docs/automation.md) features+=" interface" ;;
      docs/*) stages+=" page" ;;
      *)
        say "$path: everything stands on it."
        run "$(product_sum)" "${ALL[@]}"
        return
        ;;
    esac
  done <<<"$paths"
  features=$(words "$features")
  for f in $features; do
    server_tests+=" $(parts_of "$f" tests)"
    specs+=" $(parts_of "$f" specs)"
  done
  packages=$(standing_on $packages)
  say "Since $1: ${features:-no feature}${packages:+; in the core ${packages// /, }}."
  if [ -n "$packages" ] && [ -z "$core_all" ]; then CORE_ONLY=("-Dtest=$(joined , $(printf 'ironing/core/%s/*Test,ironing/core/*Test ' $packages))" "${NONE_IS_WELL[@]}"); fi
  if [ -z "$server_all" ]; then SERVER_ONLY=("-Dtest=$(joined , $(words "$server_tests FeaturesTest"))" "${NONE_IS_WELL[@]}"); fi
  specs=$(words "$specs")
  if [ -z "$browser_all" ]; then BROWSER_ONLY=($(printf 'tests/%s.spec.ts ' $specs)); fi
  stages+=" page"
  if [ -n "$packages$core_all" ]; then stages+=" core"; fi
  if [ -n "$server_tests$server_all" ]; then stages+=" server"; fi
  if [[ " $features " == *" deploy "* || " $features " == *" library "* || -n $server_all ]]; then stages+=" disks"; fi
  if [ -n "$specs$browser_all" ]; then stages+=" browser"; fi
  run "$(product_sum)" $(words "$stages")
}
