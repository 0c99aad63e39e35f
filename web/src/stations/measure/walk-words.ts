import { judgeProbe, type CableProbe, type Guide } from '@fairwatt/core';

/** The mark of a walk's verdict. */
export const walkMark = { safe: 'pass', wrong: 'fail', incomplete: 'cannot-tell' } as const;

/** What is wrong on a walked plug; where nothing is, what is still to do. */
export function wrongPins(probe: CableProbe, guide: Guide): string {
  const { pins } = judgeProbe(probe.plug, probe.pins, guide);
  const wrong = pins.filter((pin) => pin.finding === 'wrong');
  if (wrong.length > 0)
    return wrong
      .map(
        (pin) =>
          `pin ${pin.name} carries ` +
          (pin.carries === null ? 'something else' : pin.carries === 'ground' ? 'ground' : `${pin.carries} V`),
      )
      .join(', ');
  const missing = pins.filter((pin) => pin.finding === 'missing').length;
  const weak = pins.filter((pin) => pin.finding === 'weak');
  const open = pins.filter((pin) => pin.finding === 'open');
  const unproved = pins.filter((pin) => pin.finding === 'unproved');
  if (open.length > 0) return `no ground on pin ${open.map((pin) => pin.name).join(', ')}: nothing is connected there`;
  if (missing === 0 && unproved.length > 0)
    return `${unproved.length} of the grounds still to prove: an open one shows 0 V as well`;
  return missing > 0
    ? `${missing} of ${pins.length} pins still to touch`
    : weak.length > 0
      ? `weak on pin ${weak.map((pin) => pin.name).join(', ')}: look at the supply first`
      : 'every pin right';
}
