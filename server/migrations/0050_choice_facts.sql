-- What was known at a choice, as figures and codes: it is told in words where it is shown. Lines that were written down
-- before stay in `known`.
alter table job_choice
  add column facts jsonb,
  add constraint job_choice_facts check (facts ->> 'of' = case kind when 'replace' then 'candidate' else 'present' end);
