-- Programs of the user's that work on the deployed game.
create table tool (
  id           bigint generated always as identity primary key,
  workspace_id bigint not null references workspace on delete cascade,
  name         text   not null,
  -- as JSON: the program and its arguments, each for itself
  command      text   not null,
  folder       text   not null,
  -- as JSON: name to value
  environment  text   not null,
  -- as JSON: patterns on game paths
  reads        text   not null,
  writes       text   not null
);
create unique index on tool (workspace_id, lower(name));

create table tool_run (
  id         bigint generated always as identity primary key,
  tool_id    bigint      not null references tool on delete cascade,
  began_at   timestamptz not null default now(),
  ended_at   timestamptz,
  exit_code  int,
  output     text        not null default '',
  -- as JSON: game paths that were taken in, that it wrote beside them, and that it removed
  taken      text        not null default '[]',
  beside     text        not null default '[]',
  removed    text        not null default '[]',
  -- why nothing was taken in; empty otherwise
  why        text        not null default ''
);
create index on tool_run (tool_id, id);

alter table mod drop constraint mod_kind_check;
alter table mod add constraint mod_kind_check check (kind in ('archive', 'patch', 'merge', 'combined', 'tool'));
