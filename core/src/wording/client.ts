import type { Knowledge } from '../diagnose/index.ts';
import { isRail, rippleRail, type TimeSubject, type Verdict } from '../measure/index.ts';
import type { RailName } from '../standards/index.ts';
import { proofsAsked, standingProof, unanswered, type Job, type JobView, type ProofItem } from '../job/index.ts';
import type { Demand } from '../load/index.ts';
import { nominalVolts, type PartChange } from '../machine/index.ts';
import { checkTitle, findingNames, findingProof, outcomeLabel } from './diagnosing.ts';
import { wattsText } from './figures.ts';
import { figureText } from './manner.ts';
import { bareSentence } from './stations.ts';
import { limitsText, verdictLevel } from './words.ts';

/** What the client reads first, in plain words; each list is sentences. */
export interface ClientWords {
  readonly told: readonly string[];
  /** What was found, and how it is known. */
  readonly found: readonly string[];
  readonly did: readonly string[];
  /** Before and after, where both were measured. */
  readonly measured: readonly string[];
  /** What became of the supply that came out. */
  readonly old: readonly string[];
  readonly watch: readonly string[];
  /** What is not settled; empty only where nothing is open. */
  readonly unsettled: readonly string[];
}

type Seen = Pick<
  JobView,
  'bareVerdict' | 'observations' | 'before' | 'after' | 'load' | 'standing' | 'chosen' | 'cabling' | 'openPoints'
>;

/** Words that somebody typed, with one full stop behind them. */
const ended = (text: string): string => (/[.!?…]$/.test(text.trim()) ? text.trim() : `${text.trim()}.`);

const lower = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);

/** What is planned, without the word that says that it is. */
const planned = (upgrade: string): string =>
  ended(upgrade.trim().replace(/^plan(?:s|ned|ning)?(?!\w)\s*:?\s*(?=\S)/i, ''));

function toldBy({ sheet }: Job, knowledge: Knowledge): string[] {
  const button = [sheet.button, ...sheet.alsoTold].filter((told) => told !== null);
  return [
    ...(sheet.words === '' ? [] : [`“${sheet.words}”`]),
    ...(button.length === 0
      ? []
      : [
          `When its button is pressed: ${button
            .map((told) => lower(outcomeLabel(knowledge, 'told-button', told)))
            .join('; at other times ')}.`,
        ]),
    ...(sheet.upgrade === '' ? [] : [`You planned: ${planned(sheet.upgrade)}`]),
  ];
}

const voltLine = (rail: RailName): string =>
  rail === '+5sb'
    ? 'The 5 volt line that is on while the machine sleeps'
    : `The ${rail.startsWith('-') ? 'minus ' : ''}${nominalVolts[rail]} volt line`;
const timeName: Readonly<Record<TimeSubject, string>> = {
  'power-good': 'The signal that its voltages are good',
  'power-on': 'The time it takes to start',
  'hold-up': 'The time it lasts when the mains is gone',
};

/** The rail and load of a verdict, as somebody who is no technician reads it. */
function lineName({ subject, condition }: Verdict): string {
  const ripple = rippleRail(subject);
  const line =
    ripple !== null
      ? `The unsteadiness of ${lower(voltLine(ripple))}`
      : isRail(subject)
        ? voltLine(subject)
        : timeName[subject as TimeSubject];
  return condition === 'work'
    ? `${line}, with the machine at work`
    : condition === 'idle'
      ? `${line}, with the machine at rest`
      : line;
}

const bounds = ({ lower: least, upper: most, subject }: Verdict): string =>
  isRail(subject)
    ? `${figureText(least, 2)} to ${figureText(most, 2)} V`
    : limitsText({ subject, lower: least, upper: most });

const bareFound = {
  failed: 'The power supply has failed and is never to be used again.',
  good: 'The power supply is good, as far as it was tried.',
  'cannot-tell': 'We cannot say yet whether the power supply is good.',
} as const;

function foundBy(job: Job, view: Seen, knowledge: Knowledge): string[] {
  const { finding } = job;
  if (view.bareVerdict !== null) return [bareFound[view.bareVerdict.word], bareSentence(view.bareVerdict)];
  if (finding === null) return ['We have not come to a finding yet.'];
  if (finding.kind === 'no-fault') return ['We found no fault, and the power supply is healthy.'];
  if (finding.kind === 'hand-on')
    return ['What troubles your machine is not its power supply; it goes on to whoever repairs that.'];
  const ids = [finding.faultId, finding.alsoFaultId];
  const faults = ids.flatMap((id) => knowledge.faults.find((one) => one.id === id) ?? []);
  const fault = faults.length === 1 ? faults[0] : undefined;
  const name = lower(findingNames(knowledge, finding));
  const plain =
    fault?.cure.id === 'replace-supply'
      ? `The power supply is at fault: ${name}.`
      : fault?.cure.id === 'larger-supply'
        ? 'The power supply works, and is too small for what is in the machine.'
        : faults.length > 1
          ? `Two things were at fault at the same time: ${name}.`
          : `What was at fault: ${name}.`;
  const proof = ids.flatMap((id) => findingProof(knowledge, id, view.observations));
  const failed = view.before.verdicts.filter(({ word }) => word === 'fail');
  return [
    plain,
    ...failed.map((verdict) => `${lineName(verdict)}, was at ${verdictLevel(verdict)}; ${bounds(verdict)} is right.`),
    ...(faults.some(({ cure }) => cure.id === 'larger-supply') && job.supply !== null
      ? [tooMuchFor(job.supply.label.ratingWatts, view.load)]
      : []),
    ...proof.map(
      ({ checkId, outcomeId }) =>
        `We tried it: ${lower(checkTitle(knowledge, checkId))}, ` +
        `and it was ${lower(outcomeLabel(knowledge, checkId, outcomeId))}.`,
    ),
    ...(finding.confirmed ? [] : ['That is what everything points to; it is not proved yet.']),
  ];
}

/**
 * What the machine asks beside what its supply gives: as it came where that is too much already, else with what is
 * planned; for a second too where it is that which is too much (a supply carries its rating so long, and no more).
 */
function tooMuchFor(ratingWatts: number, { present, planned }: Seen['load']): string {
  const peakOf = ({ sustainedWatts, peaks: [second] }: Demand) => Math.max(sustainedWatts, second?.watts ?? 0);
  const asItCame = peakOf(present) > ratingWatts;
  const asked = asItCame ? present : planned;
  const peak = peakOf(asked);
  const moments =
    asked.sustainedWatts <= ratingWatts && peak > ratingWatts ? `, and for moments ${wattsText(peak)}` : '';
  return (
    `${asItCame ? 'At work the machine takes' : 'With what is planned the machine takes'} ` +
    `${wattsText(asked.sustainedWatts)}${moments}; the supply gives ${wattsText(ratingWatts)} at most.`
  );
}

/** What is chosen or planned is not called done before it is. */
function didBy(job: Job, view: Seen): string[] {
  const isDone = unanswered(view.openPoints).length === 0;
  const seated = view.cabling.rows.filter(({ state }) => state === 'seated');
  const twice = seated.filter(({ seat }) => seat?.rechecked != null);
  const parts = (...changes: readonly PartChange[]) =>
    job.parts.filter(({ change }) => changes.includes(change)).map(({ name }) => name);
  const list = (names: readonly string[], what: string) =>
    names.length === 0 ? [] : [`${what}: ${names.join(', ')}.`];
  if (view.bareVerdict !== null && view.before.verdicts.length > 0)
    return [
      view.before.verdicts.some(({ condition }) => condition === 'work')
        ? 'We tried the power supply by itself on the bench, off load and under load.'
        : 'We tried the power supply by itself on the bench, off load.',
    ];
  return [
    ...(job.choice?.kind === 'replace'
      ? [
          `${seated.length === 0 ? 'We chose another power supply for it' : 'We fitted another power supply'}: ` +
            `${view.chosen?.name ?? job.choice.modelId ?? ''}.`,
        ]
      : job.choice?.kind === 'keep'
        ? ['The power supply that came with it stays.']
        : []),
    ...list(parts('added'), isDone ? 'New in the machine' : 'To go into the machine'),
    ...list(parts('removed', 'replaced'), isDone ? 'Taken out of it' : 'To come out of it'),
    ...(seated.length === 0
      ? []
      : [
          `${seated.length} of ${view.cabling.rows.length} connectors were plugged and checked one by one` +
            (twice.length === seated.length ? ', and all of them once more at the end.' : '.'),
        ]),
    ...shownBy(job),
  ];
}

const shownText: Readonly<Record<ProofItem, string>> = {
  started: 'it starts',
  picture: 'it shows its picture',
  fans: 'every fan turns',
  drives: 'it knows every drive',
  card: 'it knows its graphics card',
  complaint: 'what you complained of was tried, and is gone',
};

/** What was seen at the finished machine. */
function shownBy(job: Job): string[] {
  const shown = proofsAsked(job).flatMap((item) => standingProof(job, item) ?? []);
  const holds = shown.filter(({ holds: good }) => good);
  const fails = shown.filter(({ holds: good }) => !good);
  const notes = shown.filter(({ note }) => note !== '').map(({ note }) => note);
  return [
    ...(holds.length === 0
      ? []
      : [`We saw at the finished machine: ${holds.map(({ item }) => shownText[item]).join('; ')}.`]),
    ...(fails.length === 0 ? [] : [`This does not hold yet: ${fails.map(({ item }) => shownText[item]).join('; ')}.`]),
    ...notes.map((note) => `How it was tried: ${ended(note)}`),
  ];
}

/** Rails that were read before and after the work, the ones that were wrong first. */
function measuredBy(view: Seen): string[] {
  const pairs = view.after.verdicts.flatMap((after) => {
    const before = view.before.verdicts.find(
      ({ subject, condition }) => subject === after.subject && condition === after.condition,
    );
    return before === undefined ? [] : [{ before, after }];
  });
  const wrongFirst = [...pairs].sort((a, b) => Number(b.before.word === 'fail') - Number(a.before.word === 'fail'));
  const now = {
    pass: 'as it should be',
    marginal: 'right, and near its limit',
    fail: 'not right',
    'cannot-tell': 'too near its limit to tell',
  };
  return wrongFirst.map(
    ({ before, after }) =>
      `${lineName(after)}: ${verdictLevel(before)} before, ${verdictLevel(after)} now, which is ${now[after.word]}.`,
  );
}

const oldText = {
  failed: 'has failed, and is never to be used again',
  kept: 'is good, and is kept here',
  'given-back': 'goes back to you',
} as const;

function oldBy({ sheet }: Job): string[] {
  if (sheet.oldSupply === null) return [];
  return [
    `The supply${sheet.bareSupply ? '' : ' that came out'} ${oldText[sheet.oldSupply]}` +
      (sheet.oldSupplyDisposed ? '; it was given to electrical waste.' : '.'),
  ];
}

/**
 * The job in words for its client, out of the record alone: what is not settled is said, and nothing is called right
 * that the record does not call so.
 */
export function clientWords(job: Job, view: Seen, knowledge: Knowledge): ClientWords {
  const open = unanswered(view.openPoints).length;
  return {
    told: toldBy(job, knowledge),
    found: foundBy(job, view, knowledge),
    did: didBy(job, view),
    measured: measuredBy(view),
    old: oldBy(job),
    watch: [
      job.sheet.watch,
      job.sheet.leftInBag === '' ? '' : `In the bag with it: ${ended(job.sheet.leftInBag)}`,
    ].filter((text) => text !== ''),
    unsettled:
      open === 0
        ? []
        : [
            `The work is not finished: ${open === 1 ? 'one thing is' : `${open} things are`} still open, ` +
              'listed at the end.',
          ],
  };
}
