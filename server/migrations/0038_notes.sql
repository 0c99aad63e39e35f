-- What was seen or said, wherever in a job; with a picture of the job, why that one is in the report.
create table job_note (
  job_id bigint not null references job on delete cascade,
  id uuid not null,
  position int not null,
  version int not null,
  text text not null,
  photo_id uuid,
  in_report boolean not null,
  by text not null references technician,
  at timestamptz not null,
  primary key (job_id, id)
);

-- Who changed a job last; nobody while it stands as it was made or taken in.
alter table job add column updated_by text references technician;
