# The figures of the large workspace as rows of a table in Markdown.
def core($n): [$jmh[0][] | select(.benchmark | endswith("LargeBench." + $n)).primaryMetric.score][0];
def row($what; $is; $most): "| \($what) | \($is * 10 | round / 10) | at most \($most): \(if $is <= $most then "met" else "NOT MET" end) |";
$api[0] as $a | $library[0] as $l | $page[0] as $p | $start[0] as $s | $sort[0] as $o |
row("all overlaps, in the core, ms"; core("allOverlaps"); 300),
row("one move with its difference, in the core, ms"; core("move"); 10),
row("one switch, in the core, ms"; core("switchOff"); 10),
row("one ruling, in the core, ms"; core("rule"); 10),
row("one move through the API, ms"; $a.moveMs; 60),
row("one switch through the API, ms"; $a.switchMs; 60),
row("the contested folders through the API, ms"; $a.overlapsMs; 300),
row("Layers after a mod of 500 files was installed, ms"; $l.installedMs; 150),
row("Layers after a text was edited, ms"; $l.editedMs; 60),
row("Layers after a file was held back, ms"; $l.heldMs; 60),
row("Layers after a mod was removed, ms"; $l.removedMs; 60),
"| a start of the server to its first answer, ms, five runs | \($s.startMs | join(", ")) | |",
row("opening cold: from there to the first rows of Layers, with reading the workspace, ms, the median of \($s.rowsMs | sort | join(", "))";
  $s.rowsMs | sort | .[2]; 3000),
"| the same when nothing is kept of its files, as at the first start after an update, ms, three runs | \($s.anewMs | join(", ")) | |",
row("heap of the server after a collection, MiB"; $s.heap; 1024),
row("contested paths of a file of a million, ms, beside sort and uniq -d"; $o.oursMs; $o.sortMs),
"| page: opening Layers in a new browser once it is in memory, ms | \($p.openedMs) | |",
row("page: longest task while scrolling, ms (0: under 50)"; $p.scrollMs; 50),
row("page: longest task while a row is carried, ms (0: under 50)"; $p.dragMs; 50),
row("page: a letter in the filter to the frame after, ms"; $p.letterMs; 100)
