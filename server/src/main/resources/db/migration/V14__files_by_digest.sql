-- Whatever was worked out from the files of a workspace and kept elsewhere is known by these to be of today.
alter table mod_index add column digest bytea generated always as (sha256(files)) stored;

-- The files of the game in one row, as those of a mod are: made when it is first needed, gone when one of them changes.
create table game_index (
  workspace_id bigint primary key references workspace on delete cascade,
  files        bytea not null,
  digest       bytea generated always as (sha256(files)) stored
);
alter table game_index alter column files set storage external;

create function forget_game_index() returns trigger language plpgsql as $$
begin
  delete from game_index where workspace_id in (select workspace_id from changed);
  return null;
end $$;
create trigger game_file_added after insert on game_file referencing new table as changed
  for each statement execute function forget_game_index();
create trigger game_file_changed after update on game_file referencing new table as changed
  for each statement execute function forget_game_index();
create trigger game_file_gone after delete on game_file referencing old table as changed
  for each statement execute function forget_game_index();

-- All files that a workspace's picture is made from; those of the game as if it were the mod 0.
create view file_index as
  select workspace_id, 0::bigint as mod_id, files, digest from game_index
  union all
  select m.workspace_id, i.mod_id, i.files, i.digest
  from mod_index i join mod m on m.id = i.mod_id where m.binned_at is null;
