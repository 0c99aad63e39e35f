-- How a shop sizes and chooses, what a supply is beside its rating, and what a job asks for.
alter table shop_settings drop constraint shop_settings_school_check;
alter table shop_settings add constraint shop_settings_school_check check (school in ('like-for-like', 'fixed-margin', 'half-load', 'card-advice', 'peaks-covered'));
alter table shop_settings
  add column age_percent_a_year double precision not null default 1 check (age_percent_a_year >= 0),
  add column shared_card_cable boolean not null default true,
  add column minor_per_kilowatt_hour double precision not null default 30 check (minor_per_kilowatt_hour >= 0),
  add column breaker_amps double precision not null default 16 check (breaker_amps > 0),
  add column idle_hours double precision not null default 4,
  add column typical_hours double precision not null default 3,
  add column full_hours double precision not null default 1,
  add column typical_share double precision not null default 0.4,
  add column keep_years double precision not null default 5 check (keep_years > 0),
  add column weight_price double precision not null default 3,
  add column weight_headroom double precision not null default 2,
  add column weight_running double precision not null default 2,
  add column weight_noise double precision not null default 1,
  add column weight_warranty double precision not null default 1,
  add column weight_shelf double precision not null default 3;

alter table supply_model
  add column inlet text not null default 'C14' check (inlet in ('C14', 'C20')),
  add column correction text not null default 'active' check (correction in ('active', 'passive', 'none')),
  add column protections text[] not null default '{}',
  add column fan text not null default 'large-face' check (fan in ('large-face', 'rear', 'none')),
  add column own_holes boolean not null default false,
  add column price_as_of date,
  add column design_year int;
alter table supply_model_rail add column feeds text[];
alter table supply_model_socket add column output text;
alter table supply_model_cable add column output text;
alter table job_supply_rail add column feeds text[];

-- Each supply on the shelf by itself; what was a count becomes as many units.
create table supply_unit (
  id uuid primary key,
  version int not null check (version > 0),
  model_id text not null references supply_model,
  place text not null,
  state text not null check (state in ('new', 'proven', 'suspect', 'spare', 'used')),
  serial text not null,
  bag text not null,
  note text not null,
  reserved_for text references job (code) on update cascade on delete set null,
  used_in text references job (code) on update cascade,
  check ((state = 'used') = (used_in is not null)),
  check (reserved_for is null or state in ('new', 'proven'))
);
create index supply_unit_of_model on supply_unit (model_id);
insert into supply_unit (id, version, model_id, place, state, serial, bag, note)
  select gen_random_uuid(), 1, id, '', 'new', '', '', '' from supply_model, generate_series(1, on_shelf);
alter table supply_model drop column on_shelf;

-- Parts that the shop knows with figures of their own.
create table own_part (
  id text primary key,
  name text not null check (name <> ''),
  class_id text not null,
  low_watts double precision not null check (low_watts >= 0),
  likely_watts double precision not null check (likely_watts >= low_watts),
  high_watts double precision not null check (high_watts >= likely_watts),
  idle_watts double precision not null,
  short_watts double precision not null,
  spin_up_amps double precision not null,
  share_12 double precision not null,
  share_5 double precision not null,
  share_33 double precision not null,
  excursion text not null,
  standby_watts double precision not null,
  source text not null
);
create table own_part_inlet (
  part_id text not null references own_part on delete cascade,
  position int not null,
  kind text not null,
  label text not null,
  optional boolean not null,
  primary key (part_id, position)
);

alter table job_part
  add column standby_watts double precision not null default 0 check (standby_watts >= 0),
  add column source text not null default 'class' check (source in ('class', 'manual', 'label', 'measured'));
alter table job
  add column school_note text not null default '',
  add column card_advice_watts double precision,
  add column staggered_start boolean not null default false,
  add column measured_kind text check (measured_kind in ('mains', 'twelve')),
  add column measured_figure double precision,
  add column measured_used boolean,
  add column day_idle_hours double precision,
  add column day_typical_hours double precision,
  add column day_full_hours double precision,
  add column day_typical_share double precision,
  add column keep_years double precision,
  add column noisiest_decibels double precision,
  add column least_warranty_years double precision,
  add column protections text[] not null default '{}',
  add column active_correction boolean not null default false,
  add column own_holes boolean not null default false,
  add column vent_closed boolean not null default false;
alter table job add constraint job_measured check ((measured_kind is null) = (measured_figure is null) and (measured_kind is null) = (measured_used is null));
alter table job_choice add column known text[] not null default '{}';

-- Where a supplier's price list is fetched; nothing when there is none.
create table price_feed (
  only_row boolean primary key default true check (only_row),
  url text not null,
  fetched_at timestamptz,
  report jsonb
);
