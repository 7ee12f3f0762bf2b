-- What a mend held before it was made anew is kept as a mod that nobody sees, so that making it anew can be undone.
alter table mod add column former_of bigint references mod on delete cascade;
create index mod_former_of on mod (former_of) where former_of is not null;

-- A change that exchanges the content of a mod with a former one; once that is no longer kept it cannot be undone.
alter table change add column swaps boolean not null default false;
alter table change add column swap_mod bigint references mod on delete set null;
alter table change add column swap_former bigint references mod on delete set null;
