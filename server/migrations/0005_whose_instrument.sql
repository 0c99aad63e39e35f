-- Whose a meter or tester is; empty when it is the shop's.
alter table instrument add column owned_by text not null default '';
