import type {
  Forecast,
  LogEvent,
  LogProblem,
  LogShapeProblem,
  PinExpectation,
  ProbedCode,
  ProbeVerdict,
  TimeFormat,
} from '../measure/index.ts';
import type { NextReading } from '../job/index.ts';
import { voltsText } from './figures.ts';
import { countText, figureText } from './manner.ts';

export const probeWordText: Record<ProbeVerdict['word'], string> = {
  safe: 'Safe',
  wrong: 'Wrong',
  incomplete: 'Incomplete',
};

/** Amps of a rail: tenths where they are few. */
const ampsText = (amps: number) => `${figureText(amps, amps < 10 ? 1 : 0)} A`;

/** The rails that nobody read near the planned load, and the load to read each at next; null where there are none. */
export function unreadRailsText(forecasts: readonly Forecast[]): string | null {
  const unread = forecasts.filter(({ word, beyondAmps }) => word === 'cannot-tell' && beyondAmps !== null);
  if (unread.length === 0) return null;
  const each = unread.map(({ rail, amps, nextAmps }) => `${rail} V (read it at ${ampsText(nextAmps ?? amps)})`);
  return `Not read near the planned load: ${each.join(', ')}.`;
}

/** Why a reading is the next one, in one sentence. */
export function nextReadingText({ why }: NextReading): string {
  const timesMore = (count: number) => (count === 1 ? 'once more' : `${count} times more`);
  const saved = (minutes: number) => `about ${figureText(minutes, 1)} min saved on the way to the fault`;
  switch (why.kind) {
    case 'first':
      return 'The machine shows no life: without standby nothing else can come.';
    case 'tells':
      return `Tells most now: ${saved(why.savesMinutes)}.`;
    case 'completes':
      return `Not read yet, and the other rails speak for themselves only: ${saved(why.savesMinutes)}.`;
    case 'settles':
      return why.repeats === null
        ? `What was read cannot tell, and only a better meter can: ${saved(why.savesMinutes)}.`
        : `What was read cannot tell; ${timesMore(why.repeats)} with the load held steady would: ` +
            `${saved(why.savesMinutes)}.`;
    case 'record':
      return 'Nothing in the search hangs on it now; it stands in the record of before and after.';
  }
}

/** Why a forecast cannot tell, and what to do about it. */
function doubtText({ volts, lower, upper, beyondAmps, bends, nextAmps }: Forecast): string {
  const next = nextAmps === null ? '' : ` Read it at ${ampsText(nextAmps)} next.`;
  if (beyondAmps !== null)
    return (
      `cannot tell beyond ${ampsText(beyondAmps)}, the highest load that was ` +
      `read${bends ? '; the rail bends away from its line' : ''}.${next}`
    );
  const end = Math.abs(volts - lower) < Math.abs(volts - upper) ? lower : upper;
  return (
    `cannot tell, the band ends at ${voltsText(end)} V. More loads, nearer to the planned ` +
    'one, or a finer meter settle it.'
  );
}

/** What to expect of a rail at the planned load: figure first, then what it means. */
export function forecastText(forecast: Forecast): string {
  const range =
    `At ${ampsText(forecast.amps)} expect ${voltsText(forecast.interval.low)} to ` +
    `${voltsText(forecast.interval.high)} V`;
  switch (forecast.word) {
    case 'will-pass':
      return `${range}: will pass.`;
    case 'will-fail':
      return (
        `${range}: will fail, the band ends at ` +
        `${voltsText(forecast.volts < forecast.lower ? forecast.lower : forecast.upper)} V.`
      );
    case 'cannot-tell':
      return `${range}: ${doubtText(forecast)}`;
  }
}

/** What a pin must show. */
export function pinExpectText(expects: PinExpectation): string {
  const range = expects.kind === 'free' ? '' : `${voltsText(expects.lower)} to ${voltsText(expects.upper)} V`;
  switch (expects.kind) {
    case 'rail':
      return `${expects.rail === '+5sb' ? '+5 V standby' : `${expects.rail} V`}, ${range}`;
    case 'ground':
      return `ground, ${range}`;
    case 'signal':
      return {
        'power-good': `power-good, high: ${range}`,
        start: `the start line, held low: ${range}`,
        sense: `sense, at ground: ${range}`,
      }[expects.signal];
    case 'coded':
      return 'ground or open: it codes the watts';
    case 'free':
      return 'nothing';
  }
}

/** What the small contacts of a probed 16-pin plug say. */
export const probedCodeText: Readonly<Record<ProbedCode, string>> = {
  600: 'Coded for 600 W.',
  'by-print': 'Coded for 300 or 450 W: go by the watts printed on it.',
  none: 'No coded watts: a card draws 150 W from it at most, or does not start.',
};

export const timeFormatText: Record<TimeFormat, string> = {
  seconds: 'seconds',
  'epoch-seconds': 'seconds since 1970',
  'epoch-milliseconds': 'milliseconds since 1970',
  clock: 'time of day',
  iso: 'year-month-day',
  'day-first': 'day.month.year',
  'month-first': 'month/day/year',
};

/** What could not be guessed, and what to do. */
export function logShapeText(problem: LogShapeProblem): string {
  switch (problem.code) {
    case 'empty':
      return 'There is nothing in this file.';
    case 'one-column':
      return 'Only one column was found. Is the divider right?';
    case 'no-figures':
      return 'No row of figures was found. Are the rows at the top and the decimal sign right?';
    case 'no-time':
      return 'No column of time was found: say which one it is.';
    case 'no-rail':
      return 'No rail was recognised: say which column holds which.';
  }
}

const inHundred = (share: number) => `${figureText(100 * share, share < 0.1 ? 1 : 0)} %`;

/** Why a log is not taken. */
export function logProblemText(problem: LogProblem): string {
  switch (problem.code) {
    case 'no-rows':
      return 'No row could be read with this mapping.';
    case 'no-time-column':
      return 'Say which column is the time.';
    case 'no-rail-column':
      return 'Say which column is which rail.';
    case 'too-many-rows':
      return (
        `More than ${countText(problem.most)} rows. Cut the log in parts, or let the ` + 'logger write less often.'
      );
    case 'changing-columns':
      return (
        `${inHundred(problem.share)} of the rows have fewer columns, the first is row ` +
        `${problem.row}. Two logs in one file?`
      );
    case 'endless-row':
      return `Row ${problem.row} does not end: a line break or a closing quotation mark is missing.`;
    case 'unreadable':
      return (
        `${inHundred(problem.share)} of the rows cannot be read, the first is row ${problem.row}. ` +
        'Are time format, decimal sign and units right?'
      );
    case 'time-backwards':
      return (
        `Time runs backwards in ${inHundred(problem.share)} of the rows, first at row ` +
        `${problem.row}. Is the time format right, or are two logs in one file?`
      );
  }
}

export function logEventText(event: LogEvent): string {
  const rail = event.rail === '+5sb' ? '+5 V standby' : `${event.rail} V`;
  const lasts =
    event.lastsSeconds < 1
      ? `${Math.round(event.lastsSeconds * 1000)} ms`
      : `${figureText(event.lastsSeconds, event.lastsSeconds < 10 ? 1 : 0)} s`;
  switch (event.kind) {
    case 'dip':
      return `${rail} dips to ${voltsText(event.volts ?? 0)} V for ${lasts}`;
    case 'spike':
      return `${rail} rises to ${voltsText(event.volts ?? 0)} V for ${lasts}`;
    case 'step':
      return `${rail} steps from ${voltsText(event.fromVolts ?? 0)} to ${voltsText(event.volts ?? 0)} V and stays`;
    case 'gap':
      return `nothing logged for ${lasts}`;
    case 'off':
      return event.lastsSeconds > 0 ? `off for ${lasts}` : 'switched off';
  }
}

/** What goes wrong with an instrument, and what to do. */
export const troubleText: Readonly<Record<string, string>> = {
  'no-connection': 'Nobody answers at its address. Is it on, and in the same network?',
  silent: 'It does not answer. Tried again by itself.',
  vanished: 'The connection broke. Tried again by itself.',
  nonsense: 'It answered something that is no figure; nothing of it was kept.',
  flood: 'It sends more than was asked; nothing of it was kept.',
  taken: 'Another screen measures hands free with this meter now; it stopped here.',
  'stale-answer': 'It answered an earlier question; nothing of it was kept.',
  'out-of-range': 'Overload: more than its range holds.',
  refused: 'It refused an order.',
};

/** Why a sweep ended. */
export const sweepEndText: Readonly<Record<string, string>> = {
  'no-connection': 'Did not begin: nobody answers at the address of an instrument.',
  silent: 'Ended by itself: an instrument fell silent.',
  vanished: 'Ended by itself: the connection to an instrument broke.',
  nonsense: 'Ended by itself: an instrument answered something that is no figure.',
  flood: 'Ended by itself: an instrument sent more than was asked.',
  'stale-answer': 'Ended by itself: an instrument answered an earlier question.',
  'out-of-range': "Ended by itself: overload, more than the meter's range holds.",
  refused: 'Ended by itself: an instrument refused an order.',
  'server-forgot': 'The server was started anew meanwhile; what was read is here.',
  done: 'All steps read.',
  stopped: 'Stopped by hand.',
  'rail-low': 'Ended by itself: the rail fell far below its band.',
  'rail-high': 'Ended by itself: the rail rose far above its band.',
  'too-hot': 'Ended by itself: too hot.',
};
