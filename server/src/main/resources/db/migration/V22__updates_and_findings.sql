-- What an offered mod is found by besides its id.
alter table offered_mod
  -- the first 15 digits of the SHA-256 of each archive, as a number
  add column files bigint[] not null default '{}',
  -- the mods that it is a bridge for
  add column sides text[] not null default '{}';
-- A line may say more than is read, and what it says there may be nothing that the database can hold: such a mod is found
-- by its id alone until its part is read again.
create function pg_temp.read_line(line text) returns jsonb language plpgsql as
$$ begin return line::jsonb; exception when others then return '{}'; end $$;
update offered_mod set
  files = array(
    select ('x' || left(s #>> '{}', 15))::bit(60)::bigint
    from jsonb_path_query(pg_temp.read_line(line), '$.releases[*].file.sha256') s),
  sides = array(
    select distinct s #>> '{}'
    from jsonb_path_query(pg_temp.read_line(line), '$.releases[*].for[*].mod') s);
create index offered_mod_sides on offered_mod using gin (sides) where sides <> '{}';

-- Which mod of the catalogues a mod is, where the user has said so; empty: none of them.
create table catalogued (
  strand_id bigint primary key references strand on delete cascade,
  mod text not null
);

-- An update that the user does not want.
create table update_left (
  strand_id bigint primary key references strand on delete cascade,
  -- version: until a newer one comes; mod: for good; variant: what is offered is another one
  kind text not null check (kind in ('version', 'mod', 'variant')),
  -- the newest that was there then
  version text not null,
  reason text not null,
  said_at timestamptz not null default now()
);

-- What the user says of a mod and the game's versions.
create table game_word (
  strand_id bigint primary key references strand on delete cascade,
  is_essential boolean not null default false,
  -- works, broken; null for nothing. It holds for one version of the game.
  verdict text check (verdict in ('works', 'broken')),
  game text not null default '',
  -- the point of the playthrough that it waits for
  waits_for text not null default ''
);

-- Findings of the user and those that were brought in, a line of the format each.
create table finding (
  id bigint generated always as identity primary key,
  workspace_id bigint not null references workspace on delete cascade,
  is_own boolean not null,
  mod text not null,
  line text not null
);
create index finding_mod on finding (workspace_id, mod);

-- Those of a catalogue's state.
alter table catalogue
  add column findings_sha256 text,
  add column findings_mistakes text not null default '[]';
create table catalogue_finding (
  catalogue_id bigint not null references catalogue (id) on delete cascade,
  mod text not null,
  line text not null
);
create index catalogue_finding_mod on catalogue_finding (catalogue_id, mod);
