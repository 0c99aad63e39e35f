import dayjs from 'dayjs';

// Made once: each costs a page more than a hundred instants do.
const timeFormat = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' });
const dayFormat = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: 'numeric' });

/** Instants as the bench reads them: 24 hours, day first. */
export const clockTime = (instant: string): string => timeFormat.format(new Date(instant));
export const calendarDay = (instant: string): string => dayFormat.format(new Date(instant));
/** The day that it is here, ISO date. */
export const today = (): string => dayjs().format('YYYY-MM-DD');
export const dayAndTime = (instant: string): string => `${calendarDay(instant)}, ${clockTime(instant)}`;

/** Minutes that were estimated, no finer than they are known: 0.4 min, 12 min. */
export const aboutMinutes = (minutes: number): string => `${minutes.toFixed(minutes < 10 ? 1 : 0)} min`;

/** A span of seconds as people say it: 12.4 s, 3:05, 2:14:09. */
export function timeSpanText(seconds: number): string {
  if (seconds < 60) return `${seconds.toFixed(seconds < 10 ? 2 : 1)} s`;
  const two = (value: number) => String(Math.floor(value)).padStart(2, '0');
  return seconds < 3600
    ? `${Math.floor(seconds / 60)}:${two(seconds % 60)}`
    : `${Math.floor(seconds / 3600)}:${two((seconds % 3600) / 60)}:${two(seconds % 60)}`;
}
