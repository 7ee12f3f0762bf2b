-- A profile that sets are tried with is none of the user's.
alter table profile add column is_aside boolean not null default false;
update profile set is_aside = true where id in (select trial_profile_id from search);

-- Where the user departs from a list that is followed: by the number of the entry, from 1, why; as JSON.
alter table followed_list add column departures text not null default '{}';

-- What a run has cost; null where nobody knows it.
alter table run
  add column ms bigint,
  -- until the game had loaded
  add column loading_ms bigint,
  -- the most memory at a time
  add column peak_bytes bigint;

-- A measurement goes on as a search does.
alter table search
  -- the number of the part of which it is measured what it costs; null for a search
  add column measured int,
  -- how often the whole set is tried before the search goes on
  add column whole_first int not null default 1,
  drop constraint search_state_check,
  add constraint search_state_check check (state in
    ('SEARCHING', 'RESTING', 'FOUND', 'NOT_SHOWN', 'NONE', 'UNTOLD', 'LEFT', 'MEASURED'));
