-- The way that a cable was really laid, each for the supply that was fitted then.
create table job_laid_way (
  job_id bigint not null references job on delete cascade,
  fitting text not null,
  cable text not null,
  position int not null,
  version int not null check (version > 0),
  way text not null,
  by text not null references technician,
  at timestamptz not null,
  primary key (job_id, fitting, cable)
);
