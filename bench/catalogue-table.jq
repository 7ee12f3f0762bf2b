# What a large catalogue costs, beside its targets.
def row($what; $is; $unit; $most):
  "| \($what) | \($is)\($unit) | at most \($most)\($unit): \(if $is <= $most then "met" else "NOT MET" end) |";
$c[0] as $c
| row("first look from loopback"; $c.firstLookMs; " ms"; 30000),
  row("a look at which 3 of 256 parts have changed"; $c.changedMs; " ms"; 500),
  row("its requests, with a signature one more"; $c.changedRequests; ""; 4),
  row("a look at which nothing has changed"; $c.unchangedMs; " ms"; 50),
  row("search for the beginning of a common word"; $c.searchCommonMs; " ms"; 100),
  row("search for two of them"; $c.searchTwoMs; " ms"; 100),
  row("search that is narrowed to what fits and needs nothing more"; $c.searchNarrowedMs; " ms"; 100),
  row("search that finds one"; $c.searchOneMs; " ms"; 100),
  row("the newest with a tag"; $c.newestMs; " ms"; 100),
  row("what a choice of three among 20,000 brings with it"; $c.choiceMs; " ms"; 300),
  row("what is missing, all of it"; $c.missingMs; " ms"; 1000),
  row("heap grown"; $heap[0].grownMiB; " MiB"; 200),
  "| a download of 512 MiB, beside curl, tee and sha256sum | \($c.downloadMs) ms, \($c.curlMs) ms | at least 0.8 times as fast: \(if $c.curlMs / $c.downloadMs >= 0.8 then "met" else "NOT MET" end) |"
