-- The shop's record, kept as it grows: how often each fault was found, and how often each outcome was seen of it, over
-- the jobs that count. A job page asks for these sums whenever the record has changed, and the jobs are many.
create table record_fault (
  fault_id text primary key,
  jobs integer not null
);
create table record_outcome (
  check_id text not null,
  outcome_id text not null,
  fault_id text not null,
  instrument_id text references instrument,
  jobs integer not null,
  unique nulls not distinct (check_id, outcome_id, fault_id, instrument_id)
);
create index record_outcome_instrument on record_outcome (instrument_id);

-- Counts what a job teaches once more, or once less: nothing for one that teaches nothing, or was left out. Whoever
-- calls it holds the row of shop_record, so that sums are moved by one at a time.
create function tally_lesson(lesson_job bigint, step integer) returns void language plpgsql as $$
begin
  insert into record_fault as standing (fault_id, jobs)
    select fault_id, step from job_lesson join job on job.id = job_id
      where job_id = lesson_job and not left_out
    on conflict (fault_id) do update set jobs = standing.jobs + step;
  insert into record_outcome as standing (check_id, outcome_id, fault_id, instrument_id, jobs)
    select check_id, outcome_id, fault_id, instrument_id, step
      from job_lesson_outcome join job_lesson using (job_id) join job on job.id = job_id
      where job_id = lesson_job and not left_out
    on conflict (check_id, outcome_id, fault_id, instrument_id) do update set jobs = standing.jobs + step;
end $$;

insert into record_fault
  select fault_id, count(*) from job_lesson join job on job.id = job_id where not left_out group by 1;
insert into record_outcome
  select check_id, outcome_id, fault_id, instrument_id, count(*)
    from job_lesson_outcome join job_lesson using (job_id) join job on job.id = job_id
    where not left_out group by 1, 2, 3, 4;
create index job_left_out on job (id) where left_out;
-- The record shows the latest of them.
create index job_closed on job (closed_at, id) where closed_at is not null;
