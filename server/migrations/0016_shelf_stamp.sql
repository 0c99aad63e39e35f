-- A stamp that is another after every change to what a shop computes with, so that a server need not read it anew for
-- every act. It is drawn anew and never counted, so that what was rolled back leaves no stamp that comes again.
create table shelf_stamp (
  only_row boolean primary key default true check (only_row),
  stamp uuid not null
);
insert into shelf_stamp (stamp) values (gen_random_uuid());

create function stamp_shelf() returns trigger language plpgsql as $$
begin
  update shelf_stamp set stamp = gen_random_uuid();
  return null;
end $$;

do $$
declare
  name text;
begin
  foreach name in array array[
    'shop_settings', 'instrument', 'instrument_range',
    'supply_model', 'supply_model_rail', 'supply_model_combined', 'supply_model_socket', 'supply_model_cable',
    'supply_model_plug', 'supply_unit',
    'pinout', 'pinout_socket', 'pinout_supply', 'bag_cable', 'bag_cable_plug', 'bag_adapter', 'cable_proof'
  ] loop
    execute format(
      'create trigger %I after insert or update or delete or truncate on %I for each statement execute function stamp_shelf()',
      name || '_stamped', name
    );
  end loop;
end $$;
