-- A second wire in one contact of a spare cable's plug, by pin; 0 for none, and left out where no pin has one.
alter table bag_cable_plug add column seconds int[] not null default '{}';

-- A sense contact of a main socket says what it feels; until now it was said to feel +3.3.
update pinout_socket set pins = array_replace(pins, 'S', 'S3.3') where family = 'main';
