-- What a mend is for and how it was made, both as JSON: a patch has its scope and conditions, a merge
-- its sources and the load order before it. `made` tells what went into it, to know when it is stale.
alter table mend add column kind text not null default 'patch';
alter table mend add column recipe text not null default '{}';
alter table mend add column made text not null default '{}';

alter table mod drop constraint mod_kind_check;
alter table mod add constraint mod_kind_check check (kind in ('archive', 'patch', 'merge'));
