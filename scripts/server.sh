# Starting and stopping the product. Sourced.
export IRONING_HOME=${IRONING_HOME:-$(default_home)}
export IRONING_PORT=${IRONING_PORT:-8420}
IRONING_HOME=$(realpath -m "$IRONING_HOME")
PID_FILE=$IRONING_HOME/ironing.pid
SERVER_PID_FILE=$IRONING_HOME/server.pid
# options for the JVMs of the product besides, parted by blanks
read -ra JAVA_MORE <<<"${IRONING_JAVA_OPTIONS:-}"
# classes as the JVM has them in memory, kept by the first start after a build: halves the time of the later ones
CLASS_ARCHIVE=$SERVER_APP/classes.jsa

# require_port: before anything else is started.
require_port() {
  ! listens "$IRONING_PORT" || fail "port $IRONING_PORT is taken; set IRONING_PORT to another one"
}

server_start() {
  local archive=-XX:SharedArchiveFile=$CLASS_ARCHIVE
  if [ ! -f "$CLASS_ARCHIVE" ]; then archive=-XX:ArchiveClassesAtExit=$CLASS_ARCHIVE.$$; fi
  # a heap that holds a large workspace from the first: else it is searched through again and again while that is read
  IRONING_DB_URL=$DB_URL IRONING_STANDINS=$ROOT/standins/target IRONING_DEMO=$ROOT/demo \
    java ${JAVA_MORE[@]+"${JAVA_MORE[@]}"} -XX:+UseG1GC -Xms512m -Xmx1g -XX:InitiatingHeapOccupancyPercent=70 "$archive" -Xlog:cds=error -Xlog:cds+dynamic=error \
    -jar "$SERVER_APP/ironing.jar" >"$IRONING_HOME/server.log" 2>&1 &
  SERVER_PID=$!
  echo "$SERVER_PID" >"$SERVER_PID_FILE"
  yield_compiler "$SERVER_PID"
  for _ in $(seq 600); do
    http_ok "$IRONING_PORT" /actuator/health '"UP"' && return
    kill -0 "$SERVER_PID" 2>/dev/null || break
    sleep 0.1
  done
  tail -n 15 "$IRONING_HOME/server.log" >&2
  fail "the server did not come up; the whole of what it said is in $IRONING_HOME/server.log"
}

# yield_compiler PID: the JVM's optimizing compiler keeps one processor busy for as long as a server starts, which on a
# machine with two of them makes everything else wait. Behind the other threads it still has whatever is idle.
yield_compiler() {
  local task
  for _ in $(seq 50); do
    for task in /proc/"$1"/task/*; do
      if [ "$(cat "$task/comm" 2>/dev/null)" = "C2 CompilerThre" ]; then
        renice -n 10 -p "${task##*/}" >/dev/null || true
        return
      fi
    done
    sleep 0.02
  done
}

server_stop() {
  [ -n "${SERVER_PID:-}" ] || return 0
  kill -TERM "$SERVER_PID" 2>/dev/null || true
  if ended "$SERVER_PID" 40; then
    # only an archive that was written to its end is taken
    if [ -f "$CLASS_ARCHIVE.$$" ]; then mv "$CLASS_ARCHIVE.$$" "$CLASS_ARCHIVE"; fi
  else
    kill -KILL "$SERVER_PID" 2>/dev/null || true
  fi
  rm -f "$CLASS_ARCHIVE".[0-9]*
  SERVER_PID=
  rm -f "$SERVER_PID_FILE"
}

# end_orphans: what a start that was killed has left running. True when there was anything.
end_orphans() {
  local any=1
  SERVER_PID=$(process_in "$SERVER_PID_FILE" ironing.jar)
  DB_PID=$(process_in "$IRONING_HOME/postgres/data/postmaster.pid" postgres)
  CATALOGUE_PID=$(process_in "$CATALOGUE_PID_FILE" CatalogueServer)
  if [ -n "$SERVER_PID$DB_PID$CATALOGUE_PID" ]; then any=0; fi
  catalogue_stop
  server_stop
  database_stop
  return $any
}

end_all() {
  trap - INT TERM EXIT
  catalogue_stop
  server_stop
  database_stop
  rm -f "$PID_FILE"
}

# process_in FILE WORD: the process that a file names, if it runs and its command holds a word.
process_in() {
  local pid
  pid=$(head -n 1 "$1" 2>/dev/null) || return 0
  if kill -0 "$pid" 2>/dev/null && tr '\0' ' ' <"/proc/$pid/cmdline" 2>/dev/null | grep -qF "$2"; then echo "$pid"; fi
}

# product_up: PostgreSQL and the server, ended again when this script ends.
product_up() {
  trap end_all EXIT
  trap 'exit 130' INT
  trap 'exit 143' TERM
  require_port
  if [ -n "${IRONING_DB_URL:-}" ]; then DB_URL=$IRONING_DB_URL; else database_start "$IRONING_HOME/postgres" "$@"; fi
  server_start
}

CATALOGUE_PID_FILE=$IRONING_HOME/catalogue.pid

# catalogue_start: serves the demo's catalogue, each time at the same port where that is free; sets CATALOGUE_URL.
catalogue_start() {
  local folder=$IRONING_HOME/demo/catalogue port
  mkdir -p "$folder"
  port=$(cat "$IRONING_HOME/demo/catalogue-port" 2>/dev/null || true)
  if [ -z "$port" ] || listens "$port"; then port=$(free_port); fi
  echo "$port" >"$IRONING_HOME/demo/catalogue-port"
  java -XX:TieredStopAtLevel=1 -Xmx64m -cp "$ROOT/standins/target/game.jar" ironing.standins.catalogue.CatalogueServer \
    "$folder" "$port" >"$IRONING_HOME/catalogue.log" 2>&1 &
  CATALOGUE_PID=$!
  echo "$CATALOGUE_PID" >"$CATALOGUE_PID_FILE"
  for _ in $(seq 100); do
    if listens "$port"; then
      CATALOGUE_URL=http://127.0.0.1:$port
      return
    fi
    kill -0 "$CATALOGUE_PID" 2>/dev/null || break
    sleep 0.1
  done
  fail "the demo's catalogue is not served; $IRONING_HOME/catalogue.log says why"
}

catalogue_stop() {
  [ -n "${CATALOGUE_PID:-}" ] || return 0
  kill -TERM "$CATALOGUE_PID" 2>/dev/null || true
  ended "$CATALOGUE_PID" 10 || kill -KILL "$CATALOGUE_PID" 2>/dev/null || true
  CATALOGUE_PID=
  rm -f "$CATALOGUE_PID_FILE"
}

# demo_run MAIN ARGUMENT...: runs a program of the demo's on the server, the sample world and its place in the home.
demo_run() {
  local main=$1
  shift
  java ${JAVA_MORE[@]+"${JAVA_MORE[@]}"} -cp "$ROOT/demo/target/classes:$(cat "$ROOT/demo/target/classpath")" "ironing.demo.$main" \
    "http://127.0.0.1:$IRONING_PORT" "$ROOT/demo/world" "$IRONING_HOME/demo" "$@"
}

# demo_load: brings the sample world in, if it is not there yet, the one in trouble and the two of open text; prints the address of the first.
demo_load() {
  demo_run DemoLoader "$CATALOGUE_URL" && demo_run TroubleLoader && demo_run TextGamesLoader
}

run_product() {
  require_programs
  require_packages
  local pid url=http://127.0.0.1:$IRONING_PORT
  mkdir -p "$IRONING_HOME"
  # of two starts at once one asks first
  exec 9>"$IRONING_HOME/start.lock"
  flock 9
  pid=$(process_in "$PID_FILE" ironing)
  if [ -n "$pid" ]; then
    say "Ironing runs already, as process $pid. ./ironing stop ends it."
    exit 1
  fi
  if end_orphans; then say "Ended what an earlier start had left running."; fi
  echo $$ >"$PID_FILE"
  exec 9>&-
  build_product
  product_up
  if [ "$1" = demo ]; then
    catalogue_start
    url=$(demo_load) || fail "the demo could not be loaded"
  fi
  say "Ironing is ready. Ctrl-C ends it."
  echo "$url"
  # the server's end is ours; a signal ends the waiting, and the trap does the rest
  wait "$SERVER_PID" || true
  fail "the server has ended; $IRONING_HOME/server.log says why"
}

stop_product() {
  local pid
  pid=$(process_in "$PID_FILE" ironing)
  if [ -z "$pid" ]; then
    if end_orphans; then say "Ironing has ended."; else say "Ironing does not run."; fi
    return 0
  fi
  kill -TERM "$pid"
  ended "$pid" 60 || fail "process $pid does not end"
  say "Ironing has ended."
}
