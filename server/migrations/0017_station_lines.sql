-- A job's row has a stamp that is drawn anew with every change to the job, so that what was read of it can be kept, and
-- what follows from it says what it was made from.
alter table job add column stamp uuid not null default gen_random_uuid();

-- What the stations of a job say is data, worded by whoever shows it.
delete from job_station;
alter table job_station drop column line;
alter table job_station add column line jsonb not null;

-- What the lines were made from: the job, the shelf, the shop's record and the program. They are made anew when they are
-- shown and one of these is another.
create table job_station_source (
  job_id bigint primary key references job on delete cascade,
  job_stamp uuid not null,
  shelf_stamp uuid not null,
  record_revision uuid not null,
  program text not null
);
create trigger job_station_source_told after insert or update on job_station_source
  for each statement execute function tell_change('lines');
