-- The shop: settings, people, instruments.
create table technician (
  id text primary key,
  name text not null check (name <> ''),
  owner boolean not null default false
);
create table shop_settings (
  only_row boolean primary key default true check (only_row),
  name text not null,
  mains_volts double precision not null check (mains_volts between 90 and 260),
  currency text not null check (currency ~ '^[A-Z]{3}$'),
  school text not null check (school in ('like-for-like', 'fixed-margin', 'half-load', 'peaks-covered')),
  stop_probability double precision not null check (stop_probability between 0.5 and 0.999),
  bench_has text[] not null,
  may_swap_mains boolean not null
);
create table instrument (
  id text primary key,
  name text not null,
  kind text not null check (kind in ('multimeter', 'tester')),
  power_good_error_milliseconds double precision check (power_good_error_milliseconds >= 0),
  calibrated_until date
);
create table instrument_range (
  instrument_id text not null references instrument on delete cascade,
  position int not null,
  full_scale_volts double precision not null check (full_scale_volts > 0),
  percent double precision not null check (percent >= 0),
  counts double precision not null check (counts >= 0),
  digit_volts double precision not null check (digit_volts > 0),
  primary key (instrument_id, position)
);

-- Supplies with their rails, sockets and cable kits.
create table supply_model (
  id text primary key,
  name text not null,
  rating_watts double precision not null check (rating_watts > 0),
  shape text not null check (shape in ('ATX', 'SFX', 'SFX-L', 'TFX', 'Flex', 'CFX', 'LFX')),
  guide text not null check (guide in ('2.x', '3.x')),
  grade text not null check (grade in ('none', 'basic', 'bronze', 'silver', 'gold', 'platinum', 'titanium')),
  modular text not null check (modular in ('fixed', 'semi', 'full')),
  has_16_pin boolean not null,
  depth_millimetres double precision not null check (depth_millimetres > 0),
  mains_low_volts double precision not null,
  mains_high_volts double precision not null check (mains_high_volts >= mains_low_volts),
  price_minor bigint not null check (price_minor >= 0),
  currency text not null check (currency ~ '^[A-Z]{3}$'),
  on_shelf int not null check (on_shelf >= 0),
  noise_decibels double precision,
  warranty_years double precision not null
);
create table supply_model_rail (
  model_id text not null references supply_model on delete cascade,
  position int not null,
  label text not null,
  rail text not null check (rail in ('+12', '+5', '+3.3', '-12', '+5sb')),
  amps double precision not null check (amps >= 0),
  primary key (model_id, position),
  unique (model_id, label)
);
create table supply_model_combined (
  model_id text not null references supply_model on delete cascade,
  position int not null,
  labels text[] not null check (cardinality(labels) > 0),
  watts double precision not null check (watts >= 0),
  primary key (model_id, position)
);
create table supply_model_socket (
  model_id text not null references supply_model on delete cascade,
  position int not null,
  label text not null,
  kind text not null check (kind in ('main', 'cpu', 'card', 'cpu-card', 'card-16', 'drive')),
  primary key (model_id, position),
  unique (model_id, label)
);
create table supply_model_cable (
  model_id text not null references supply_model on delete cascade,
  cable_id text not null,
  position int not null,
  family text not null check (family in ('main', 'cpu', 'card', 'card-16', 'drive')),
  fixed boolean not null,
  count int not null check (count > 0),
  gauge int not null check (gauge in (16, 18, 20, 22)),
  primary key (model_id, cable_id)
);
create table supply_model_plug (
  model_id text not null,
  cable_id text not null,
  position int not null,
  kind text not null,
  millimetres double precision not null check (millimetres > 0),
  primary key (model_id, cable_id, position),
  foreign key (model_id, cable_id) references supply_model_cable on delete cascade
);

-- Jobs.
create sequence job_number start 142;
create table job (
  id bigint generated always as identity primary key,
  code text not null unique check (code ~ '^[A-Z]{2}-[0-9]{4,6}$'),
  created_at timestamptz not null,
  updated_at timestamptz not null,
  state text not null check (state in ('open', 'closed')),
  state_version int not null check (state_version > 0),
  closed_by text references technician,
  closed_at timestamptz,
  check ((state = 'closed') = (closed_by is not null and closed_at is not null)),
  sheet_version int not null check (sheet_version > 0),
  title text not null check (title <> ''),
  client text not null,
  words text not null,
  button text,
  course text,
  surroundings text not null,
  machine_years double precision check (machine_years >= 0),
  supply_years double precision check (supply_years >= 0),
  upgrade text not null,
  cable_bag text check (cable_bag in ('came', 'missing', 'not-modular')),
  layout text not null check (layout in ('tower', 'small', 'slim')),
  shapes text[] not null check (cardinality(shapes) > 0),
  depth_millimetres double precision check (depth_millimetres > 0),
  school text not null,
  watch text not null,
  left_in_bag text not null
);
create index job_recent on job (updated_at desc, id desc);
create table job_part (
  job_id bigint not null references job on delete cascade,
  id text not null,
  position int not null,
  version int not null check (version > 0),
  class_id text not null,
  name text not null check (name <> ''),
  quantity int not null check (quantity between 1 and 64),
  change text not null check (change in ('stays', 'added', 'replaced', 'removed')),
  low_watts double precision not null check (low_watts >= 0),
  likely_watts double precision not null check (likely_watts >= low_watts),
  high_watts double precision not null check (high_watts >= likely_watts),
  idle_watts double precision not null check (idle_watts >= 0),
  short_watts double precision not null check (short_watts >= likely_watts),
  spin_up_amps double precision not null check (spin_up_amps >= 0),
  share_12 double precision not null check (share_12 between 0 and 1),
  share_5 double precision not null check (share_5 between 0 and 1),
  share_33 double precision not null check (share_33 between 0 and 1),
  excursion text not null check (excursion in ('none', 'processor', 'card-older', 'card-newer')),
  primary key (job_id, id)
);
create table job_inlet (
  job_id bigint not null,
  id text not null,
  part_id text not null,
  position int not null,
  kind text not null,
  label text not null,
  optional boolean not null,
  primary key (job_id, id),
  foreign key (job_id, part_id) references job_part on delete cascade
);
create table job_supply (
  job_id bigint primary key references job on delete cascade,
  version int not null check (version > 0),
  name text not null,
  rating_watts double precision not null check (rating_watts > 0),
  shape text not null,
  guide text not null check (guide in ('2.x', '3.x')),
  grade text not null,
  modular text not null check (modular in ('fixed', 'semi', 'full')),
  has_16_pin boolean not null
);
create table job_supply_rail (
  job_id bigint not null references job_supply on delete cascade,
  position int not null,
  label text not null,
  rail text not null check (rail in ('+12', '+5', '+3.3', '-12', '+5sb')),
  amps double precision not null check (amps >= 0),
  primary key (job_id, position)
);
create table job_supply_combined (
  job_id bigint not null references job_supply on delete cascade,
  position int not null,
  labels text[] not null,
  watts double precision not null check (watts >= 0),
  primary key (job_id, position)
);
create table job_outcome (
  job_id bigint not null references job on delete cascade,
  id uuid not null,
  position int not null,
  check_id text not null,
  outcome_id text not null,
  taken_back_at timestamptz,
  by text not null references technician,
  at timestamptz not null,
  primary key (job_id, id)
);
create unique index job_outcome_one_answer on job_outcome (job_id, check_id) where taken_back_at is null;
create table job_reading (
  job_id bigint not null references job on delete cascade,
  id uuid not null,
  position int not null,
  phase text not null check (phase in ('before', 'after')),
  subject text not null check (subject in ('+12', '+5', '+3.3', '-12', '+5sb', 'power-good')),
  condition text not null check (condition in ('off-load', 'idle', 'work')),
  figure double precision,
  code text check (code in ('too-high', 'too-low', 'absent', 'wanders')),
  check ((figure is null) <> (code is null)),
  instrument_id text not null references instrument,
  load_watts double precision check (load_watts >= 0),
  note text not null,
  struck_at timestamptz,
  by text not null references technician,
  at timestamptz not null,
  primary key (job_id, id)
);
create table job_finding (
  job_id bigint primary key references job on delete cascade,
  version int not null check (version > 0),
  kind text not null check (kind in ('fault', 'no-fault', 'hand-on')),
  fault_id text,
  check (kind <> 'fault' or fault_id is not null),
  confirmed boolean not null,
  note text not null,
  by text not null references technician,
  at timestamptz not null
);
create table job_choice (
  job_id bigint primary key references job on delete cascade,
  version int not null check (version > 0),
  kind text not null check (kind in ('replace', 'keep')),
  model_id text references supply_model,
  check ((kind = 'replace') = (model_id is not null)),
  reason text not null,
  by text not null references technician,
  at timestamptz not null
);
create table job_cable (
  job_id bigint not null references job on delete cascade,
  id uuid not null,
  position int not null,
  version int not null check (version > 0),
  label text not null,
  socket_label text not null,
  way text not null,
  ties_to_cut int not null check (ties_to_cut >= 0),
  primary key (job_id, id)
);
create table job_cable_plug (
  job_id bigint not null,
  cable_id uuid not null,
  position int not null,
  kind text not null,
  inlet_id text,
  primary key (job_id, cable_id, position),
  foreign key (job_id, cable_id) references job_cable on delete cascade,
  foreign key (job_id, inlet_id) references job_inlet (job_id, id) deferrable initially deferred
);
create unique index job_cable_plug_one_inlet on job_cable_plug (job_id, inlet_id) where inlet_id is not null;
create table job_seat (
  job_id bigint not null,
  inlet_id text not null,
  version int not null check (version > 0),
  cable_code text not null,
  plug_index int not null check (plug_index >= 0),
  click boolean not null,
  tug boolean not null,
  gap boolean not null,
  by text not null references technician,
  at timestamptz not null,
  primary key (job_id, inlet_id),
  foreign key (job_id, inlet_id) references job_inlet (job_id, id) deferrable initially deferred
);
create table job_sign_off (
  job_id bigint not null references job on delete cascade,
  id uuid not null,
  position int not null,
  point text not null,
  reason text not null check (length(btrim(reason)) >= 3),
  by text not null references technician,
  at timestamptz not null,
  primary key (job_id, id),
  unique (job_id, point)
);

-- What each station says, kept beside the job so that the list need not compute every job.
create table job_station (
  job_id bigint not null references job on delete cascade,
  position int not null,
  station text not null,
  state text not null check (state in ('untouched', 'in-hand', 'needs-you', 'settled')),
  line text not null,
  primary key (job_id, station)
);

-- Who did what, when. The act as it was sent is kept for the reader, nothing asks about its inside.
create table job_event (
  id uuid primary key,
  job_id bigint not null references job on delete cascade,
  at timestamptz not null,
  by text not null references technician,
  kind text not null,
  detail jsonb not null
);
create index job_event_of_job on job_event (job_id, at);
