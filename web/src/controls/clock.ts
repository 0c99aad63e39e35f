import { figureText, firstLocale, isTimeZone, writeAs } from '@fairwatt/core';

interface Clock {
  readonly time: Intl.DateTimeFormat;
  readonly day: Intl.DateTimeFormat;
  /** The wall's clock in figures, by which the day and the zone's offset are known. */
  readonly wall: Intl.DateTimeFormat;
}

const daily = { year: 'numeric', month: '2-digit', day: '2-digit' } as const;
const hourly = { hour: '2-digit', minute: '2-digit', hourCycle: 'h23' } as const;

function clockOf(locale: string, timeZone: string): Clock {
  // Figures as they are typed, days of the common calendar, and the clock that the shop goes by.
  const common = { numberingSystem: 'latn', calendar: 'gregory', ...(timeZone === '' ? {} : { timeZone }) };
  return {
    time: new Intl.DateTimeFormat(locale, { ...common, ...hourly }),
    day: new Intl.DateTimeFormat(locale, { ...common, day: 'numeric', month: 'short', year: 'numeric' }),
    wall: new Intl.DateTimeFormat('en-GB', { ...common, ...daily, ...hourly, second: '2-digit' }),
  };
}

// Made once: each costs a page more than a hundred instants do.
let clock = clockOf(firstLocale, '');
let goesBy = `${firstLocale} `;

/**
 * From now on figures and times are written as the shop writes them, by its clock; without a zone, or with one that
 * this browser does not know, by this device's.
 * @throws RangeError for what is no language
 */
export function writeAsShop({ locale, timeZone }: { readonly locale: string; readonly timeZone: string }): void {
  if (goesBy === `${locale} ${timeZone}`) return;
  writeAs({ locale });
  clock = clockOf(locale, isTimeZone(timeZone) ? timeZone : '');
  goesBy = `${locale} ${timeZone}`;
}

/** Instants as the bench reads them: 24 hours, by the shop's clock. */
export const clockTime = (instant: string): string => clock.time.format(new Date(instant));
export const calendarDay = (instant: string): string => clock.day.format(new Date(instant));

/** What the wall's clock shows at an instant in milliseconds, by the parts of a date. */
const wallAt = (at: number): Readonly<Record<string, string>> =>
  Object.fromEntries(clock.wall.formatToParts(at).map(({ type, value }) => [type, value]));

const secondMilliseconds = 1000;

/** By how much the wall's clock is ahead of that of instants, at an instant; all in milliseconds. */
export function wallAhead(at: number): number {
  const { year, month, day, hour, minute, second } = wallAt(at);
  const shown = Date.parse(`${year}-${month}-${day}T${hour}:${minute}:${second}Z`);
  return shown - Math.floor(at / secondMilliseconds) * secondMilliseconds;
}

/** The day that it is in the shop, ISO date. */
export function today(at = Date.now()): string {
  const { year, month, day } = wallAt(at);
  return `${year}-${month}-${day}`;
}
export const dayAndTime = (instant: string): string => `${calendarDay(instant)}, ${clockTime(instant)}`;

/** Minutes that were estimated, no finer than they are known: 0.4 min, 12 min. */
export const aboutMinutes = (minutes: number): string => `${figureText(minutes, minutes < 10 ? 1 : 0)} min`;

/** A span of seconds as people say it: 12.4 s, 3:05, 2:14:09. */
export function timeSpanText(seconds: number): string {
  if (seconds < 60) return `${figureText(seconds, seconds < 10 ? 2 : 1)} s`;
  const two = (value: number) => String(Math.floor(value)).padStart(2, '0');
  return seconds < 3600
    ? `${Math.floor(seconds / 60)}:${two(seconds % 60)}`
    : `${Math.floor(seconds / 3600)}:${two((seconds % 3600) / 60)}:${two(seconds % 60)}`;
}
