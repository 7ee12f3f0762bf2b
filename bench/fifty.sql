-- Fifty workspaces, of a hundred mods with 200 files each, 30 % of them at paths that others bring too: the rows that installing
-- would leave, and no file on disk. The workspaces 1 to 50 are there; one of them has a mod, whose card the others get.
begin;
insert into strand (id, workspace_id) overriding system value
select w * 1000000 + g, w from generate_series(1, 50) as w, generate_series(1, 100) as g;
insert into mod (id, workspace_id, kind, folder, card, card_given, content_root, root_reason, strand_id)
  overriding system value
select w * 1000000 + g, w, 'archive', 'none' || g, c, c, '', 'made up', w * 1000000 + g
from generate_series(1, 50) as w, generate_series(1, 100) as g, lateral (
  select jsonb_set(jsonb_set(card::jsonb, '{id}', to_jsonb('mod-' || g)), '{name}', to_jsonb('Mod ' || g))::text as c
  from mod where id < 1000000 order by id limit 1) as one;
insert into mod_file (mod_id, pack, path, entry, size_bytes, sha256)
select w * 1000000 + g, '', p, '', 1000 + f, encode(sha256((g || p)::bytea), 'hex')
from generate_series(1, 50) as w, generate_series(1, 100) as g, generate_series(1, 200) as f, lateral (
  select case when f % 10 < 3 then 'data/textures/common/region' || f % 97 || '/Piece_' || (f * 7 + g * 13) % 900 || '.tex'
    else 'data/textures/mod' || g || '/set' || f % 31 || '/Part_' || f || '.tex' end as p) as named
on conflict do nothing;
update profile set arrangement = jsonb_set(arrangement::jsonb, '{layers}',
  (select jsonb_agg(jsonb_build_object('mod', workspace_id * 1000000 + g, 'on', true) order by g)
   from generate_series(1, 100) as g))::text;
commit;
analyze;
