-- A run of a search is none of the user's: what they see of their runs is as they left it.
alter table run
  add column is_trial boolean not null default false,
  -- whether it was ended because it took longer than it may
  add column is_cut_off boolean not null default false;

-- The search for what causes a fault.
create table search (
  id bigint generated always as identity primary key,
  workspace_id bigint not null references workspace on delete cascade,
  -- the search that this one goes on inside of
  parent_id bigint references search on delete cascade,
  begun_at timestamptz not null default now(),
  level text not null check (level in ('MODS', 'ORDER', 'FILES', 'RECORDS', 'FIELDS')),
  state text not null
    check (state in ('SEARCHING', 'RESTING', 'FOUND', 'NOT_SHOWN', 'NONE', 'UNTOLD', 'LEFT')),
  -- whether it goes on by itself
  is_automatic boolean not null,
  limit_seconds int not null,
  -- as JSON, as the next four
  fault text not null,
  named text not null,
  parts text not null,
  -- the parts of the levels above that were found
  known text not null,
  found text not null,
  -- the profile that it is about, and the one that is tried with
  profile_id bigint not null references profile on delete cascade,
  trial_profile_id bigint not null references profile on delete cascade,
  -- as it was when the search began: the folder is made so again
  arrangement text not null,
  -- the arrangement in which all parts are in play
  base text not null,
  was_deployed boolean not null,
  -- where a set of it, or of one inside of it, may lie in the game folder: the user's last deployment before that, 0 for
  -- none; of a search among mods
  in_folder_after bigint
);
create index search_workspace on search (workspace_id, id);

-- One set that was tried.
create table search_try (
  id bigint generated always as identity primary key,
  search_id bigint not null references search on delete cascade,
  -- the numbers of its parts, between commas
  members text not null,
  why text not null,
  run_id bigint references run on delete set null,
  answer text not null check (answer in ('FAILS', 'WORKS', 'CANNOT_TELL', 'ANOTHER_FAULT')),
  -- whether the user gave it
  is_by_user boolean not null,
  -- what else went wrong, in words
  note text not null,
  at timestamptz not null default now()
);
create index search_try_search on search_try (search_id, id);

-- A sign that the user has written for a mod, as JSON.
create table own_sign (
  id bigint generated always as identity primary key,
  strand_id bigint not null references strand on delete cascade,
  sign text not null
);
create index own_sign_strand on own_sign (strand_id);

-- What the user has seen, or not seen, of a sign to look for in a run.
create table sign_ticked (
  run_id bigint not null references run on delete cascade,
  strand_id bigint not null references strand on delete cascade,
  says text not null,
  is_seen boolean not null,
  primary key (run_id, strand_id, says)
);
