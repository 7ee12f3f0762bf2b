-- Catalogues: what is offered elsewhere. The list of a catalogue is here as it was when it was last looked at.
create table catalogue (
  id bigint generated always as identity primary key,
  workspace_id bigint not null references workspace (id) on delete cascade,
  -- the address of its catalogue.json, or the folder in which that lies
  address text not null,
  title text not null default '',
  -- in this order something that is needed is looked for
  position int not null,
  is_daily boolean not null default false,
  added_at timestamptz not null default now(),
  -- what the next state is held to; all null before the first
  key text,
  sequence bigint,
  state_sha256 text,
  etag text,
  state text,
  taken_at timestamptz,
  -- the last look, and what came of it
  looked_at timestamptz,
  look text,
  unique (workspace_id, address)
);

create table catalogue_part (
  catalogue_id bigint not null references catalogue (id) on delete cascade,
  sha256 text not null,
  mods int not null,
  mistakes text not null,
  -- a mod of it was left out, since another part has it
  is_repeating boolean not null,
  primary key (catalogue_id, sha256)
);

create table offered_mod (
  catalogue_id bigint not null references catalogue (id) on delete cascade,
  mod text not null,
  part text not null,
  name text not null,
  game text not null,
  tags text[] not null,
  authors text[] not null,
  -- the day of its newest release, empty where no release names one
  newest_at text not null,
  -- its releases: each version, and its variant behind a blank where it has one
  versions text[] not null,
  -- the ranges of the game's versions that its releases are for
  ranges text[] not null,
  -- what its newest release needs: mod, variant or *, range, with a blank between
  needs text[] not null,
  words tsvector not null,
  -- the line of the part
  line text not null,
  primary key (catalogue_id, mod)
);
create index offered_mod_part on offered_mod (catalogue_id, part);
-- many at a time are put into it; what waits is put in at the end of each look
create index offered_mod_words on offered_mod using gin (words) with (gin_pending_list_limit = 65536);
create index offered_mod_newest on offered_mod (catalogue_id, newest_at desc, mod);

create table offered_range (
  catalogue_id bigint not null references catalogue (id) on delete cascade,
  range text not null,
  primary key (catalogue_id, range)
);

create table offered_need (
  catalogue_id bigint not null references catalogue (id) on delete cascade,
  mod text not null,
  need text not null,
  primary key (catalogue_id, mod, need)
);

-- What is fetched, and what was. The bytes that have come lie in a file named by its number.
create table download (
  id bigint generated always as identity primary key,
  workspace_id bigint not null references workspace (id) on delete cascade,
  catalogue_id bigint references catalogue (id) on delete set null,
  mod text not null,
  version text not null,
  -- of the archive
  name text not null,
  href text not null,
  size_bytes bigint not null,
  sha256 text not null,
  -- waiting, running, paused, resting, done, failed
  state text not null,
  -- what the bytes that are here were told to be part of
  etag text,
  problem text,
  position bigint not null,
  asked_at timestamptz not null default now(),
  ended_at timestamptz,
  archive_id bigint
);
create unique index download_at_once on download (workspace_id, sha256) where state <> 'done';

-- Choices that are being followed: gone on with after a restart.
create table getting (
  id bigint generated always as identity primary key,
  workspace_id bigint not null references workspace (id) on delete cascade,
  choice text not null
);
