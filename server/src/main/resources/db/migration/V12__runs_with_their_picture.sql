-- With what a run was played: gone back to when it worked.
alter table run add column profile_id bigint references profile on delete set null;
-- as the profile was arranged then; empty for runs from before this was kept
alter table run add column arrangement text not null default '';
-- of what lay in the folder; empty where that was not as arranged
alter table run add column picture text not null default '';
