-- The adapter or extension that somebody wants between a plug and an inlet; it may since have left the bags.
alter table job_pin add column adapter_id text;
