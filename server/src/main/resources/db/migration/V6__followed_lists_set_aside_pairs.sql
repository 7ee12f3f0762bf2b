-- An order that somebody has published and the user follows. content: the list as it was read, ticked: the numbers of
-- the entries whose notes are done, both as JSON.
create table followed_list (
  id           bigint generated always as identity primary key,
  workspace_id bigint      not null references workspace on delete cascade,
  title        text        not null,
  content      text        not null,
  ticked       text        not null default '[]',
  brought_at   timestamptz not null default now(),
  deleted_at   timestamptz
);
create index on followed_list (workspace_id, id);

-- A profile's own copy of a file that the game's definition calls perProfile.
create table profile_setting (
  profile_id bigint      not null references profile on delete cascade,
  path       text        not null,
  sha256     text        not null,
  content    bytea       not null,
  at         timestamptz not null default now(),
  primary key (profile_id, path)
);

-- A wrinkle that the user has seen and wants quiet. key stands for what it is and for its facts: when they change, so
-- does the key.
create table set_aside (
  workspace_id bigint      not null references workspace on delete cascade,
  key          text        not null,
  reason       text        not null,
  at           timestamptz not null default now(),
  primary key (workspace_id, key)
);

-- What the user wrote of two mods together, whatever their versions.
create table pair_note (
  workspace_id bigint      not null references workspace on delete cascade,
  lower_strand bigint      not null references strand on delete cascade,
  upper_strand bigint      not null references strand on delete cascade,
  note         text        not null,
  at           timestamptz not null default now(),
  primary key (lower_strand, upper_strand),
  check (lower_strand < upper_strand)
);
create index on pair_note (workspace_id);

-- The user's word on rules of the load order, as JSON.
alter table workspace add column load_rules text not null default '{"own":[],"treated":{}}';
