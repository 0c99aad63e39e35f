import type { Protection } from '../standards/index.ts';

export const protectionText: Record<Protection, string> = {
  'over-voltage': 'over-voltage',
  'under-voltage': 'under-voltage',
  'over-current': 'over-current',
  'over-power': 'over-power',
  'over-temperature': 'over-temperature',
  'short-circuit': 'short-circuit',
};

/** What a choice is called by, such as the name of the supply. @param fitting as a job names what work was done for */
export function fittingText(
  fitting: string,
  supplies: readonly { readonly id: string; readonly name: string }[],
): string {
  if (fitting === 'none') return 'no choice yet';
  if (fitting.startsWith('keep:')) return 'the supply that came';
  const id = fitting.slice('replace:'.length);
  return supplies.find((model) => model.id === id)?.name ?? id;
}
