-- Files of the game as they were before an update, with their bytes: what mods may have been made from.
create table former_file (
  workspace_id bigint not null references workspace on delete cascade,
  -- empty for a loose file
  pack         text   not null,
  path         text   not null,
  sha256       text   not null,
  content      bytea  not null,
  primary key (workspace_id, pack, path, sha256)
);
create index on former_file (workspace_id, sha256);
