# The figures of the load order as rows of a table in Markdown: medians in ms, at each number of plugins that stand wrong.
def median($n; $d): [.[] | select((.benchmark | endswith("ProposalBench." + $n)) and .params.displaced == $d)
  | .primaryMetric.scorePercentiles["50.0"]][0];
def row($what; $is; $most): "| \($what) | \($is * 10 | round / 10) | at most \($most * 10 | round / 10): \(if $is <= $most then "met" else "NOT MET" end) |";
. as $all | ("40", "200") as $d | $all |
row("\($d) displaced: the whole proposal with its reasons, ms"; median("proposal"; $d); 150),
row("\($d) displaced: whether there is an order, ms, beside JGraphT’s \(median("jgrapht"; $d) * 10 | round / 10)"; median("feasible"; $d); 2 * median("jgrapht"; $d)),
row("\($d) displaced: a move looked over anew, ms"; median("moveLookedOver"; $d); 5)
