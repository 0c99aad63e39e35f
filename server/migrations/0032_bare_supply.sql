-- A supply that comes by itself, without a machine.
alter table job add column bare_supply boolean not null default false;
