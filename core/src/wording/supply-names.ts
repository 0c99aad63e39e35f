import type { Protection } from '../standards/index.ts';

export const protectionText: Record<Protection, string> = {
  'over-voltage': 'over-voltage',
  'under-voltage': 'under-voltage',
  'over-current': 'over-current',
  'over-power': 'over-power',
  'over-temperature': 'over-temperature',
  'short-circuit': 'short-circuit',
};
