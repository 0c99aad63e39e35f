import type { DangerCause, Interlock, Knowledge, Powering } from '../diagnose/index.ts';
import { checkTitle, outcomeLabel, subjectText } from './words.ts';
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
      return `${checkTitle(knowledge, cause.checkId)}: ${outcomeLabel(knowledge, cause.checkId, cause.outcomeId).toLowerCase()}`;
    case 'rail':
      return cause.volts === null
        ? `${subjectText[cause.rail]}: too high by the tester`
        : `${subjectText[cause.rail]} reads ${voltsText(cause.volts)} V; its limit is ${voltsText(cause.limit)} V`;
    case 'probe':
      return `the probe walk of ${cause.cable} found a wrong pin`;
    case 'plug':
      return `the plug in ${cause.inlet}`;
  }
}

/** What holds for an interlock now, in one sentence. */
export function interlockSentence({ danger, madeSafe, bars }: Interlock): string {
  return madeSafe === null
    ? `${danger.title}. Nothing is powered until that is made safe.`
    : `${danger.title}; ${madeSafe.label.toLowerCase()}. Never power ${bars.map((item) => poweringText[item]).join(', nor ')}.`;
}
