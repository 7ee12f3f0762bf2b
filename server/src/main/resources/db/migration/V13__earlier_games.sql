-- The unmodded game as it was before an update of it was taken in.
create table earlier_game (
  id           bigint generated always as identity primary key,
  workspace_id bigint      not null references workspace on delete cascade,
  -- empty where the game does not tell
  version      text        not null,
  until        timestamptz not null default now(),
  -- what the update did
  changed      int         not null,
  added        int         not null,
  gone         int         not null
);
create index on earlier_game (workspace_id, id);

create table earlier_game_file (
  earlier_id  bigint not null references earlier_game on delete cascade,
  pack        text   not null,
  path        text   not null,
  size_bytes  bigint not null,
  modified_ms bigint not null,
  sha256      text   not null,
  primary key (earlier_id, pack, path)
);
