-- What a machine's own board told of its voltages is kept as readings. This row is there for them to name; it is no
-- instrument of the shop, and nothing reads its kind.
insert into instrument (id, name, kind) values ('board-sensor', 'The board''s own sensor', 'multimeter');
