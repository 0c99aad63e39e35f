-- The shop's own record: what closed jobs with a confirmed fault teach, and which instrument said what.
alter table shop_settings rename column may_swap_mains to may_meter_mains;
alter table shop_settings add column version int not null default 1 check (version > 0);

alter table job_outcome add column instrument_id text references instrument;
-- The owner's word that a job is no lesson; it outlives reopening.
alter table job add column left_out boolean not null default false;

create table job_lesson (
  job_id bigint primary key references job on delete cascade,
  fault_id text not null
);
create table job_lesson_outcome (
  job_id bigint not null references job_lesson on delete cascade,
  check_id text not null,
  outcome_id text not null,
  instrument_id text references instrument,
  primary key (job_id, check_id)
);
create index job_lesson_outcome_of_check on job_lesson_outcome (check_id, outcome_id);

-- Changes with the record, so that what was computed from it is known to be old.
create table shop_record (
  only_row boolean primary key default true check (only_row),
  revision uuid not null
);
insert into shop_record (revision) values (gen_random_uuid());
