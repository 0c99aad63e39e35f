-- A cable that stands as such cables usually run is not recorded before somebody looked at it.
alter table job_cable add column likely boolean;
