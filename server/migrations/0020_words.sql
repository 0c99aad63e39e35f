-- Words that stood in columns unheld are held to their lists, the same as the program's: a test compares them.
create domain inlet_kind as text check (value in ('main-24', 'main-20', 'aux-6', 'main-own', 'cpu-8', 'cpu-4', 'card-16', 'card-8', 'card-6', 'sata', 'peripheral-4', 'small-drive-4'));
create domain plug_kind as text check (value in ('main-24', 'main-20+4', 'main-20', 'aux-6', 'cpu-8', 'cpu-4+4', 'cpu-4', 'card-16', 'card-8', 'card-6+2', 'card-6', 'sata', 'peripheral-4', 'small-drive-4'));

alter table job_inlet alter column kind type inlet_kind;
alter table own_part_inlet alter column kind type inlet_kind;
alter table job_reading alter column pin_plug type inlet_kind;
alter table job_probe alter column plug type inlet_kind;
alter table job_seat alter column inlet_kind type inlet_kind;
alter table bag_adapter alter column takes type inlet_kind;
alter table bag_adapter alter column gives type plug_kind;
alter table job_cable_plug alter column kind type plug_kind;
alter table bag_cable_plug alter column kind type plug_kind;
alter table supply_model_plug alter column kind type plug_kind;

alter table job add constraint job_school_check check (school in ('like-for-like', 'fixed-margin', 'half-load', 'card-advice', 'peaks-covered'));
alter table job_supply add constraint job_supply_shape_check check (shape in ('ATX', 'SFX', 'SFX-L', 'TFX', 'Flex', 'CFX', 'LFX'));
alter table own_part add constraint own_part_excursion_check
  check (excursion in ('none', 'processor', 'card-older', 'card-newer'));
alter table own_part add constraint own_part_source_check check (source in ('class', 'manual', 'label', 'measured'));
alter table job_supply add constraint job_supply_grade_check
  check (grade in ('none', 'basic', 'bronze', 'silver', 'gold', 'platinum', 'titanium'));
