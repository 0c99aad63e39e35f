-- Readings at a pin and with the current on their rail; a correction names what it replaces.
alter table job_reading add column load_amps double precision check (load_amps >= 0);
alter table job_reading add column pin_plug text;
alter table job_reading add column pin_number int check (pin_number > 0);
alter table job_reading add constraint job_reading_pin check ((pin_plug is null) = (pin_number is null));
alter table job_reading add column replaces uuid;
alter table job_reading add constraint job_reading_replaces foreign key (job_id, replaces) references job_reading (job_id, id) deferrable initially deferred;

-- A cable proved pin by pin at its device end.
create table job_probe (
  job_id bigint not null references job on delete cascade,
  id uuid not null,
  position int not null,
  version int not null check (version > 0),
  label text not null check (label <> ''),
  plug text not null,
  note text not null,
  by text not null references technician,
  at timestamptz not null,
  primary key (job_id, id)
);
create table job_probe_pin (
  job_id bigint not null,
  probe_id uuid not null,
  pin int not null check (pin > 0),
  figure double precision,
  code text check (code in ('too-high', 'too-low', 'absent', 'wanders')),
  check ((figure is null) <> (code is null)),
  primary key (job_id, probe_id, pin),
  foreign key (job_id, probe_id) references job_probe on delete cascade
);
