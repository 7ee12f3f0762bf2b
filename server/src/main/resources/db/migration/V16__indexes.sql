-- What was undone is looked for at every change, the runs of a workspace by every page.
create index on change (profile_id, id) where state = 'undone';
create index on run (workspace_id, id);
