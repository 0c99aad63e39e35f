-- Loads that a sweep may have left drawing: a server that was killed in the middle of one switches them off when it starts again.
create table load_sweep (
  load_id text primary key references network_instrument on delete cascade,
  begun_at timestamptz not null default now()
);
