-- The last nightly backup, whoever made it: of several commands that serve this database one makes it each night.
create table nightly_backup (
  only_row boolean primary key default true check (only_row),
  at timestamptz not null,
  -- Machine and path.
  place text not null,
  jobs integer not null,
  bytes bigint not null
);
