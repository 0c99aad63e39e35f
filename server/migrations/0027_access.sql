-- Who somebody is and what they may do. Whoever was an owner stays one; all others were technicians so far.
alter table technician
  add column role text not null default 'technician'
    check (role in ('owner', 'technician', 'trainee', 'counter', 'viewer', 'none')),
  add column version integer not null default 0;
update technician set role = 'owner' where owner;
alter table technician drop column owner;

-- How people sign. A shop starts with secrets; `picked` holds on the machine itself only.
create table shop_access (
  only_row boolean primary key default true check (only_row),
  signing text not null default 'secret' check (signing in ('secret', 'picked')),
  -- The hash of the one-time code that makes an owner; null while there is none.
  owner_code text,
  owner_code_failures integer not null default 0,
  -- Signs the cookies.
  cookie_secret text not null
);
create trigger shop_access_told after insert or update or delete on shop_access
  for each statement execute function tell_change('shop');

-- What somebody signs in with, as a salted hash; how often it went wrong since it last went right.
create table technician_secret (
  technician text primary key references technician on delete cascade,
  kind text not null check (kind in ('pin', 'passphrase')),
  hash text not null,
  changed_at timestamptz not null,
  failures integer not null default 0,
  paused_until timestamptz,
  locked boolean not null default false
);

-- Browsers on which a PIN is enough. The token is known to the device alone; here is its hash.
create table device (
  id uuid primary key,
  name text not null check (name <> ''),
  enrolled_by text not null references technician,
  code text,
  code_until timestamptz,
  token text,
  enrolled_at timestamptz,
  seen_at timestamptz
);
create unique index device_token on device (token);

-- Sessions of browsers, in the form that the session store wants.
create table web_session (
  sid varchar primary key,
  sess json not null,
  expire timestamp(6) not null
);
create index web_session_expire on web_session (expire);
create index web_session_person on web_session ((sess ->> 'person'));

-- What the owner can look up later. Nothing here is ever changed or taken out.
create table audit (
  id bigint generated always as identity primary key,
  at timestamptz not null,
  by_name text,
  device text,
  kind text not null,
  about text not null
);
create function audit_stands() returns trigger language plpgsql as $$
begin
  raise exception 'lines of the audit are not changed';
end $$;
create trigger audit_not_changed before update or delete on audit
  for each row execute function audit_stands();
create trigger audit_not_emptied before truncate on audit
  for each statement execute function audit_stands();
