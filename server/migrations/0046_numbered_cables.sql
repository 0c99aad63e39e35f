-- A cable that bears a number goes into the one socket of that number; one such piece, with one end at the supply.
alter table supply_model_cable
  add column only_socket text check (char_length(only_socket) between 1 and 20),
  add constraint supply_model_cable_only_socket
    check (only_socket is null or (not fixed and two_ended is null and count = 1)),
  add constraint supply_model_cable_own_socket unique (model_id, only_socket);
