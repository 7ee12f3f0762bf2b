# Building the product when its sources have changed. Sourced.

# sources_sum FOLDER…: one line that changes when a source below the folders does; what a build makes there is none.
sources_sum() {
  find "$@" -type d \( -name target -o -name node_modules -o -name dist \) -prune -o \
    -type f ! -name '*.gen.ts' ! -name '*.tsbuildinfo' -print0 |
    LC_ALL=C sort -z | xargs -0 sha256sum | sha256sum | cut -d' ' -f1
}

maven() {
  mvn -q -B -f "$ROOT/pom.xml" "$@" >&2
}

# npm_install: what the lock file says, for the page and the browser's tests, when it is not there yet.
npm_install() {
  local stamp="$ROOT/node_modules/.installed-from" sum
  sum=$(sha256sum "$ROOT/package-lock.json" | cut -d' ' -f1)
  [ "$(cat "$stamp" 2>/dev/null)" = "$sum" ] && return
  (cd "$ROOT" && PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD=1 npm ci --silent --no-fund --no-audit) || fail "npm could not install what package-lock.json names"
  echo "$sum" >"$stamp"
}

build_web() {
  npm_install
  (cd "$ROOT" && npm run --silent build -w web >&2) || fail "the page could not be built"
}

BUILT_FROM=$ROOT/server/target/built-from
# the server as it is started: its jar laid open, which the JVM reads faster than jars within a jar
SERVER_APP=$ROOT/server/target/app

product_sum() {
  sources_sum "$ROOT"/{core,standins,demo,server}/src "$ROOT"/{core,standins,demo,server}/pom.xml "$ROOT"/{pom.xml,package.json,package-lock.json,web,docs/api,docs/guide.md}
}

# mark_built SUM: what has been built is of the sources that had this sum before building began.
mark_built() {
  rm -rf "$SERVER_APP"
  java -Djarmode=tools -jar "$ROOT/server/target/ironing.jar" extract --destination "$SERVER_APP" >/dev/null ||
    fail "the server's jar could not be laid open in $SERVER_APP"
  echo "$1" >"$BUILT_FROM"
}

# build_product: the page, the server, the stand-in game and the demo's tools, if anything has changed. Of two at once
# the second waits for the first.
build_product() {
  mkdir -p "$ROOT/target"
  (flock 9; build_changed) 9>"$ROOT/target/build.lock"
}

build_changed() {
  local sum
  sum=$(product_sum)
  if [ -f "$SERVER_APP/ironing.jar" ] && [ "$(cat "$BUILT_FROM" 2>/dev/null)" = "$sum" ]; then return; fi
  say "Building …"
  build_web
  maven -Dquick -pl server,demo,standins -am -DskipTests -Dspotless.check.skip=true package || fail "the server could not be built"
  mark_built "$sum"
}
