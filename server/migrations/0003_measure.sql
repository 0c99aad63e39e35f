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

-- What is kept of a logging meter's file: figures and a reduced curve of each rail, the gravest events, the file itself if small.
create table job_log (
  job_id bigint not null references job on delete cascade,
  id uuid not null,
  position int not null,
  version int not null check (version > 0),
  name text not null check (name <> ''),
  phase text not null check (phase in ('before', 'after')),
  rows int not null check (rows > 0),
  skipped int not null check (skipped >= 0),
  lasts_seconds double precision not null check (lasts_seconds >= 0),
  events_in_all int not null check (events_in_all >= 0),
  by text not null references technician,
  at timestamptz not null,
  primary key (job_id, id)
);
create table job_log_channel (
  job_id bigint not null,
  log_id uuid not null,
  position int not null,
  rail text not null check (rail in ('+12', '+5', '+3.3', '-12', '+5sb')),
  count int not null check (count > 0),
  mean_volts double precision not null,
  lowest_volts double precision not null,
  highest_volts double precision not null,
  deviation_volts double precision not null check (deviation_volts >= 0),
  noise_volts double precision not null check (noise_volts >= 0),
  drift_volts_per_hour double precision not null,
  outside_seconds double precision not null check (outside_seconds >= 0),
  curve_seconds double precision[] not null,
  curve_low double precision[] not null,
  curve_high double precision[] not null,
  check (cardinality(curve_seconds) = cardinality(curve_low) and cardinality(curve_low) = cardinality(curve_high)),
  primary key (job_id, log_id, position),
  unique (job_id, log_id, rail),
  foreign key (job_id, log_id) references job_log on delete cascade
);
create table job_log_event (
  job_id bigint not null,
  log_id uuid not null,
  position int not null,
  rail text not null check (rail in ('+12', '+5', '+3.3', '-12', '+5sb')),
  kind text not null check (kind in ('dip', 'spike', 'step', 'gap')),
  at_seconds double precision not null,
  lasts_seconds double precision not null,
  volts double precision,
  from_volts double precision,
  primary key (job_id, log_id, position),
  foreign key (job_id, log_id) references job_log on delete cascade
);
-- The file belongs to the job, not to the log's row: a log that is removed and brought back has its file again.
create table job_log_original (
  job_id bigint not null references job on delete cascade,
  log_id uuid not null,
  text text not null check (octet_length(text) <= 1048576),
  primary key (job_id, log_id)
);
