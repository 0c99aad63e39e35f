-- One-time codes are kept salted and slow. Those that wait are none any more: a start makes an owner's code anew, and a
-- device is asked for again.
update shop_access set owner_code = null, owner_code_failures = 0 where owner_code is not null;
delete from device where token is null;
