-- A job that was made by mistake is put away by an owner, with a reason; nothing of it is lost.
alter table job
  add column put_away_by text references technician,
  add column put_away_at timestamptz,
  add column put_away_reason text,
  drop constraint job_state_check,
  add constraint job_state_check check (state in ('open', 'closed', 'away')),
  add check (
    (state = 'away') = (put_away_by is not null and put_away_at is not null and put_away_reason is not null)
  );
