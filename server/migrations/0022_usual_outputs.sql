-- Outputs of a supply whose label nobody read yet stand at what is usual for its rating, and say so; limits as well.
alter table job_supply_rail add column usual boolean;
alter table job_supply_combined add column usual boolean;
alter table supply_model_rail add column usual boolean;
alter table supply_model_combined add column usual boolean;
