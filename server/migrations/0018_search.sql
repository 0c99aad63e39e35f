-- Jobs are found by words in any order, in any text of them. The texts stand here once more, folded into one document,
-- with an index over its groups of three letters; what was hit is shown from the texts themselves.
create extension if not exists pg_trgm;
create table job_search (
  job_id bigint primary key references job on delete cascade,
  document text not null,
  fields jsonb not null
);
create index job_search_document on job_search using gin (document gin_trgm_ops);

-- A page of jobs, from any of them on.
create index job_page on job (state, updated_at, id);

-- Who works here is part of what a shop computes with, since jobs are found by names.
create trigger technician_stamped after insert or update or delete or truncate on technician
  for each statement execute function stamp_shelf();
update shelf_stamp set stamp = gen_random_uuid();
