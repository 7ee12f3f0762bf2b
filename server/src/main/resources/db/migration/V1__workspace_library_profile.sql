-- Which database this is. Its libraries lie on disk under this name, so that another database that is
-- used with the same home never takes them for litter.
create table installation (
  id uuid primary key default gen_random_uuid()
);
insert into installation default values;

-- One game on this machine with everything that belongs to it.
create table workspace (
  id           bigint generated always as identity primary key,
  title        text        not null,
  game_folder  text        not null unique,
  definition   text        not null,
  game_version text,
  created_at   timestamptz not null default now()
);

-- The unmodded game: every file as it was before anything was deployed. pack is '' for loose files.
create table game_file (
  workspace_id bigint not null references workspace on delete cascade,
  pack         text   not null,
  path         text   not null,
  size_bytes   bigint not null,
  modified_ms  bigint not null,
  sha256       text   not null,
  primary key (workspace_id, pack, path)
);

-- An archive that was brought in, whether or not it has become a mod.
create table archive (
  id           bigint generated always as identity primary key,
  workspace_id bigint      not null references workspace on delete cascade,
  name         text        not null,
  sha256       text        not null,
  size_bytes   bigint      not null,
  brought_at   timestamptz not null default now(),
  unique (workspace_id, sha256)
);

create table mod (
  id           bigint generated always as identity primary key,
  workspace_id bigint      not null references workspace on delete cascade,
  archive_id   bigint references archive,
  kind         text        not null check (kind in ('archive', 'patch')),
  folder       text        not null, -- where its content lies; a new one for each rebuild
  card         text        not null,
  content_root text        not null,
  root_reason  text        not null,
  installed_at timestamptz not null default now()
);

create table mod_file (
  mod_id     bigint not null references mod on delete cascade,
  pack       text   not null,
  path       text   not null,
  entry      text   not null,
  size_bytes bigint not null,
  sha256     text   not null,
  primary key (mod_id, pack, path)
);

create table left_out (
  mod_id bigint not null references mod on delete cascade,
  entry  text   not null,
  reason text   not null,
  primary key (mod_id, entry)
);

-- One arrangement. revision goes up with every change and is the ETag of what is made from it.
create table profile (
  id           bigint generated always as identity primary key,
  workspace_id bigint not null references workspace on delete cascade,
  name         text   not null,
  revision     bigint not null default 1
);

-- position 1 is the lowest layer above the game
create table layer (
  profile_id bigint  not null references profile on delete cascade,
  mod_id     bigint  not null references mod on delete cascade,
  position   int     not null,
  is_on      boolean not null,
  primary key (profile_id, mod_id)
);

create table plugin_wish (
  profile_id bigint  not null references profile on delete cascade,
  position   int     not null,
  name       text    not null,
  is_on      boolean not null,
  primary key (profile_id, position)
);

-- The user's choice for one place of one record: the plugin whose value is taken, or '/before'.
create table record_decision (
  profile_id bigint not null references profile on delete cascade,
  record_key text   not null,
  place      text   not null,
  choice     text   not null,
  primary key (profile_id, record_key, place)
);

-- A generated mod and what it was made from: plugin name to SHA-256, as JSON.
create table mend (
  mod_id      bigint primary key references mod on delete cascade,
  profile_id  bigint      not null references profile on delete cascade,
  plugin      text        not null,
  records     int         not null,
  ingredients text        not null,
  built_at    timestamptz not null default now()
);

-- Every change. One of the arrangement has it as it was before and after, so that it can be undone;
-- a change of the library has neither. 'dropped': it was undone, and something else was done then.
create table change (
  id         bigint generated always as identity primary key,
  profile_id bigint      not null references profile on delete cascade,
  at         timestamptz not null default now(),
  said       text        not null,
  before     text,
  after      text,
  state      text        not null default 'done' check (state in ('done', 'undone', 'dropped')),
  check ((before is null) = (after is null))
);
create index on change (profile_id, id);

create table run (
  id           bigint generated always as identity primary key,
  workspace_id bigint      not null references workspace on delete cascade,
  started_at   timestamptz not null default now(),
  ended_at     timestamptz,
  exit_code    int,
  output       text        not null default '',
  log          text        not null default ''
);
