-- A picture may show one of the other leads.
alter table job_photo add column lead_id uuid;
