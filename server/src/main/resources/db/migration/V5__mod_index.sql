-- What the picture needs of a mod's files, in one row: a workspace of a million files is read in two thousand rows.
-- It is made from mod_file when it is first needed, and gone when a file of the mod changes.
create table mod_index (
  mod_id bigint primary key references mod on delete cascade,
  files  bytea not null
);
-- it is packed already
alter table mod_index alter column files set storage external;

create function forget_mod_index() returns trigger language plpgsql as $$
begin
  delete from mod_index where mod_id in (select mod_id from changed);
  return null;
end $$;
create trigger mod_file_added after insert on mod_file referencing new table as changed
  for each statement execute function forget_mod_index();
create trigger mod_file_changed after update on mod_file referencing new table as changed
  for each statement execute function forget_mod_index();
create trigger mod_file_gone after delete on mod_file referencing old table as changed
  for each statement execute function forget_mod_index();
