-- How the user likes the list of layers shown: columns with their order and widths, sorting, folded sections, kept views.
alter table workspace add column layers_shown text not null default '{}';
