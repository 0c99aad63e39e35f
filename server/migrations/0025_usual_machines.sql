-- A job whose machine the shop starts others from, under the name that it has there.
alter table job add column usual_as text not null default '';
create index job_usual_as on job (usual_as, id) where usual_as <> '';
