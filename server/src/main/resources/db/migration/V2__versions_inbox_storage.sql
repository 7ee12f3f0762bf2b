-- Where the library of a workspace lies when its user chose a place; null: below the home.
alter table workspace add column library_folder text;
-- A folder of the user's in which new archives are looked for.
alter table workspace add column watched_folder text;

-- look: what looking into it came to, as JSON. binned_at: it lies in the bin.
alter table archive add column look text;
alter table archive add column binned_at timestamptz;

-- A file of a watched folder that was brought in, so that it is not offered again.
create table taken_in (
  workspace_id bigint not null references workspace on delete cascade,
  path         text   not null,
  size_bytes   bigint not null,
  modified_ms  bigint not null,
  archive_id   bigint not null references archive on delete cascade,
  primary key (workspace_id, path)
);

-- All versions and fittings of one mod that are here, and what its user says of it whichever is in use.
create table strand (
  id           bigint generated always as identity primary key,
  workspace_id bigint not null references workspace on delete cascade,
  tags         text   not null default '[]',
  notes        text   not null default '',
  of_mod       bigint
);
insert into strand (workspace_id, of_mod) select workspace_id, id from mod order by id;
alter table mod add column strand_id bigint references strand;
update mod set strand_id = s.id from strand s where s.of_mod = mod.id;
alter table mod alter column strand_id set not null;
alter table strand drop column of_mod;

-- card_given: as it came, whatever was edited since. choices: what the user decided of the archive's
-- contents. fitting: its questions and which conditions held. stood: its layer when it went to the bin.
alter table mod add column card_given text;
update mod set card_given = card;
alter table mod alter column card_given set not null;
alter table mod add column choices text not null default '{}';
alter table mod add column fitting text;
alter table mod add column binned_at timestamptz;
alter table mod add column stood text;

-- stored: where the bytes of an edited file lie below the mod's folder; given_*: what came in the archive.
alter table mod_file add column stored text;
alter table mod_file add column given_sha256 text;
alter table mod_file add column given_size bigint;

-- kept: it can still be read in the library. chosen: the user left it out.
alter table left_out add column size_bytes bigint not null default 0;
alter table left_out add column kept boolean not null default false;
alter table left_out add column chosen boolean not null default false;

-- Files, and folders with a / at the end, that the user keeps out of the game.
create table held_back (
  profile_id bigint not null references profile on delete cascade,
  mod_id     bigint not null references mod on delete cascade,
  path       text   not null,
  primary key (profile_id, mod_id, path)
);

-- By which versions of one mod are known for each other.
alter table mod add column card_id text generated always as ((card::jsonb) ->> 'id') stored;
create index on mod (workspace_id, card_id);
create index on mod (archive_id);
create index on mod (strand_id);
