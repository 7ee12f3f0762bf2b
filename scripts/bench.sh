#!/usr/bin/env bash
# Measures the product and prints the figures beside their targets; called by ./ironing bench.
# All of it is one run on one machine: the demo, and made-up worlds of 75 and of 300 mods with 200 files each.
set -euo pipefail
ROOT=$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)
WORK=$(mktemp -d "${TMPDIR:-/tmp}/ironing-bench.XXXXXX")
# the database's account must be able to enter
chmod 755 "$WORK"
export IRONING_HOME=$WORK/home
cd "$ROOT"
. scripts/machine.sh
. scripts/build.sh
IRONING_PORT=$(free_port)
export IRONING_PORT
URL=http://127.0.0.1:$IRONING_PORT
FIGURES=$WORK/figures.jsonl
STARTED=

finish() {
  trap - EXIT INT TERM
  ./ironing stop >/dev/null 2>&1 || true
  rm -rf "$WORK"
}
trap finish EXIT
trap 'exit 130' INT
trap 'exit 143' TERM

# start_demo MEASURE: starts the product and notes how long it took to a page that answers.
start_demo() {
  local began=${EPOCHREALTIME/./} took
  ./ironing demo >"$WORK/said" 2>&1 &
  STARTED=$!
  until http_ok "$IRONING_PORT" / '<html' && grep -q workspaces/ "$WORK/said"; do
    kill -0 "$STARTED" 2>/dev/null || fail "Ironing did not start: $(cat "$WORK/said")"
    sleep 0.05
  done
  took=$(((${EPOCHREALTIME/./} - began) / 1000))
  figure "$1" demo "$took"
}

figure() { # MEASURE WORLD MILLISECONDS
  jq -nc --arg measure "$1" --arg world "$2" --argjson ms "$3" \
    '{$measure, $world, times: 1, medianMs: $ms, p95Ms: $ms}' >>"$FIGURES"
}

bench_java() {
  java -cp "$ROOT/bench/target/classes:$(cat "$ROOT/bench/target/classpath")" "$@"
}

# world NAME FOLDER: every measurement of one world.
world() {
  say "· $1"
  bench_java ironing.bench.ProductBench "$URL" "$1" "$2" >>"$FIGURES"
  node bench/page.mjs "$URL" "$1" "$2" >>"$FIGURES"
}

# hands WORLD FOLDER: what working in Layers of a world feels like.
hands() {
  local id
  id=$(curl -sf "$URL/api/workspaces" | jq --arg folder "$(realpath "$2")/" '.[] | select(.folder | startswith($folder)).id')
  node bench/hands.mjs "$URL" "$id" | jq -c --arg world "$1" '. + {$world}' >>"$WORK/hands.jsonl"
}

# large: two thousand mods and a million files, put into the database as installing them would; restarted, then measured.
large() {
  local folder=$WORK/one game workspace archive id kept
  bench_java ironing.bench.ScaleWorld "$folder" 1 200
  game=$(realpath "$folder/game")
  workspace=$(json_post /workspaces "{\"folder\":\"$game\"}" | jq .result)
  archive=$(ls "$folder"/archives/*)
  id=$(curl -sf -H 'Content-Type: application/octet-stream' --data-binary "@$archive" \
    "$URL/api/workspaces/$workspace/archives?name=one.zip" | jq .id)
  json_post "/workspaces/$workspace/mods" "{\"archive\":$id}" >/dev/null
  bench_java ironing.bench.LargeSql "$workspace" |
    PGPASSWORD=$(cat "$IRONING_HOME/postgres/password") psql -q -h 127.0.0.1 -p "$(cat "$IRONING_HOME/postgres/port")" \
      -U ironing postgres >/dev/null
  # the first load packs the files of each mod into one row
  curl -sf "$URL/api/workspaces/$workspace/layers" >/dev/null
  wait_kept "$workspace"
  kept=$(kept_of "$workspace")
  ./ironing stop >/dev/null
  for _ in 1 2 3; do
    rm -f "$kept"
    opening "$workspace" >>"$WORK/large-anew.jsonl"
    ./ironing stop >/dev/null
  done
  opening "$workspace" >/dev/null
  wait_kept "$workspace"
  ./ironing stop >/dev/null
  for _ in 1 2 3 4; do
    opening "$workspace" >>"$WORK/large-openings.jsonl"
    ./ironing stop >/dev/null
  done
  opening "$workspace" >>"$WORK/large-openings.jsonl"
  bench_java ironing.bench.LargeApi "$URL" "$workspace" >"$WORK/large-api.json"
  bench_java ironing.bench.LargeLibrary "$URL" "$workspace" "$WORK" >"$WORK/large-library.json"
  node bench/large-list.mjs "$URL" "$workspace" layers >"$WORK/large-layers.json"
  hands "2,000 mods" "$folder"
  jq -n --slurpfile kept "$WORK/large-openings.jsonl" --slurpfile anew "$WORK/large-anew.jsonl" --argjson heap "$(live_heap)" \
    '{startMs: $kept | map(.startMs), rowsMs: $kept | map(.rowsMs), anewMs: $anew | map(.rowsMs), $heap}' >"$WORK/large-start.json"
  ./ironing stop >/dev/null
}

# kept_of WORKSPACE: the file in which its files are kept for the next start; nothing while there is none.
kept_of() {
  if [ -d "$IRONING_HOME/kept" ]; then find "$IRONING_HOME/kept" -name "$1.files"; fi
}

# wait_kept WORKSPACE: it is kept once it has stayed as it is for some time.
wait_kept() {
  for _ in $(seq 60); do
    [ -z "$(kept_of "$1")" ] || return 0
    sleep 1
  done
  fail "the files of workspace $1 are not kept"
}

# opening WORKSPACE: starts the server; how long to its first answer, and, in a browser that is there before and asks then, from
# that to the first rows of Layers. The server begins to read the workspace when it answers.
opening() {
  local began start page
  node bench/opening.mjs "$URL" "$1" >"$WORK/opening.json" &
  page=$!
  sleep 3
  began=${EPOCHREALTIME/./}
  ./ironing start >"$WORK/said" 2>&1 &
  STARTED=$!
  until http_ok "$IRONING_PORT" /actuator/health '"UP"'; do sleep 0.05; done
  start=$(((${EPOCHREALTIME/./} - began) / 1000))
  wait "$page"
  jq -c --argjson startMs "$start" '. + {$startMs}' "$WORK/opening.json"
}

# large_order: a load order of four thousand plugins in the page.
large_order() {
  local folder=$WORK/order workspace id
  bench_java ironing.bench.LargeOrder "$folder" 4000
  workspace=$(json_post /workspaces "{\"folder\":\"$(realpath "$folder/game")\"}" | jq .result)
  id=$(curl -sf -H 'Content-Type: application/octet-stream' --data-binary "@$folder/plugins.zip" \
    "$URL/api/workspaces/$workspace/archives?name=plugins.zip" | jq .id)
  json_post "/workspaces/$workspace/mods" "{\"archive\":$id}" >/dev/null
  node bench/large-list.mjs "$URL" "$workspace" load-order >"$WORK/large-order.json"
}

# large_records: two million records in fifteen hundred plugins: the core alone, in a program that has just started,
# and the same over HTTP.
large_records() {
  local folder=$WORK/records workspace before
  bench_java ironing.bench.LargeRecords "$folder" 1500 2000000 >/dev/null
  # what was just written must not go to the disk while it is read
  sync -f "$folder"
  cat "$folder"/game/data/* >/dev/null
  taskset -c 0,1 java -Xmx3g -cp "$ROOT/bench/target/classes:$(cat "$ROOT/bench/target/classpath")" \
    ironing.bench.RecordsBench "$folder" >"$WORK/records.json"
  before=$(live_heap)
  workspace=$(json_post /workspaces "{\"folder\":\"$(realpath "$folder/game")\"}" | jq .result)
  bench_java ironing.bench.RecordsApi "$URL" "$workspace" >"$WORK/records-api.json"
  jq -n --argjson before "$before" --argjson after "$(live_heap)" '{grownMiB: ($after - $before)}' >"$WORK/records-heap.json"
  rm -r "$folder"
}

# documents: four hundred thousand records in twenty thousand files of open text, in a program that has just started.
documents() {
  taskset -c 0,1 java -Xmx3g -cp "$ROOT/bench/target/classes:$(cat "$ROOT/bench/target/classpath")" \
    ironing.bench.Documents "$WORK/documents" >"$WORK/documents.json"
  rm -r "$WORK/documents"
}

# catalogue: two hundred thousand mods on offer, in a database of their own.
catalogue() {
  local home=$IRONING_HOME folder=$WORK/large-catalogue before
  export IRONING_HOME=$WORK/catalogue-home
  mkdir -p "$folder"
  start_server
  before=$(live_heap)
  bench_java ironing.bench.LargeCatalogue "$URL" "$folder" >"$WORK/catalogue.json"
  jq -n --argjson before "$before" --argjson after "$(live_heap)" '{grownMiB: ($after - $before)}' >"$WORK/catalogue-heap.json"
  ./ironing stop >/dev/null
  rm -r "$folder"
  export IRONING_HOME=$home
}

# judged: updates of twenty of two thousand mods, in a database of their own.
judged() {
  local home=$IRONING_HOME folder=$WORK/judged-updates
  export IRONING_HOME=$WORK/judged-home
  mkdir -p "$folder"
  start_server
  bench_java ironing.bench.JudgedUpdates "$URL" "$folder" >"$WORK/judged.json"
  ./ironing stop >/dev/null
  rm -r "$folder"
  export IRONING_HOME=$home
}

# trials: what a search costs besides the game, in a database of its own.
trials() {
  local home=$IRONING_HOME folder=$WORK/trials
  export IRONING_HOME=$WORK/trials-home
  mkdir -p "$folder"
  start_server
  bench_java ironing.bench.Trials "$URL" "$folder" >"$WORK/trials.json"
  ./ironing stop >/dev/null
  rm -r "$folder"
  export IRONING_HOME=$home
}

# fifty: fifty workspaces of 20,000 files, in a database of their own: each is opened once, then the heap is looked at.
fifty() {
  local home=$IRONING_HOME folder=$WORK/fifty-games n archive id
  export IRONING_HOME=$WORK/fifty
  start_server
  bench_java ironing.bench.ScaleWorld "$folder" 1 200
  for n in $(seq 50); do
    cp -r "$folder/game" "$folder/$n"
    json_post /workspaces "{\"folder\":\"$(realpath "$folder/$n")\"}" >/dev/null
  done
  archive=$(ls "$folder"/archives/*)
  id=$(curl -sf -H 'Content-Type: application/octet-stream' --data-binary "@$archive" \
    "$URL/api/workspaces/1/archives?name=one.zip" | jq .id)
  json_post /workspaces/1/mods "{\"archive\":$id}" >/dev/null
  PGPASSWORD=$(cat "$IRONING_HOME/postgres/password") psql -q -h 127.0.0.1 -p "$(cat "$IRONING_HOME/postgres/port")" \
    -U ironing postgres <bench/fifty.sql >/dev/null
  ./ironing stop >/dev/null
  start_server
  for n in $(seq 50); do curl -sf "$URL/api/workspaces/$n/layers" >/dev/null; done
  live_heap >"$WORK/fifty-heap"
  ./ironing stop >/dev/null
  export IRONING_HOME=$home
}

start_server() {
  ./ironing start >"$WORK/said" 2>&1 &
  STARTED=$!
  until http_ok "$IRONING_PORT" /actuator/health '"UP"'; do sleep 0.05; done
}

# live_heap: MiB that the server holds after a collection.
live_heap() {
  local pid=$(cat "$IRONING_HOME/server.pid") heap
  jcmd "$pid" GC.run >/dev/null
  heap=$(jcmd "$pid" GC.heap_info | sed -n 's/.*used \([0-9]*\)K.*/\1/p' | head -n 1)
  echo $((heap / 1024))
}

json_post() { # PATH BODY
  curl -sf -X POST -H 'Content-Type: application/json' -H 'Prefer: wait=120' -d "$2" "$URL/api$1"
}

# cpu_ticks: of all processors since the machine started: all of them, and those that went to other machines on its host.
cpu_ticks() {
  awk '/^cpu /{print $2+$3+$4+$5+$6+$7+$8+$9, $9}' /proc/stat
}

read -r TICKS STOLEN < <(cpu_ticks)
require_programs
require_packages chromium curl jq unzip 7zz=7zip git
build_product
maven -pl bench -am -DskipTests -Dspotless.check.skip=true package || fail "bench could not be built"
npm_install
say "Measuring …"
start_demo "first start, with the demo to bring in"
./ironing stop >/dev/null
wait "$STARTED" || true
start_demo "second start, to a page that answers"
world demo "$IRONING_HOME/demo"
hands demo "$IRONING_HOME/demo"
for mods in 75 300; do
  bench_java ironing.bench.ScaleWorld "$WORK/scale-$mods" "$mods" $((mods * 200))
  world "$mods mods" "$WORK/scale-$mods"
done
hands "300 mods" "$WORK/scale-300"
say "· a mod of 50,000 files"
bench_java ironing.bench.LargeMod "$WORK/large.zip" 50000
node bench/large-mod.mjs "$URL" "$IRONING_HOME/demo" "$WORK/large.zip" >"$WORK/large.json"
say "· two thousand mods, a million files"
large
say "· fifty workspaces"
catalogue
judged
trials
fifty
say "· four thousand plugins"
start_server
large_order
say "· two million records"
large_records
documents
say "· many small archives, beside unzip"
bench_java ironing.bench.ManyArchives "$URL" "$WORK/many" >"$WORK/many.jsonl"
rm -rf "$WORK/many"
./ironing stop >/dev/null
say "· paths, beside sort and uniq"
bench_java -Xmx1g ironing.bench.SortBench "$WORK/paths.txt" >"$WORK/sort.json"
rm "$WORK/paths.txt"
say "· installing, beside other programs"
bench_java ironing.bench.InstallBench "$WORK/install" >"$WORK/install.jsonl"
say "· combining files, beside git merge-file"
taskset -c 0,1 java -Xmx3g -cp "$ROOT/bench/target/classes:$(cat "$ROOT/bench/target/classpath")" \
  ironing.bench.CombineBench "$WORK/combine" >"$WORK/combine.json"
say "· deploying, beside cp -al, sha256sum and rm -rf"
taskset -c 0,1 java -Xmx3g -cp "$ROOT/bench/target/classes:$(cat "$ROOT/bench/target/classpath")" \
  ironing.bench.DeployBench "$WORK/deploying" >"$WORK/deploying.json"
say "· the core"
bench_java org.openjdk.jmh.Main 'ironing.bench.(Move|Large)Bench' -v SILENT -rf json -rff "$WORK/jmh.json" >"$WORK/jmh.log" 2>&1 ||
  fail "the core was not measured: $(tail -n 5 "$WORK/jmh.log")"
say "· the load order, on one core"
taskset -c 0 java -cp "$ROOT/bench/target/classes:$(cat "$ROOT/bench/target/classpath")" \
  org.openjdk.jmh.Main 'ironing.bench.ProposalBench' -v SILENT -rf json -rff "$WORK/proposal.json" >"$WORK/jmh.log" 2>&1 ||
  fail "the load order was not measured: $(tail -n 5 "$WORK/jmh.log")"

read -r ticks stolen < <(cpu_ticks)
echo "$(date +%F), $(nproc) cores, $(java -version 2>&1 | head -n 1), commit $(git rev-parse --short HEAD 2>/dev/null || echo unknown)."
echo "Of the processors' time, $((100 * (stolen - STOLEN) / (ticks - TICKS))) % went to other machines on the same host."
echo
jq -rs --slurpfile targets bench/targets.json -f bench/table.jq "$FIGURES"
echo
cat "$WORK/install.jsonl" "$WORK/many.jsonl" | jq -rs -f bench/install-table.jq
echo
jq -r '"A mod of 50,000 files, open in the page: the longest task of its thread is \(.longestTaskMs) ms (target: at most 100) " +
  "while it opens, scrolls, unfolds and is searched; its tree is there after \(.openedMs) ms."' "$WORK/large.json"
echo
echo "| two thousand mods, a million files, 30 % contested | measured | target |"
echo "|---|--:|---|"
jq -rn --slurpfile api "$WORK/large-api.json" --slurpfile library "$WORK/large-library.json" --slurpfile page "$WORK/large-layers.json" --slurpfile start "$WORK/large-start.json" \
  --slurpfile sort "$WORK/sort.json" --slurpfile jmh "$WORK/jmh.json" -f bench/large-table.jq
echo
echo "| working in Layers, two hundred acts of keys and pointer | first row in a fresh browser, ms | acts, 95th percentile to the frame, ms (at most 100) | longest task, ms (at most 50) | shift (at most 0.02) | a move: requests (1) | bytes (at most 20,000) | ten tabs, a move until the last shows it, ms |"
echo "|---|--:|--:|--:|--:|--:|--:|--:|"
jq -r '"| \(.world) | \(.firstRowMs) | \(.eventP95Ms) | \(.longestTaskMs) | \(.shift) | \(.moveRequests) | \(.moveBytes) | \(.tenTabsMs) |"' "$WORK/hands.jsonl"
echo
echo "| a catalogue of 200,000 mods and 600,000 releases, 300 mods installed | measured | target |"
echo "|---|--:|---|"
jq -rn --slurpfile c "$WORK/catalogue.json" --slurpfile heap "$WORK/catalogue-heap.json" -f bench/catalogue-table.jq
echo
jq -r '"A search among 2,000 mods takes \(.sets) sets, each worked out in at most \(.longestNextMs) ms (target: at most 50). A set put into a folder of " +
  "200,000 files, the game started: " + ([.steps[] | "\(.files) files other, \(.ms) ms"] | join("; ")) + " (target: 300 ms where 500 differ; 1.3 times what cp -al and rm take where 100,000 do: \(.cpMs) and \(.rmMs) ms)."' "$WORK/trials.json"
jq -r '"Two thousand mods, of which a catalogue has \(.judged) newer: judging these together, once they are unpacked, takes \(.judgeMs) ms (target: at most 3,000); " +
  "what is newer is told in \(.updatesMs) ms, how all mods stand with the game in \(.standMs) ms."' "$WORK/judged.json"
echo
echo "Fifty workspaces of 20,000 files, all opened: $(cat "$WORK/fifty-heap") MiB of the heap after a collection (target: under 700)."
echo
echo "| two million records of 300 bytes in 1,500 plugins, two cores | measured | target |"
echo "|---|--:|---|"
jq -rn --slurpfile core "$WORK/records.json" --slurpfile api "$WORK/records-api.json" --slurpfile heap "$WORK/records-heap.json" \
  -f bench/records-table.jq
echo
jq -r '"Plugins of open text, two cores: \(.records) records in 20,000 files of \(.mb) MB are indexed at \(.mbPerSecond) MB/s in a program that has just started (target: 40), " +
  "again after one change in \(.changedMs) ms (300); a record is laid open in \(.openedMs) ms (50); a table of 50,000 rows is read in \(.tableMs) ms (200)."' "$WORK/documents.json"
echo
echo "| combining files, two cores | median | target |"
echo "|---|--:|---|"
jq -r -f bench/combine-table.jq "$WORK/combine.json"
echo
echo "| 200,000 files of 400 mods, two cores; each side with sync -f | median ms | times | target |"
echo "|---|--:|--:|---|"
jq -r -f bench/deploy-table.jq "$WORK/deploying.json"
echo
echo "| load order of 4,000 plugins with 40,000 rules, one core | median | target |"
echo "|---|--:|---|"
jq -r -f bench/proposal-table.jq "$WORK/proposal.json"
jq -r 'def row($what; $is): "| page, 4,000 plugins: \($what), ms (0: under 50) | \($is) | at most 50: \(if $is <= 50 then "met" else "NOT MET" end) |";
  row("longest task while scrolling"; .scrollMs), row("longest task while a row is carried"; .dragMs)' "$WORK/large-order.json"
echo
echo "| one move in the core, mean ms | from the picture before | made anew |"
echo "|---|--:|--:|"
jq -r '[.[] | select(.params.mods)] | group_by(.params.mods | tonumber)[] | . as $g
  | ($g[0].params.mods | tonumber) as $mods
  | def ms($n): [$g[] | select(.benchmark | endswith($n)).primaryMetric.score][0] | . * 1000 | round / 1000;
  "| \($mods) mods, \($mods * 200) files | \(ms("fromTheOneBefore")) | \(ms("madeAnew")) |"' "$WORK/jmh.json"
