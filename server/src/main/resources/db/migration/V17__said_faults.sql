-- The first line of a run's output that means a fault, as the game's definition says; empty for none.
alter table run add column said_fault text not null default '';
