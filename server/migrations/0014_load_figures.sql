-- What a drive's start draws on +5, and what a card takes from its slot where its sheet says so.
alter table job_part
  add column spin_up_amps5 double precision not null default 0 check (spin_up_amps5 >= 0),
  add column slot_watts double precision check (slot_watts >= 0);
alter table own_part
  add column spin_up_amps5 double precision not null default 0 check (spin_up_amps5 >= 0),
  add column slot_watts double precision check (slot_watts >= 0);
-- Whether a supply far larger than the load is dropped, or only warned of.
alter table shop_settings add column drop_too_large boolean not null default false;
-- The watts that a 16-pin cable tells its card by its sense contacts, as printed on it.
alter table supply_model_cable add column coded_watts int check (coded_watts in (150, 300, 450, 600));
alter table bag_cable add column coded_watts int check (coded_watts in (150, 300, 450, 600));
-- What an inlet draws of its part's lasting watts, where somebody knows it.
alter table job_inlet add column watts double precision check (watts > 0);
