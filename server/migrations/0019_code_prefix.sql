-- A shop's jobs begin with letters of its own. One that has jobs goes on with theirs; one that has none counts from 1.
alter table shop_settings add column code_prefix text not null default 'FW' check (code_prefix ~ '^[A-Z]{2}$');
update shop_settings set code_prefix = coalesce((select left(code, 2) from job order by id desc limit 1), 'FW');
alter table shop_settings alter column code_prefix drop default;
select setval('job_number', 1, false) where not exists (select from job);
