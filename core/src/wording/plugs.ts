import type { PlugKind } from '../standards/index.ts';

/** What a plug is called at the bench; its pins by the standard, with the pieces that come apart. */
export const plugName: Readonly<Record<PlugKind, string>> = {
  'main-24': '24-pin main',
  'main-20+4': 'main, 20+4',
  'cpu-8': '8-pin processor',
  'cpu-4+4': 'processor, 4+4',
  'cpu-4': '4-pin processor',
  'card-16': '16-pin card',
  'card-8': '8-pin card',
  'card-6+2': 'card, 6+2',
  'card-6': '6-pin card',
  sata: 'SATA power',
  'peripheral-4': '4-pin peripheral',
  'small-drive-4': 'small drive, 4-pin',
};
