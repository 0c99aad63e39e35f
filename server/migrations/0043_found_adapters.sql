-- The adapter or extension that was found between a recorded cable's plug and an inlet.
alter table job_cable_plug
  add column through_gives plug_kind,
  add column through_legs int check (through_legs between 1 and 4),
  add column through_moulded boolean,
  add constraint job_cable_plug_through_whole
    check (num_nulls(through_gives, through_legs, through_moulded) in (0, 3));
