# From lines of comparisons (slurped) to a table in Markdown.
"| installing, median ms | ours | beside | times | target |",
"|---|--:|--:|--:|---|",
(.[] | "| \(.measure) | \(.oursMs) | \(.besideMs) | \(.times) | at most \(.atMost): \(if .times <= .atMost then "met" else "NOT MET" end) |")
