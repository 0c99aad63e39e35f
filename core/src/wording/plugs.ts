import type { InletKind, PlugKind } from '../standards/index.ts';

/** What an inlet, and the plug made for it alone, is called at the bench. */
export const inletName: Readonly<Record<InletKind, string>> = {
  'main-own': "main, maker's own",
  'main-24': '24-pin main',
  'main-20': '20-pin main',
  'aux-6': '6-pin auxiliary',
  'cpu-8': '8-pin processor',
  'cpu-4': '4-pin processor',
  'card-16': '16-pin card',
  'card-8': '8-pin card',
  'card-6': '6-pin card',
  sata: 'SATA power',
  'peripheral-4': '4-pin peripheral',
  'small-drive-4': 'small drive, 4-pin',
};

/** What a plug is called; those that come apart by their pieces. */
export const plugName: Readonly<Record<PlugKind, string>> = {
  ...inletName,
  'main-20+4': 'main, 20+4',
  'cpu-4+4': 'processor, 4+4',
  'card-6+2': 'card, 6+2',
};
