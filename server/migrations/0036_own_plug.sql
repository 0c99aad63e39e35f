-- A maker's own main plug: of an adapter or a supply's cable it has the name of the inlet that it fits. A cable from a
-- machine that came in has a length only once somebody measured it.
alter domain plug_kind drop constraint plug_kind_check;
alter domain plug_kind add constraint plug_kind_check check (value in ('main-24', 'main-20+4', 'main-20', 'aux-6', 'main-own', 'cpu-8', 'cpu-4+4', 'cpu-4', 'card-16', 'card-8', 'card-6+2', 'card-6', 'sata', 'peripheral-4', 'small-drive-4'));
alter table bag_adapter add column own_plug text;
alter table bag_adapter add constraint bag_adapter_own_plug_check check ((gives = 'main-own') = (own_plug is not null));
alter table supply_model_cable add column own_plug text;
alter table bag_cable_plug alter column millimetres drop not null;
