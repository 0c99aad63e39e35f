import type { Lead, LeadKind, LeadState } from '../job/index.ts';

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

/** A lead with its place, as somebody looks for it. */
export const leadText = (lead: Pick<Lead, 'what' | 'place'> | null): string =>
  lead === null ? '' : [lead.what, lead.place].filter((text) => text.trim() !== '').join(', ');

/** What bites with such a lead; null where nothing does that the eye does not see. */
export function leadCaution(kind: LeadKind): string | null {
  switch (kind) {
    case 'light-5':
    case 'light-12':
      return 'Lighting of 5 V and of 12 V are never interchanged: 12 V burns every light of a 5 V line at once.';
    case 'panel-switch':
      return (
        'Power and reset leads look alike: by the print on the board, not by colour. Reset held down looks like a ' +
        'dead supply.'
      );
    case 'panel-lamp':
      return 'A lamp has a + and a -: turned round it stays dark.';
    case 'pump':
      return 'The pump goes on the header that gives full voltage.';
    case 'processor-fan':
      return 'On its own header: without it the processor throttles, or the board stops.';
    case 'riser':
      return 'A riser is looked at on both ends.';
    case 'usb-3':
      return 'Straight off and on: its pins bend.';
    case 'panel-speaker':
    case 'usb-2':
    case 'usb-c':
    case 'audio':
    case 'fan':
    case 'sata-data':
    case 'hub-data':
    case 'clip':
    case 'aerial':
    case 'other':
      return null;
  }
}

/** What the guide calls the connector of such a lead; nothing for those that have none of their own. */
export const guideOfLead: Readonly<Partial<Record<LeadKind, string>>> = {
  'panel-switch': 'front-panel',
  'panel-lamp': 'front-panel',
  'panel-speaker': 'speaker',
  'usb-2': 'usb-2',
  'usb-3': 'usb-3',
  'usb-c': 'usb-c',
  audio: 'front-audio',
  fan: 'fan-4',
  'processor-fan': 'fan-4',
  pump: 'fan-3',
  'light-5': 'light-5',
  'light-12': 'light-12',
  'sata-data': 'sata-data',
};
