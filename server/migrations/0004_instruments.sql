-- Instruments that are reached over the network, speaking SCPI on TCP.
create table network_instrument (
  id text primary key,
  name text not null check (name <> ''),
  role text not null check (role in ('meter', 'load')),
  host text not null check (host <> ''),
  port int not null check (port between 1 and 65535),
  -- The error specification that its figures are judged by; a load needs none.
  instrument_id text references instrument,
  check (role = 'load' or instrument_id is not null),
  added_by text references technician
);
