-- Files of the game folder that are not as deployed, and that the user wants left as they are.
create table left_alone (
  workspace_id bigint      not null references workspace on delete cascade,
  path         text        not null,
  -- of what lay there: another content is told again
  sha256       text        not null,
  at           timestamptz not null default now(),
  primary key (workspace_id, path)
);
