# What this machine must have, and installing what it lacks. Sourced by ./ironing and the scripts beside it.

say() { printf '%s\n' "$*" >&2; }

fail() {
  say "ironing: $*"
  exit 1
}

# The newest PostgreSQL programs that Debian's package has put here; empty when there are none.
postgres_bin() {
  ls -d /usr/lib/postgresql/*/bin 2>/dev/null | sort -V | tail -n 1
}

# require_programs: JDK 17, Maven and Node are the user's own to choose, so they are only checked.
require_programs() {
  local missing=()
  command -v java >/dev/null && command -v javac >/dev/null || missing+=("a JDK, version 17 or later (Debian: default-jdk-headless)")
  command -v mvn >/dev/null || missing+=("Maven (Debian: maven)")
  command -v npm >/dev/null || missing+=("Node 20 with npm (Debian: npm)")
  [ ${#missing[@]} -eq 0 ] && return
  say "ironing: this machine lacks:"
  printf '  - %s\n' "${missing[@]}" >&2
  exit 2
}

# require_packages [PROGRAM[=PACKAGE]…]: PostgreSQL, and programs with the Debian package that they come in, where that
# has another name. Installed when we may, else named with the command to type.
require_packages() {
  local want=() program
  if [ -z "${IRONING_DB_URL:-}" ] && [ -z "$(postgres_bin)" ]; then want+=(postgresql); fi
  for program in "$@"; do
    command -v "${program%=*}" >/dev/null || want+=("${program#*=}")
  done
  command -v setpriv >/dev/null || want+=(util-linux)
  [ ${#want[@]} -eq 0 ] && return 0
  if [ "$(id -u)" -eq 0 ] && command -v apt-get >/dev/null; then
    say "Installing ${want[*]} …"
    local log
    log=$(mktemp)
    if apt-get update -qq >"$log" 2>&1 &&
      DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "${want[@]}" >>"$log" 2>&1; then
      rm -f "$log"
      return 0
    fi
    tail -n 20 "$log" >&2
    fail "apt-get could not install ${want[*]}; the whole of what it said is in $log"
  fi
  say "ironing: this machine lacks ${want[*]}. Type this, then start again:"
  say "  sudo apt-get update && sudo apt-get install -y ${want[*]}"
  exit 2
}

# default_home: where data is kept when IRONING_HOME does not say: in the checkout, unless root has it in a place such
# as /root, which the database's account cannot enter.
default_home() {
  if [ "$(id -u)" -eq 0 ] && ! setpriv --reuid=65534 --regid=65534 --clear-groups test -x "$ROOT" 2>/dev/null; then
    echo /var/lib/ironing
  else
    echo "$ROOT/.ironing-home"
  fi
}

# scratch_folder: where tests and measurements put what they make and throw away. In memory where there is plenty of it and
# programs may run there, since a disk takes far longer for many small files; else as TMPDIR says.
scratch_folder() {
  local place=/dev/shm probe free
  free=$(awk '/^MemAvailable:/ { print $2 }' /proc/meminfo 2>/dev/null || echo 0)
  if [ -z "${TMPDIR:-}" ] && [ "${free:-0}" -gt 8000000 ] && [ "$(df -Pk $place 2>/dev/null | awk 'NR == 2 { print $4 }')" -gt 4000000 ] &&
    probe=$(mktemp $place/ironing-probe.XXXXXX 2>/dev/null); then
    printf '#!/bin/sh\n' >"$probe" && chmod 700 "$probe"
    if "$probe" 2>/dev/null; then
      rm -f "$probe"
      echo $place
      return
    fi
    rm -f "$probe"
  fi
  echo "${TMPDIR:-/tmp}"
}

# free_port: a port on 127.0.0.1 that nobody listens on.
free_port() {
  local port
  for _ in $(seq 100); do
    port=$((20000 + RANDOM % 30000))
    if ! listens "$port"; then
      echo "$port"
      return
    fi
  done
  fail "no free port was found on 127.0.0.1"
}

# listens PORT: whether somebody listens there.
listens() {
  (exec 3<>"/dev/tcp/127.0.0.1/$1") 2>/dev/null
}

# http_ok PORT PATH TEXT: whether a GET is answered with 200 and a body that holds TEXT.
http_ok() {
  local answer
  answer=$(
    exec 2>/dev/null 3<>"/dev/tcp/127.0.0.1/$1" || exit 1
    printf 'GET %s HTTP/1.0\r\nHost: 127.0.0.1:%s\r\n\r\n' "$2" "$1" >&3
    timeout 5 cat <&3
  ) || return 1
  [[ $answer == "HTTP/1."?" 200"* && $answer == *"$3"* ]]
}

# ended PID SECONDS: waits until a process is gone; false when it outlives that.
ended() {
  local tenths=$(($2 * 10))
  while kill -0 "$1" 2>/dev/null; do
    [ $((tenths--)) -gt 0 ] || return 1
    sleep 0.1
  done
}
