# A PostgreSQL cluster of the product's own: on 127.0.0.1, a free port, with a password, never as root. Sourced.

# as_database_user COMMAND…: initdb and postgres refuse root, so root steps down to Debian's account for it.
as_database_user() {
  if [ "$(id -u)" -eq 0 ]; then
    setpriv --reuid=postgres --regid=postgres --clear-groups --no-new-privs -- env --chdir=/ HOME=/ "$@"
  else
    "$@"
  fi
}

# database_start FOLDER [SETTING…]: starts the cluster in FOLDER, made at first, and sets DB_URL and DB_PID.
database_start() {
  local folder=$1 bin data password port setting settings=()
  shift
  bin=$(postgres_bin)
  data=$folder/data
  mkdir -p "$folder"
  if [ "$(id -u)" -eq 0 ]; then
    chown postgres:postgres "$folder"
    as_database_user test -w "$folder" ||
      fail "the account “postgres” cannot enter $folder; set IRONING_HOME to a place that it can, such as /var/lib/ironing"
  fi
  chmod 700 "$folder"
  if [ ! -f "$data/PG_VERSION" ]; then database_make "$folder" "$bin" "$data"; fi
  password=$(cat "$folder/password")
  port=$(cat "$folder/port" 2>/dev/null || true)
  if [ -z "$port" ] || listens "$port"; then port=$(free_port); fi
  echo "$port" >"$folder/port"
  for setting in "$@"; do settings+=(-c "$setting"); done
  as_database_user "$bin/pg_ctl" -D "$data" -s -w -t 60 -l "$folder/log" \
    -o "-p $port -c listen_addresses=127.0.0.1 -c unix_socket_directories='' ${settings[*]:-}" start >/dev/null ||
    fail "PostgreSQL did not start; $folder/log says why"
  DB_PID=$(head -n 1 "$data/postmaster.pid")
  DB_URL="jdbc:postgresql://127.0.0.1:$port/postgres?user=ironing&password=$password"
}

database_make() {
  local folder=$1 bin=$2 data=$3 word=$1/password.new
  rm -rf "$data"
  (umask 077 && head -c 32 /dev/urandom | base64 | tr -dc 'A-Za-z0-9' >"$word")
  if [ "$(id -u)" -eq 0 ]; then chown postgres "$word"; fi
  as_database_user "$bin/initdb" -D "$data" --username=ironing --pwfile="$word" --auth=scram-sha-256 \
    --encoding=UTF8 --locale=C.UTF-8 --no-instructions >"$folder/initdb.log" 2>&1 ||
    fail "PostgreSQL could not make its data; $folder/initdb.log says why"
  mv "$word" "$folder/password"
}

database_stop() {
  [ -n "${DB_PID:-}" ] || return 0
  # "fast": open sessions are ended, what was confirmed is kept
  kill -INT "$DB_PID" 2>/dev/null || true
  ended "$DB_PID" 30 || kill -QUIT "$DB_PID" 2>/dev/null || true
  DB_PID=
}
