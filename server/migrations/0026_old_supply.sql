-- What became of the supply that came out: it is never put back on a shelf unmarked.
alter table job
  add column old_supply text check (old_supply in ('failed', 'kept', 'given-back')),
  add column old_supply_note text not null default '',
  add column old_supply_disposed boolean not null default false;
