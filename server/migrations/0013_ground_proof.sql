-- What proves a ground pin as one: volts between a known rail and the pin, or continuity to the supply's ground.
alter table job_probe_pin
  add column ground_volts double precision,
  add column ground_heard boolean,
  add constraint job_probe_pin_one_proof check (ground_volts is null or ground_heard is null);
