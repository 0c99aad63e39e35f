-- A finding may name a second fault that was there at the same time.
alter table job_finding add column also_fault_id text check (
  also_fault_id is null or (kind = 'fault' and also_fault_id <> fault_id)
);
