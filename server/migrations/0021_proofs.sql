-- What was shown at the finished machine, each for the supply and the parts that were in it then.
create table job_proof (
  job_id bigint not null references job on delete cascade,
  item text not null check (item in ('started', 'picture', 'fans', 'drives', 'card', 'complaint')),
  subject text not null,
  position int not null,
  version int not null,
  holds boolean not null,
  note text not null,
  by text not null references technician,
  at timestamptz not null,
  primary key (job_id, item, subject)
);
