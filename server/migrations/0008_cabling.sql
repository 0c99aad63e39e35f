-- Where inlets are, plugs put elsewhere by hand, the steps of the work, pictures, adapters, and where labels are printed.
alter table job_inlet
  add column place text check (place in ('board-edge', 'board-top', 'slots', 'drive-cage', 'front', 'top', 'floor')),
  add column way_millimetres double precision check (way_millimetres >= 0);
alter table job add column hindrances text[] not null default '{}';

create table job_pin (
  job_id bigint not null references job on delete cascade,
  inlet_id text not null,
  position int not null,
  version int not null check (version > 0),
  kit_cable_id text not null,
  copy int not null check (copy >= 0),
  plug_index int not null check (plug_index >= 0),
  socket_label text,
  by text not null references technician,
  at timestamptz not null,
  primary key (job_id, inlet_id),
  foreign key (job_id, inlet_id) references job_inlet (job_id, id) deferrable initially deferred
);

alter table job_seat
  add column halves boolean not null default false,
  add column bend boolean not null default false,
  add column panel boolean not null default false,
  add column rechecked_by text references technician,
  add column rechecked_at timestamptz,
  add check ((rechecked_by is null) = (rechecked_at is null));
-- Connectors that were seated before these were asked for had what is asked now looked at with the rest.
update job_seat set halves = click and tug and gap, bend = click and tug and gap, panel = click and tug and gap;

create table job_step (
  job_id bigint not null references job on delete cascade,
  step_id text not null,
  position int not null,
  by text not null references technician,
  at timestamptz not null,
  primary key (job_id, step_id)
);

create table job_step_order (
  job_id bigint not null references job on delete cascade,
  phase text not null check (phase in ('take-out', 'refit')),
  version int not null check (version > 0),
  step_ids text[] not null,
  primary key (job_id, phase)
);

create table job_photo (
  job_id bigint not null references job on delete cascade,
  id uuid not null,
  caption text not null,
  cable_id uuid,
  width_pixels int not null check (width_pixels > 0),
  height_pixels int not null check (height_pixels > 0),
  format text not null check (format in ('image/jpeg', 'image/png', 'image/webp')),
  data bytea not null check (length(data) between 1 and 700000),
  by text not null references technician,
  at timestamptz not null,
  primary key (job_id, id)
);

alter table shop_settings
  add column spare_cables boolean not null default true,
  add column adapters boolean not null default true;

alter table bag_cable add column gauge int check (gauge in (16, 18, 20, 22));
create table bag_adapter (
  id uuid primary key,
  version int not null check (version > 0),
  label text not null check (label <> ''),
  place text not null,
  takes text not null,
  gives text not null,
  legs int not null check (legs between 1 and 4),
  moulded boolean not null,
  adds_millimetres double precision not null check (adds_millimetres >= 0),
  watts double precision check (watts > 0),
  count int not null check (count >= 0)
);

create table label_printer (
  only_row boolean primary key default true check (only_row),
  url text not null
);
