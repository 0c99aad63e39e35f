-- What a machine did at other times, beside what it does now.
alter table job add column also_told text[] not null default '{}' check (cardinality(also_told) <= 9);
