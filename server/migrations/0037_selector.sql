-- Where the voltage selector of the supply stood as it came; nothing where nobody looked.
alter table job_supply add column selector text
  constraint job_supply_selector_check check (selector in ('none', '115', '230'));
