-- While the library of a workspace moves: the place that is not, or no longer, the library. A crash leaves it to the
-- next start.
alter table workspace add column library_litter text;
