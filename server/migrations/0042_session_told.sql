-- Tells every server process that a session of a browser has ended, so that what it follows ends with it: a screen hears
-- of nothing that it could not ask for. A statement that ended none is not told.
create function tell_session_end() returns trigger language plpgsql as $$
begin
  if exists (select from ended) then
    perform pg_notify('fairwatt_session', '');
  end if;
  return null;
end $$;
create trigger web_session_told after delete on web_session referencing old table as ended
  for each statement execute function tell_session_end();
