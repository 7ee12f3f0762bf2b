-- A decision on a record was a text with a grammar of its own, and choices for files lay among them under
-- 'file:' and their path. Each has members of its own now. What is no such document stays as it is, and is told
-- to the user as it was.

-- {"speed": "A.plug", "/seen speed": "3f"} becomes {"speed": {"take": "A.plug", "seen": "3f"}}
create function pg_temp.decided(places jsonb) returns jsonb language sql as $$
  select coalesce(jsonb_object_agg(key,
    case
      when value = '/before' then '{"outcome": "AS_BEFORE"}'::jsonb
      when value = '/merged' then '{"outcome": "MERGED"}'::jsonb
      when value = '/removed' then '{"outcome": "REMOVED"}'::jsonb
      when value like '/value %' then jsonb_build_object('own', substr(value, 8))
      else jsonb_build_object('take', value)
    end
    || case when places ? ('/seen ' || key) then jsonb_build_object('seen', places -> ('/seen ' || key))
            else '{}'::jsonb end), '{}'::jsonb)
  from jsonb_each_text(places) where key not like '/seen %'
$$;

create function pg_temp.all_decided(decisions jsonb) returns jsonb language sql as $$
  select coalesce(jsonb_object_agg(key, pg_temp.decided(value)), '{}'::jsonb)
  from jsonb_each(decisions) where key not like 'file:%'
$$;

-- {"file:PATH": {"/base": "{\"take\":[\"a\"]}", "line 2": "{…}"}} becomes {"PATH": {"base": "a", "places": {…}}}
create function pg_temp.file_choices(decisions jsonb) returns jsonb language sql as $$
  select coalesce(jsonb_object_agg(substr(key, 6), jsonb_build_object(
      'base', (value ->> '/base')::jsonb -> 'take' -> 0,
      'places', (select coalesce(jsonb_object_agg(p.key, p.value::jsonb), '{}'::jsonb)
                 from jsonb_each_text(value) p where p.key <> '/base'))), '{}'::jsonb)
  from jsonb_each(decisions) where key like 'file:%'
$$;

create function pg_temp.in_parts(document text) returns text language plpgsql as $$
declare
  was jsonb;
begin
  was := document::jsonb;
  if not was ? 'decisions' then
    return document;
  end if;
  return (was || jsonb_build_object(
    'decisions', pg_temp.all_decided(was -> 'decisions'),
    'fileChoices', pg_temp.file_choices(was -> 'decisions')))::text;
exception when others then
  return document;
end $$;

create function pg_temp.merge_in_parts(document text) returns text language plpgsql as $$
begin
  return jsonb_set(document::jsonb, '{merge,decisionsBefore}',
    pg_temp.all_decided(document::jsonb #> '{merge,decisionsBefore}'))::text;
exception when others then
  return document;
end $$;

update profile set arrangement = pg_temp.in_parts(arrangement) where arrangement ~ '"decisions"\s*:\s*\{\s*"';
update restore_point set arrangement = pg_temp.in_parts(arrangement) where arrangement ~ '"decisions"\s*:\s*\{\s*"';
update deployment set arrangement = pg_temp.in_parts(arrangement) where arrangement ~ '"decisions"\s*:\s*\{\s*"';
update run set arrangement = pg_temp.in_parts(arrangement) where arrangement ~ '"decisions"\s*:\s*\{\s*"';
-- a change speaks of decisions before and after: one of the two may be of none, and of no file
update change set before = pg_temp.in_parts(before), after = pg_temp.in_parts(after)
where before ~ '"decisions"\s*:\s*\{' or after ~ '"decisions"\s*:\s*\{';
update mend set recipe = pg_temp.merge_in_parts(recipe) where recipe ~ '"decisionsBefore"\s*:\s*\{\s*"';
