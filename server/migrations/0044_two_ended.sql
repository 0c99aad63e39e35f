-- A cable whose end at the supply is two plugs: a main cable in two main sockets, a 16-pin one in two card sockets.
alter table supply_model_cable
  add column two_ended boolean check (two_ended),
  add constraint supply_model_cable_two_ended check (two_ended is null or (not fixed and family in ('main', 'card-16')));
alter table bag_cable
  add column two_ended boolean not null default false check (not two_ended or family in ('main', 'card-16'));
