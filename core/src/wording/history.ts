import { leadStateText } from './leads.ts';
import type { Knowledge } from '../diagnose/index.ts';
import type { Act } from '../job/index.ts';
import { checkTitle, findingNames, outcomeLabel } from './diagnosing.ts';
import { wattsText } from './figures.ts';
import { proofText } from './stations.ts';
import { changeText, conditionText, readingValueText, subjectText } from './words.ts';

/** Names that acts speak of by their ids; the id where nobody knows it any more. */
export interface HistoryNames {
  readonly knowledge: Knowledge;
  readonly part: (id: string) => string;
  readonly inlet: (id: string) => string;
  readonly supply: (id: string) => string;
}

type ActOf<K extends Act['kind']> = Extract<Act, { readonly kind: K }>;
type Told<K extends Act['kind']> = (act: ActOf<K>, names: HistoryNames) => string;

const readingTold = (act: ActOf<'take-reading' | 'correct-reading'>): string => {
  const { reading } = act;
  const value = readingValueText(reading.subject, reading.value);
  return (
    `${act.kind === 'correct-reading' ? 'Reading corrected' : 'Reading'}: ` +
    `${subjectText[reading.subject]} ${conditionText[reading.condition]}, ${value}`
  );
};

const told: { readonly [K in Act['kind']]: Told<K> } = {
  'edit-sheet': () => 'Intake',
  'put-part': (act) => `Part: ${act.part.name}${act.part.change === 'stays' ? '' : `, ${changeText[act.part.change]}`}`,
  'drop-part': (act, names) => `Part taken out: ${names.part(act.partId)}`,
  'put-supply': (act) => {
    const { name, label, selector } = act.supply;
    const stands = selector === undefined || selector === 'none' ? '' : `, selector at ${selector} V`;
    return `Supply that came: ${name === '' ? '' : `${name}, `}${wattsText(label.ratingWatts)}${stands}`;
  },
  'drop-supply': () => 'Supply that came: taken out',
  'note-outcome': (act, names) =>
    `${checkTitle(names.knowledge, act.checkId)}: ${outcomeLabel(names.knowledge, act.checkId, act.outcomeId)}`,
  'take-back-outcome': () => 'An answer taken back',
  'take-reading': readingTold,
  'correct-reading': readingTold,
  'strike-reading': () => 'A reading struck',
  'restore-reading': () => 'A struck reading stands again',
  'put-probe': () => 'Probe walk of a cable',
  'drop-probe': () => 'Probe walk taken out',
  'put-log': (act) => `Log: ${act.log.name}`,
  'drop-log': () => 'Log taken out',
  'set-finding': (act, names) => {
    if (act.finding === null) return 'Finding taken back';
    if (act.finding.kind === 'no-fault') return 'Finding: no fault';
    return act.finding.faultId === null
      ? 'Finding: handed on'
      : `Finding: ${findingNames(names.knowledge, act.finding)}`;
  },
  'set-choice': (act, names) => {
    if (act.choice === null) return 'Choice taken back';
    return act.choice.modelId === null ? 'The present supply stays' : `Chosen: ${names.supply(act.choice.modelId)}`;
  },
  'put-cable': (act) => `Cable ${act.cable.label} as it was`,
  'drop-cable': () => 'A recorded cable taken out',
  'swap-inlets': (act, names) =>
    `Recorded plugs exchanged: ${names.inlet(act.inletId)} and ${names.inlet(act.otherInletId)}`,
  'put-pin': (act, names) => `Plug put by hand: ${names.inlet(act.pin.inletId)}`,
  'drop-pin': (act, names) => `Plug given back to the plan: ${names.inlet(act.inletId)}`,
  'put-seat': (act, names) => `Plug looked at: ${names.inlet(act.seat.inletId)}`,
  'recheck-seats': (act) => `Looked at again after tying: ${act.inletIds.length} plugs`,
  'tick-step': () => 'A step done',
  'untick-step': () => 'A step open again',
  'lay-cable': (act) => (act.way === '' ? 'The way of a cable taken back' : `A cable laid: ${act.way}`),
  'order-steps': () => 'Steps put in another order',
  'put-lead': (act) => `Lead ${act.lead.what}: ${leadStateText[act.lead.state]}`,
  'drop-lead': () => 'A lead taken out of the record',
  'put-note': (act) => {
    const { text, inReport } = act.note;
    return `Note: ${text === '' ? 'a picture' : text}${inReport ? ', for the report' : ''}`;
  },
  'drop-note': () => 'A note taken out',
  'mark-leads': (act) =>
    `${act.leadIds.length === 1 ? 'A lead' : `${act.leadIds.length} leads`}: ${leadStateText[act.state]}`,
  'note-proof': (act) => (act.holds ? `Shown: ${proofText[act.item]}` : `Does not hold: ${proofText[act.item]}`),
  'drop-proof': (act) => `Taken back: ${proofText[act.item]}`,
  'sign-off': (act) => `Signed off: ${act.reason}`,
  'withdraw-sign-off': () => 'A sign-off withdrawn',
  close: () => 'Closed',
  reopen: () => 'Opened again',
  'put-away': (act) => `Put away: ${act.reason}`,
};

/** What an act did, in a few words. */
export const actText = (act: Act, names: HistoryNames): string => (told[act.kind] as Told<Act['kind']>)(act, names);
