import type { CaseLayout, PartChange } from '../machine/index.ts';
import {
  isRail,
  isTime,
  type Condition,
  type Doubt,
  boardSensorId,
  type Instrument,
  type InstrumentKind,
  type QuickProblem,
  type ReadingCode,
  type Subject,
  type Verdict,
  type VerdictWord,
  type ReadingValue,
} from '../measure/index.ts';
import type { School, LoadWord } from '../load/index.ts';
import { type FaultGroup, type Hazard, type Need, type Strength } from '../diagnose/index.ts';
import type {
  CameAlong,
  JobList,
  OldSupply,
  Priority,
  Refusal,
  SearchFieldId,
  StationId,
  StationState,
} from '../job/index.ts';
import { voltsText } from './figures.ts';
import { figureText, plainFigure } from './manner.ts';

export const subjectText: Record<Subject, string> = {
  '+12': '+12 V',
  '+5': '+5 V',
  '+3.3': '+3.3 V',
  '-12': '-12 V',
  '+5sb': '+5 V standby',
  'power-good': 'Power-good',
  'power-on': 'Power-on time',
  'hold-up': 'Hold-up time',
  'ripple +12': 'Ripple on +12 V',
  'ripple +5': 'Ripple on +5 V',
  'ripple +3.3': 'Ripple on +3.3 V',
  'ripple -12': 'Ripple on -12 V',
  'ripple +5sb': 'Ripple on standby',
};
export const instrumentKindText: Record<InstrumentKind, string> = {
  multimeter: 'multimeter',
  tester: 'hand-held tester',
  oscilloscope: 'oscilloscope',
};
/** An instrument by its name; by its id where nobody knows it any more. */
export const instrumentName = (instruments: readonly Instrument[], id: string): string =>
  id === boardSensorId
    ? 'the board’s own sensor'
    : (instruments.find((instrument) => instrument.id === id)?.name ?? id);
export const conditionText: Record<Condition, string> = { 'off-load': 'off load', idle: 'idle', work: 'at work' };
export const codeText: Record<ReadingCode, string> = {
  'too-high': 'too high',
  'too-low': 'too low',
  absent: 'absent',
  wanders: 'wanders',
};
export const verdictText: Record<VerdictWord, string> = {
  pass: 'Pass',
  marginal: 'Marginal',
  fail: 'Fail',
  'cannot-tell': 'Cannot tell',
};
export const changeText: Record<PartChange, string> = {
  stays: 'stays',
  added: 'added',
  replaced: 'replaced',
  removed: 'removed',
};
export const layoutText: Record<CaseLayout, string> = { tower: 'Tower', small: 'Small case', slim: 'Slim case' };
export const schoolText: Record<School, string> = {
  'like-for-like': 'Like for like',
  'fixed-margin': 'Fixed margin',
  'half-load': 'Half load',
  'card-advice': "Card's advice",
  'peaks-covered': 'Peaks covered',
};
export const strengthText: Record<Strength, string> = { strong: 'strong', fair: 'fair', slight: 'slight' };
export const hazardText: Record<Hazard, string> = { none: 'none', low: 'low', mains: 'mains' };
export const needText: Record<Need, string> = {
  meter: 'meter',
  tester: 'tester',
  oscilloscope: 'oscilloscope',
  'spare-supply': 'spare supply',
  'second-spare': 'second spare',
  'spare-memory': 'spare memory',
  'spare-card': 'spare card',
  'spare-board': 'spare board',
  running: 'machine running',
};
export const faultGroupText: Record<FaultGroup, string> = {
  mains: 'mains',
  supply: 'supply',
  wiring: 'wiring',
  control: 'control',
  machine: 'machine',
  other: 'other',
};
/** Where a search found what was looked for. */
export const cameAlongText: Readonly<Record<CameAlong, string>> = {
  lead: 'mains lead',
  box: 'box of the supply',
  manual: 'manual',
  screws: 'screws',
  keyboard: 'keyboard and mouse',
  media: 'media and keys',
  parts: 'parts for the upgrade',
};
export const oldSupplyText: Readonly<Record<OldSupply, string>> = {
  failed: 'failed',
  kept: 'good, and kept',
  'given-back': 'given back to the client',
};
export const priorityText: Readonly<Record<Priority, string>> = {
  urgent: 'urgent',
  usual: 'usual',
  waits: 'waits for something',
};
export const searchFieldText: Record<SearchFieldId, string> = {
  code: 'Code',
  title: 'Machine',
  client: 'Client',
  reach: 'Reached by',
  words: 'Complaint',
  part: 'Part',
  supply: 'Supply that came',
  fitted: 'Supply chosen',
  finding: 'Finding',
  upgrade: 'Upgrade',
  cable: 'Cable',
  bag: 'Left in the bag',
  serial: 'Serial number',
  note: 'Note',
  technician: 'Worked on by',
};
export const stationText: Record<StationId, string> = {
  intake: 'Intake',
  fault: 'Find the fault',
  measure: 'Measure',
  load: 'Load',
  replacement: 'Replacement',
  cables: 'Cables',
  'hand-over': 'Hand over',
};
export const stationStateText: Record<StationState, string> = {
  untouched: 'untouched',
  'in-hand': 'in hand',
  'needs-you': 'needs you',
  settled: 'settled',
};
export const loadWordText: Record<LoadWord, string> = {
  enough: 'Enough',
  tight: 'Tight',
  'too-small': 'Too small',
  'cannot-tell': 'Cannot tell',
};

/** What the figures of a subject are in. */
export const unitOf = (subject: Subject) => (isRail(subject) ? 'V' : isTime(subject) ? 'ms' : 'mV');
/** What was read, as it was read: a code in words, or the figure with its unit. */
export const readingValueText = (subject: Subject, value: ReadingValue): string =>
  value.kind === 'code' ? codeText[value.code] : `${plainFigure(value.figure)} ${unitOf(subject)}`;

/** A figure of what was read, without its unit; ripple and times in whole ones, a short time with its tenth. */
export const figureOf = (subject: Subject, figure: number) => {
  if (isRail(subject)) return voltsText(figure);
  return subject === 'hold-up' && !Number.isInteger(figure) ? figureText(figure, 1) : figureText(figure, 0);
};

/** What is allowed, such as "11.40 to 12.60 V", "at most 120 mV" or "at least 16 ms". */
export function limitsText({ subject, lower, upper }: Pick<Verdict, 'subject' | 'lower' | 'upper'>): string {
  if (lower === -Infinity) return `at most ${figureOf(subject, upper)} ${unitOf(subject)}`;
  if (upper === Infinity) return `at least ${figureOf(subject, lower)} ${unitOf(subject)}`;
  return `${figureOf(subject, lower)} to ${figureOf(subject, upper)} ${unitOf(subject)}`;
}

/** Why a verdict is what it is, with its limit. */
export function verdictReason(verdict: Verdict): string {
  const lower = `${figureOf(verdict.subject, verdict.lower)} ${unitOf(verdict.subject)}`;
  const upper = `${figureOf(verdict.subject, verdict.upper)} ${unitOf(verdict.subject)}`;
  const doubt =
    verdict.expanded === null
      ? ''
      : ` ±${verdict.expanded < 0.01 ? figureText(verdict.expanded, 3) : figureOf(verdict.subject, verdict.expanded)}`;
  switch (verdict.reason) {
    case 'inside':
      return `inside ${limitsText(verdict)}, with the uncertainty${doubt}`;
    case 'near-low':
      return `inside, but with the uncertainty${doubt} little is left above the limit ${lower}`;
    case 'near-high':
      return `inside, but with the uncertainty${doubt} little is left below the limit ${upper}`;
    case 'outside-low':
      return `below ${lower} by more than the uncertainty${doubt}`;
    case 'outside-high':
      return `above ${upper} by more than the uncertainty${doubt}`;
    case 'straddles-low':
      return `within the uncertainty${doubt} of the limit ${lower}`;
    case 'straddles-high':
      return `within the uncertainty${doubt} of the limit ${upper}`;
    case 'slower-than-guide':
      return `inside 500 ms, slower than the ${verdict.subject === 'power-on' ? 150 : 250} ms of its guide`;
    case 'shorter-than-guide':
      return 'long enough only if it was read at full load: its guide wants 17 ms at 80 % of it';
    case 'absent-allowed':
      return 'absent, which its guide allows';
    case 'beyond-range':
      return isRail(verdict.subject)
        ? 'beyond the ranges of this meter'
        : isTime(verdict.subject)
          ? 'this instrument gives no times'
          : 'this instrument shows no ripple';
    case 'no-figure':
      return 'no figure';
    case 'wrong-sign':
      return 'the sign is the other way round: swapped probes, or a sign that was not typed. Read it again';
    case 'sometimes-early':
      return `sometimes early: one of ${verdict.count} power-ups came before ${lower}`;
    case 'sometimes-late':
      return `sometimes late: one of ${verdict.count} power-ups came after ${upper}`;
    case 'not-started':
      return 'every main rail shows next to nothing: was the supply started? Until that is known it says nothing';
    case 'too-high':
    case 'too-low':
    case 'absent':
    case 'wanders':
      return `shown as ${codeText[verdict.reason]}`;
  }
}

/** The level of a verdict as text: mean or code. */
export function verdictLevel(verdict: Verdict): string {
  return verdict.mean === null
    ? verdict.reason in codeText
      ? codeText[verdict.reason as ReadingCode]
      : 'absent'
    : `${figureOf(verdict.subject, verdict.mean)} ${unitOf(verdict.subject)}`;
}

/**
 * What is asked of a doubtful figure.
 * @param keepable it may be kept all the same, once somebody has looked again
 */
export function doubtText(subject: Subject, doubt: Doubt, keepable = true): string {
  return keepable ? askedOf(subject, doubt, true) : `${askedOf(subject, doubt, false)} It cannot be kept.`;
}

function askedOf(subject: Subject, doubt: Doubt, keepable: boolean): string {
  const name = subjectText[subject];
  switch (doubt.code) {
    case 'sign':
      return `${plainFigure(doubt.figure)} under ${name}: are the probes swapped? Keep it only if the sign is right.`;
    case 'point':
      return `${plainFigure(doubt.figure)} has no decimal point: ${voltsText(doubt.volts)} V?`;
    case 'other-rail':
      return `${plainFigure(doubt.figure)} under ${name} looks like ${subjectText[doubt.rail]}. Right pin?`;
    case 'millivolts':
      return `${plainFigure(doubt.figure)} looks like millivolts: ${voltsText(doubt.volts)} V?`;
    case 'mains':
      return `${plainFigure(doubt.figure)} V is a mains voltage, not ${name}. Meter on AC, or a slip?`;
    case 'no-such-rail':
      return `The label of this supply names no ${name} output. Right supply, right pin?`;
    case 'far':
      return keepable
        ? `${plainFigure(doubt.figure)} is far from any ${name} there is. Keep it only if you read it twice.`
        : `${plainFigure(doubt.figure)} is far from any ${name} there is.`;
  }
}

/** What meters show in place of a figure that is beyond their range. */
const isOverload = (word: string): boolean => /^\.?[o0]\.?l\.?$/i.test(word);

export function quickProblemText(problem: QuickProblem): string {
  switch (problem.code) {
    case 'unknown-word':
      return `“${problem.word}” is not a rail. Write 12, 5, 3.3, -12, sb or pg, then the figure.`;
    case 'missing-value':
      return `Figure for ${subjectText[problem.subject]} is still missing.`;
    case 'historic-rail':
      return 'No supply of today has -5 V; pin 20 of the main plug stays empty.';
    case 'load-too-large':
      return `${problem.word} is more than any machine draws.`;
    case 'missing-rail':
      return `Which rail has ${problem.word}? Write the rail first: 12 ${problem.word}.`;
    case 'not-a-figure':
      return isOverload(problem.word)
        ? `The meter shows more than its range takes: set it higher and read ${subjectText[problem.subject]} again.`
        : `“${problem.word}” is not a figure for ${subjectText[problem.subject]}. Write 11.92, or ` +
            'HH, LL, absent, wanders.';
  }
}

export const jobListText: Readonly<Record<JobList, string>> = {
  parts: 'parts',
  outcomes: 'answers',
  readings: 'readings',
  probes: 'probed cables',
  logs: 'logs',
  cables: 'recorded cables',
  pins: 'moved plugs',
  seats: 'seated plugs',
  steps: 'ticked steps',
  stepOrders: 'orders of steps',
  laidAside: 'choices with work laid aside',
  laidWays: 'ways of cables',
  leads: 'leads',
  notes: 'notes',
  proofs: 'things shown',
  signOffs: 'sign-offs',
};

export function refusalText(refusal: Refusal): string {
  switch (refusal.code) {
    case 'stale':
      return 'Somebody changed this since you saw it.';
    case 'closed':
      return 'The job is closed. Reopen it to change something.';
    case 'away':
      return 'The job was put away. Take it out again to change something.';
    case 'not-found':
      return 'This is no longer in the job.';
    case 'duplicate':
      return refusal.subject.startsWith('inlet:') ? 'This inlet already has a plug.' : 'This is already in the job.';
    case 'unknown-reference':
      return `${refusal.path} names something that is not known here.`;
    case 'open-points':
      return `${refusal.count} ${refusal.count === 1 ? 'point is' : 'points are'} still open. Settle or sign off each.`;
    case 'limit':
      return (
        `One job holds at most ${refusal.most} ${jobListText[refusal.list]}. Take one away first, ` +
        'or begin a second job.'
      );
  }
}
