import type { LeadKind, LeadState } from '../job/index.ts';

export const leadKindText: Readonly<Record<LeadKind, string>> = {
  'panel-switch': 'switch of the front',
  'panel-lamp': 'lamp of the front',
  'panel-speaker': 'speaker',
  'usb-2': 'front USB 2',
  'usb-3': 'front USB 3',
  'usb-c': 'front type C',
  audio: 'front audio',
  fan: 'fan',
  'processor-fan': 'fan of the processor',
  pump: 'pump',
  'light-5': 'lighting, 5 V addressable',
  'light-12': 'lighting, 12 V plain',
  'sata-data': 'drive data',
  'hub-data': 'hub or controller data',
  riser: 'riser, both ends',
  clip: 'retention clip',
  aerial: 'aerial',
  other: 'other',
};

/** What became of a lead. */
export const leadStateText: Readonly<Record<LeadState, string>> = {
  recorded: 'noted',
  untouched: 'untouched',
  out: 'out',
  back: 'back',
};
