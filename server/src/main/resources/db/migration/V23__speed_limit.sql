-- How many bytes a second all downloads of a workspace together may take; null for as many as come.
alter table workspace add column fetch_bytes_a_second bigint check (fetch_bytes_a_second > 0);
