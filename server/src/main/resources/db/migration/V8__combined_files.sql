-- Files of several mods made one are a mod of their own kind.
alter table mod drop constraint mod_kind_check;
alter table mod add constraint mod_kind_check check (kind in ('archive', 'patch', 'merge', 'combined'));
