# The rows of the table about deploying: what, how long, and the target beside what other programs take.
def times($a; $b): ($a / $b * 100 | round) / 100;
def row($what; $is; $beside; $most): "| \($what) | \($is) | \(times($is; $beside)) | at most \($most) times: \(if $is <= $most * $beside then "met" else "NOT MET" end) |";
row("first deployment, plan included"; .deployMs; .cpMs; 1.25),
row("nothing changed, by the note"; .nothingMs; .cpMs; 0.15),
row("nothing changed, with the quick check"; .quickNothingMs; .cpMs; 0.5),
"| one mod of 500 files switched | \(.oneModMs) | | at most 300 ms: \(if .oneModMs <= 300 then "met" else "NOT MET" end) |",
row("quick verify"; .quickMs; .cpMs; 0.5),
row("thorough verify, beside \(.sumsMs) ms of sha256sum"; .thoroughMs; .sumsMs; 1.2),
"| undeploy, beside rm -rf | | \(.undeployTimes) | at most 2 times: \(if .undeployTimes <= 2 then "met" else "NOT MET" end) |",
"| growth of the live heap, MiB | \(.heapMiB) | | under 500: \(if .heapMiB < 500 then "met" else "NOT MET" end) |"
