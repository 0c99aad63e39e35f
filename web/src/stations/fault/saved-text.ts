import { worthMinutes, worthOf, type NextCheck } from '@fairwatt/core';
import { aboutMinutes } from '../../controls/clock.ts';

/** How much shorter a check makes the search on the whole; null where it does not. */
export const savedText = (check: NextCheck): string | null =>
  worthOf(check) >= worthMinutes ? aboutMinutes(worthOf(check)) : null;
