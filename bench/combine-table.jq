# The rows of the table about combined files: what, how long, and the target.
def row($what; $is; $ok; $target): "| \($what) | \($is) | \($target): \(if $ok then "met" else "NOT MET" end) |";
def times($a; $b): ($a / $b * 10 | round) / 10;
row("2,000 texts of 400 lines, ms, beside \(.manyGitMs) with as many processes of git merge-file"; "\(.manyMs) (\(times(.manyGitMs; .manyMs)) times as fast)";
  .manyGitMs / .manyMs >= 15; "at least 15 times"),
row("two texts of 50,000 lines, ms, beside \(.longGitMs) with one process of git merge-file"; "\(.longMs)"; .longMs <= 2 * .longGitMs; "at most 2 times"),
row("three tables of 200,000 rows, ms"; "\(.tableMs)"; .tableMs <= 1000; "at most 1000"),
row("three JSON files of \(.jsonMiB) MiB, ms"; "\(.jsonMs)"; .jsonMs <= 4000; "at most 4000"),
row("the heap that they take meanwhile, MiB"; "\(.jsonHeapMiB)"; .jsonHeapMiB < 600; "under 600")
