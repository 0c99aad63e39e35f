-- Tells every server process what changed, so that every open screen shows it within a moment. The database tells it, not
-- the code that writes, so that no way of writing can forget to.
create function tell_job_change() returns trigger language plpgsql as $$
begin
  perform pg_notify('fairwatt_change', json_build_object(
    'topic', 'job',
    'code', (select code from job where id = new.job_id),
    'revision', new.revision
  )::text);
  return null;
end $$;
create trigger job_event_told after insert on job_event for each row execute function tell_job_change();

create function tell_job_thing() returns trigger language plpgsql as $$
begin
  perform pg_notify('fairwatt_change', json_build_object(
    'topic', tg_argv[0],
    'code', (select code from job where id = coalesce(new.job_id, old.job_id)),
    'revision', null
  )::text);
  return null;
end $$;
create trigger job_photo_told after insert or update or delete on job_photo
  for each row execute function tell_job_thing('photos');

create function tell_change() returns trigger language plpgsql as $$
begin
  perform pg_notify('fairwatt_change', json_build_object('topic', tg_argv[0], 'code', null, 'revision', null)::text);
  return null;
end $$;
create trigger shop_settings_told after insert or update or delete on shop_settings
  for each statement execute function tell_change('shop');
create trigger technician_told after insert or update or delete on technician
  for each statement execute function tell_change('shop');
create trigger instrument_told after insert or update or delete on instrument
  for each statement execute function tell_change('shop');
create trigger supply_model_told after insert or update or delete on supply_model
  for each statement execute function tell_change('supplies');
create trigger supply_unit_told after insert or update or delete on supply_unit
  for each statement execute function tell_change('supplies');
create trigger own_part_told after insert or update or delete on own_part
  for each statement execute function tell_change('supplies');
create trigger bag_cable_told after insert or update or delete on bag_cable
  for each statement execute function tell_change('bags');
create trigger bag_adapter_told after insert or update or delete on bag_adapter
  for each statement execute function tell_change('bags');
create trigger pinout_told after insert or update or delete on pinout
  for each statement execute function tell_change('bags');
create trigger cable_proof_told after insert or update or delete on cable_proof
  for each statement execute function tell_change('bags');
create trigger shop_record_told after insert or update or delete on shop_record
  for each statement execute function tell_change('record');
create trigger network_instrument_told after insert or update or delete on network_instrument
  for each statement execute function tell_change('instruments');
create trigger load_sweep_told after insert or update or delete on load_sweep
  for each statement execute function tell_change('instruments');

-- Who has which job open, by the tab of a browser; an old line is somebody who went without a word.
create table presence (
  tab uuid primary key,
  job_id bigint not null references job on delete cascade,
  technician text not null references technician on delete cascade,
  seen_at timestamptz not null
);
create index presence_of_job on presence (job_id);
create trigger presence_told after insert or delete or update of job_id on presence
  for each row execute function tell_job_thing('presence');
