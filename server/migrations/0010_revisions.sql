-- One revision for each job, which is the version of whatever it changed; versions counted per thing until now, so the
-- first revision of a job lies past every version and every change that it has seen.
alter table job add column revision integer not null default 1 check (revision >= 1);
update job set revision = (select count(*) from job_event where job_event.job_id = job.id) + greatest(
  state_version,
  sheet_version,
  (select coalesce(max(version), 0) from job_part where job_part.job_id = job.id),
  (select coalesce(max(version), 0) from job_supply where job_supply.job_id = job.id),
  (select coalesce(max(version), 0) from job_probe where job_probe.job_id = job.id),
  (select coalesce(max(version), 0) from job_log where job_log.job_id = job.id),
  (select coalesce(max(version), 0) from job_finding where job_finding.job_id = job.id),
  (select coalesce(max(version), 0) from job_choice where job_choice.job_id = job.id),
  (select coalesce(max(version), 0) from job_cable where job_cable.job_id = job.id),
  (select coalesce(max(version), 0) from job_pin where job_pin.job_id = job.id),
  (select coalesce(max(version), 0) from job_seat where job_seat.job_id = job.id),
  (select coalesce(max(version), 0) from job_step_order where job_step_order.job_id = job.id)
);

-- Revision of the job at the last change of each field of its sheet, so that two people at different fields never meet.
create table job_field_revision (
  job_id bigint not null references job on delete cascade,
  field text not null check (field ~ '^[a-zA-Z0-9]{1,40}$'),
  revision integer not null check (revision >= 1),
  primary key (job_id, field)
);

-- What a change made of the job, what it was about, and a hash of how it was sent: the same id with other content is no
-- repetition.
alter table job_event add column revision integer check (revision >= 1);
alter table job_event add column subject text not null default '';
alter table job_event add column content_hash text not null default '';
create index job_event_subject on job_event (job_id, subject, revision);
