import type { DangerCause, Interlock, Knowledge, Powering } from '../diagnose/index.ts';
import { subjectText } from './words.ts';
import { checkTitle, outcomeLabel } from './diagnosing.ts';
import { voltsText } from './figures.ts';

/** What is not to be powered, as the end of a sentence. */
export const poweringText: Readonly<Record<Powering, string>> = {
  machine: 'the machine by the supply that came',
  supply: 'the supply that came, by itself',
  spare: 'the machine by another supply',
  fitted: 'the machine by the supply that was fitted',
};

/** What showed a danger, as one clause. */
export function dangerCauseText(knowledge: Knowledge, cause: DangerCause): string {
  switch (cause.kind) {
    case 'outcome':
      return (
        `${checkTitle(knowledge, cause.checkId)}: ` +
        outcomeLabel(knowledge, cause.checkId, cause.outcomeId).toLowerCase()
      );
    case 'rail':
      return cause.volts === null
        ? `${subjectText[cause.rail]}: too high by the tester`
        : `${subjectText[cause.rail]} reads ${voltsText(cause.volts)} V; its limit is ${voltsText(cause.limit)} V`;
    case 'probe':
      return `the probe walk of ${cause.cable} found a wrong pin`;
    case 'selector':
      return `the supply's selector stood at ${cause.stands} V as it came; the mains here are ${cause.mainsVolts} V`;
    case 'plug':
      return `the plug in ${cause.inlet}`;
  }
}

/** What stands dangerous, in one sentence; empty where nothing does. */
export function standingDangersText(interlocks: readonly Interlock[]): string {
  const standing = interlocks.filter((interlock) => interlock.madeSafe === null);
  if (standing.length === 0) return '';
  const titles = standing.map((interlock) => interlock.danger.title).join('; ');
  return `${titles}. Nothing is powered until ${standing.length > 1 ? 'all of it' : 'that'} is made safe.`;
}

/** What one way of making safe bars for good; empty where the work goes on. */
export const neverText = (never: readonly Powering[] | undefined): string =>
  never === undefined ? '' : `never power ${never.map((item) => poweringText[item]).join(', nor ')}`;
