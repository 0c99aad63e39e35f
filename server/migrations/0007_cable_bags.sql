-- What each socket of a supply gives, pin by pin; a null is a pin that nobody knows.
create table pinout (
  id text primary key,
  version int not null check (version > 0),
  name text not null check (name <> '')
);
create table pinout_socket (
  pinout_id text not null references pinout on delete cascade,
  family text not null check (family in ('main', 'cpu', 'card', 'card-16', 'drive')),
  pins text[] not null check (cardinality(pins) between 1 and 30),
  primary key (pinout_id, family)
);
create table pinout_supply (
  model_id text primary key references supply_model on delete cascade,
  pinout_id text not null references pinout on delete cascade
);

-- Spare modular cables with their wires: where each device pin leads, 0 for no wire, null where nobody looked.
create table bag_cable (
  id uuid primary key,
  version int not null check (version > 0),
  label text not null check (label <> ''),
  place text not null,
  family text not null check (family in ('main', 'cpu', 'card', 'card-16', 'drive')),
  came_with text not null,
  note text not null
);
create table bag_cable_plug (
  cable_id uuid not null references bag_cable on delete cascade,
  position int not null,
  kind text not null,
  millimetres double precision not null check (millimetres > 0),
  ends int[] not null,
  primary key (cable_id, position)
);
-- A cable that was probed at its device end on a supply and showed what it must.
create table cable_proof (
  cable_id uuid not null references bag_cable on delete cascade,
  model_id text not null references supply_model on delete cascade,
  by text not null references technician,
  at timestamptz not null,
  note text not null,
  primary key (cable_id, model_id)
);
