-- A reading after the work, a tick and a pin belong to what was chosen when they were made.
alter table job_reading add column fitting text;
update job_reading set fitting = choice.kind || ':' || coalesce(choice.model_id, '')
  from job_choice choice
  where choice.job_id = job_reading.job_id and job_reading.phase = 'after';
alter table job_seat
  add column piece text not null default '',
  add column inlet_kind text;
-- Work for a supply that is no longer the chosen one, as it was; it comes back when that one is chosen again.
create table job_laid_aside (
  job_id bigint not null references job on delete cascade,
  fitting text not null,
  position int not null,
  seats jsonb not null,
  pins jsonb not null,
  steps jsonb not null,
  primary key (job_id, fitting)
);
