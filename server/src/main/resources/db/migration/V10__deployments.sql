-- What has been done to the game folder, to be told and gone back to.
create table deployment (
  id           bigint generated always as identity primary key,
  workspace_id bigint      not null references workspace on delete cascade,
  profile_id   bigint      references profile on delete set null,
  kind         text        not null check (kind in ('deploy', 'undeploy', 'put-back')),
  began_at     timestamptz not null default now(),
  took_ms      bigint,
  -- empty while it goes on, or where the server died meanwhile
  result       text        not null default '' check (result in ('', 'done', 'cancelled', 'failed')),
  put          int         not null default 0,
  taken_out    int         not null default 0,
  files        int         not null default 0,
  why          text        not null default '',
  -- as the profile was arranged then
  arrangement  text        not null
);
create index on deployment (workspace_id, id);
