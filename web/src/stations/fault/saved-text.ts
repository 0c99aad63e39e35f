import { worthOf, type NextCheck } from '@fairwatt/core';
import { aboutMinutes } from '../../controls/clock.ts';

/** Below this, in minutes, nobody would call it time saved. */
const leastMinutes = 0.05;

/** How much shorter a check makes the search on the whole; null where it does not. */
export const savedText = (check: NextCheck): string | null =>
  worthOf(check) >= leastMinutes ? aboutMinutes(worthOf(check)) : null;
