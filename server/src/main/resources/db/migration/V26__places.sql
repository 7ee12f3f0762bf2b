-- Folders beside the game's own that belong to it, by what its definition calls them.
create table workspace_place (
  workspace_id bigint not null references workspace on delete cascade,
  place text not null,
  folder text not null,
  primary key (workspace_id, place)
);
