-- A log tells when the supply was off.
alter table job_log_event drop constraint job_log_event_kind_check;
alter table job_log_event add constraint job_log_event_kind_check check (kind in ('dip', 'spike', 'step', 'gap', 'off'));
