# From lines of figures (slurped) and targets to a table in Markdown: one row a measure, one column a world.
def worlds: ["demo", "75 mods", "300 mods"];
def measures: reduce .[].measure as $m ([]; if index($m) then . else . + [$m] end);
def cell: if . == null then "" else "\(.medianMs) (\(.p95Ms))" end;
def verdict($f): [$targets[0][] | . as $t | ($f[] | select(.measure == $t.measure and .world == $t.world)) as $x
    | {m: $t.measure, text: "\($t.world) < \($t.below): \(if $x.medianMs < $t.below then "met" else "NOT MET" end)"}];
. as $f | verdict($f) as $v |
"| measure, median ms (95th percentile) | \(worlds | join(" | ")) | target |",
"|---|\(worlds | map("--:") | join("|"))|---|",
(measures[] as $m |
  "| \($m) | \([worlds[] as $w | [$f[] | select(.measure == $m and .world == $w)][0] | cell] | join(" | ")) | \([$v[] | select(.m == $m).text] | join("; ")) |")
