-- A supply that comes by itself, without a machine.
alter table job add column bare boolean not null default false;
