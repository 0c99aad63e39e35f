-- How a shop writes figures, money and days, and by which clock; without a zone by that of each device.
alter table shop_settings
  add column locale text not null default 'en-GB' check (locale <> ''),
  add column time_zone text not null default '';
