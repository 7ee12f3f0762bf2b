-- An arrangement is read and written as a whole, so it lies in one place. A move among two thousand layers writes
-- one row and not two thousand.
alter table profile add column arrangement text;
update profile p set arrangement = json_build_object(
  'layers', (select coalesce(json_agg(json_build_object('mod', mod_id, 'on', is_on) order by position), '[]'::json)
             from layer where profile_id = p.id),
  'plugins', (select coalesce(json_agg(json_build_object('name', name, 'on', is_on) order by position), '[]'::json)
              from plugin_wish where profile_id = p.id),
  'decisions', (select coalesce(json_object_agg(record_key, places), '{}'::json)
                from (select record_key, json_object_agg(place, choice) as places
                      from record_decision where profile_id = p.id group by record_key) as d),
  'heldBack', (select coalesce(json_object_agg(mod_id, paths), '{}'::json)
               from (select mod_id, json_agg(path) as paths
                     from held_back where profile_id = p.id group by mod_id) as h))::text;
alter table profile alter column arrangement set default '{}';
alter table profile alter column arrangement set not null;
drop table layer, plugin_wish, record_decision, held_back;

-- Which profile is in use; revision goes up with every change of the workspace and is the ETag of what is made from it.
alter table workspace add column profile_id bigint references profile on delete set null;
alter table workspace add column revision bigint not null default 1;
update workspace w set profile_id = p.id, revision = p.revision
  from (select distinct on (workspace_id) workspace_id, id, revision from profile order by workspace_id, id) p
  where p.workspace_id = w.id;
alter table profile drop column revision;
-- A profile that was deleted can come back.
alter table profile add column deleted_at timestamptz;
create unique index on profile (workspace_id, lower(name)) where deleted_at is null;

-- The user's own rules of placement, as JSON.
alter table workspace add column rules text not null default '[]';

-- before and after hold the parts of the arrangement that a change touched. origin: who made it.
alter table change add column workspace_id bigint references workspace on delete cascade;
update change c set workspace_id = p.workspace_id from profile p where p.id = c.profile_id;
alter table change alter column workspace_id set not null;
alter table change alter column profile_id drop not null;
alter table change add column origin text not null default 'user'
  check (origin in ('user', 'proposal', 'import'));
create index on change (workspace_id, id);

-- A named place in the timeline, with the whole arrangement as it was there.
create table restore_point (
  id          bigint generated always as identity primary key,
  profile_id  bigint      not null references profile on delete cascade,
  name        text        not null,
  at          timestamptz not null default now(),
  arrangement text        not null
);
