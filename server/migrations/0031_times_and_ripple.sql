-- Power-on and hold-up times, and ripple by oscilloscope, are readings of their own.
alter table job_reading drop constraint job_reading_subject_check;
alter table job_reading add constraint job_reading_subject_check check (
  subject in (
    '+12', '+5', '+3.3', '-12', '+5sb', 'power-good', 'power-on', 'hold-up',
    'ripple +12', 'ripple +5', 'ripple +3.3', 'ripple -12', 'ripple +5sb'
  )
);
alter table instrument drop constraint instrument_kind_check;
alter table instrument add constraint instrument_kind_check check (kind in ('multimeter', 'tester', 'oscilloscope'));
alter table instrument add column ripple_error_millivolts double precision check (ripple_error_millivolts >= 0);
