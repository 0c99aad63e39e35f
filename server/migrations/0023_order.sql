-- What a counter asks of a job, whose it is, and when it is wanted.
alter table job
  add column reach text not null default '',
  add column serial text not null default '',
  add column fitted_serial text not null default '',
  add column came_along text[] not null default '{}'
    check (came_along <@ array['lead', 'box', 'manual', 'screws', 'keyboard', 'media', 'parts']),
  add column came_along_note text not null default '',
  add column in_charge text,
  add column priority text not null default 'usual' check (priority in ('urgent', 'usual', 'waits')),
  add column promised_on text check (promised_on ~ '^\d{4}-\d\d-\d\d$'),
  -- In the order in which open jobs are wanted: urgent ones first, what waits for something last, then by their day.
  add column turn text not null generated always as (
    case priority when 'urgent' then '0 ' when 'usual' then '1 ' else '2 ' end || coalesce(promised_on, '9999-12-31')
  ) stored;
create index job_turn on job (turn, id) where state = 'open';
create index job_in_charge on job (in_charge, state, updated_at, id) where in_charge is not null;
