-- Leads that a change of supply disturbs and that carry no supply power, or carry it on.
create table job_lead (
  job_id bigint not null references job on delete cascade,
  id uuid not null,
  position int not null,
  version int not null,
  kind text not null check (
    kind in ('panel-switch', 'panel-lamp', 'panel-speaker', 'usb-2', 'usb-3', 'usb-c', 'audio', 'fan', 'processor-fan',
      'pump', 'light-5', 'light-12', 'sata-data', 'hub-data', 'riser', 'clip', 'aerial', 'other')
  ),
  what text not null,
  place text not null,
  state text not null check (state in ('recorded', 'untouched', 'out', 'back')),
  by text not null references technician,
  at timestamptz not null,
  primary key (job_id, id)
);
