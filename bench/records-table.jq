# The rows of the table about records: what, how long, and the target.
def row($what; $is; $most; $unit): "| \($what) | \($is) \($unit) | at most \($most) \($unit): \(if $is <= $most then "met" else "NOT MET" end) |";
def bare($what; $is): "| \($what) | \($is) | |";
$core[0] as $c | $api[0] as $a |
row("indexing all in a program that has just started (\($c.mbPerS) MB/s)"; $c.coldMs; 6000; "ms"),
row("indexing when one plugin has changed, median"; $c.oneChangedMs; 300; "ms"),
row("all collisions from the index, median (\($c.overridden) overridden records, \($c.contested) of them contested)"; $c.collisionsMs; 500; "ms"),
bare("all collisions, the first time in a program that has just started"; "\($c.firstCollisionsMs) ms"),
row("merging 50 plugins of 10,000 records, median"; $c.mergeMs; 3000; "ms"),
row("heap that the index and the collisions hold"; $c.heapMiB; 1536; "MiB"),
row("HTTP: opening a record, median"; $a.openMs; 50; "ms"),
row("HTTP: opening a record that many plugins change, median"; $a.openContestedMs; 50; "ms"),
row("HTTP: the slowest of 80 records"; ([$a.openSlowestMs, $a.openContestedSlowestMs] | max); 50; "ms"),
bare("HTTP: the counts; the list of what needs the user; a search by name, medians"; "\($a.countsMs); \($a.listMs); \($a.findMs) ms"),
row("heap that the server holds more for it"; $heap[0].grownMiB; 1536; "MiB")
