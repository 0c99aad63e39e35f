import { readFileSync, readdirSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { testPart, testShop, TestBench } from '../job/fixture.test-help.ts';
import { schoolRatings, type LoadDraws } from '../load/index.ts';
import { bareReading, viewJob, type Act, type Job, type OpenPointCode, type Refusal } from '../job/index.ts';
import { inletKinds } from '../standards/index.ts';
import type { Doubt, QuickProblem } from '../measure/index.ts';
import {
  absentText,
  actText,
  checkWorth,
  conclusionSentence,
  doubtText,
  durationText,
  findingSentence,
  fitReasonText,
  inletCaution,
  loadFindingText,
  loadSentence,
  moneyText,
  openPointText,
  outcomeLabel,
  percentText,
  problemOfLabel,
  quickProblemText,
  refusalText,
  schoolBecause,
  stationLineText,
  verdictLevel,
  verdictReason,
  worthReadingText,
} from './index.ts';

const { knowledge } = testShop.model;
const directory = new URL('../../../demo/jobs/', import.meta.url);
const jobs = readdirSync(directory).map(
  (name) => (JSON.parse(readFileSync(new URL(name, directory), 'utf8')) as { job: Job }).job,
);
const instruments = (
  JSON.parse(readFileSync(new URL('../../../demo/shop.json', import.meta.url), 'utf8')) as {
    instruments: typeof testShop.instruments;
  }
).instruments;
const sound = (text: string) => {
  expect(text.trim()).not.toBe('');
  expect(text).not.toMatch(/undefined|NaN|null|\[object|Infinity/);
};

describe('what is said at an inlet before a plug goes in', () => {
  it('warns where a plug that fits burns what it is in, and of nothing where none does', () => {
    const said = new Map(inletKinds.map((kind) => [kind, inletCaution(kind)]));
    for (const text of said.values()) if (text !== null) sound(text);
    const those = (pattern: RegExp) => inletKinds.filter((kind) => pattern.test(said.get(kind) ?? ''));
    // Processor and card plugs go into each other's inlets with force, and turn +12 and ground about.
    expect(those(/with force/)).toEqual(['cpu-8', 'cpu-4', 'card-8', 'card-6']);
    expect(those(/opposite polarity|burns it/)).toEqual(['cpu-8', 'cpu-4', 'card-8', 'card-6']);
    expect(those(/burns the drive/)).toEqual(['small-drive-4']);
    expect(those(/No bend within 35 mm/)).toEqual(['card-16']);
    expect(inletKinds.filter((kind) => said.get(kind) === null)).toEqual(['sata', 'peripheral-4']);
  });
});

describe('sentences', () => {
  it('are whole for everything that follows from the demo jobs', () => {
    for (const job of jobs) {
      const view = viewJob(job, { ...testShop, instruments });
      for (const verdict of [...view.before.verdicts, ...view.after.verdicts]) {
        sound(verdictLevel(verdict));
        sound(verdictReason(verdict));
      }
      for (const assessment of [view.load.presentAssessment, view.load.plannedAssessment])
        if (assessment !== null) {
          sound(loadSentence(assessment.word, assessment.deciding, true));
          assessment.findings.map(loadFindingText).forEach(sound);
        }
      for (const candidate of view.candidates)
        for (const reason of candidate.reasons) sound(fitReasonText(reason, (id) => `inlet ${id}`));
      for (const check of view.nextChecks) sound(checkWorth(knowledge, check));
      for (const station of view.stations) sound(stationLineText(station.line, knowledge, (id) => id));
      for (const point of view.openPoints) sound(openPointText(point));
      sound(conclusionSentence(knowledge, view.conclusion));
      sound(findingSentence(knowledge, job.finding));
    }
  });
  it('say of what one remedy ends together what is likeliest in it, so that no share stands against the list', () => {
    const likely = {
      leaderId: 'psu-undersized',
      probability: 0.97,
      alone: 0.4,
      oneRemedy: true,
      cureId: 'larger-supply',
    };
    expect(conclusionSentence(knowledge, { state: 'offered', ...likely })).toBe(
      'Fit a larger supply, 97%, proved. Likeliest of what that ends: supply healthy but too small, 40%.',
    );
    expect(conclusionSentence(knowledge, { state: 'to-prove', ...likely })).toBe(
      'Fit a larger supply, 97%. Likeliest of what that ends: supply healthy but too small, 40%. ' +
        'Still to prove by a cure or a swap.',
    );
    expect(conclusionSentence(knowledge, { state: 'offered', ...likely, alone: 0.97 })).toBe(
      'Supply healthy but too small, 97%, proved.',
    );
    expect(conclusionSentence(knowledge, { state: 'offered', ...likely, oneRemedy: false })).toBe(
      'One of what the same outcome proved, 97%: likeliest supply healthy but too small, 40%.',
    );
  });
  it('are whole for a job that has nothing yet', () => {
    const view = new TestBench().view();
    for (const station of view.stations) sound(stationLineText(station.line, knowledge, (id) => id));
    sound(conclusionSentence(knowledge, view.conclusion));
    sound(loadSentence('cannot-tell', null, true));
    for (const rating of schoolRatings(view.load.planned, null, '3.x')) sound(schoolBecause(rating));
  });
  it('ask about every kind of slip and name every kind of mistake', () => {
    const doubts: Doubt[] = [
      { code: 'sign', figure: -12 },
      { code: 'other-rail', figure: 5, rail: '+5' },
      { code: 'millivolts', figure: 11_900, volts: 11.9 },
      { code: 'point', figure: 1204, volts: 12.04 },
      { code: 'mains', figure: 230 },
      { code: 'far', figure: 40 },
    ];
    expect(doubtText('+12', { code: 'far', figure: 400 }, false)).toBe(
      '400 is far from any +12 V there is. It cannot be kept.',
    );
    for (const word of ['ol', 'OL', '0.L', 'o.l'])
      expect(quickProblemText({ code: 'not-a-figure', subject: '+5', word })).toContain('range');
    expect(quickProblemText({ code: 'not-a-figure', subject: '+5', word: 'old' })).toContain('“old”');
    expect(new Set(doubts.map((doubt) => doubtText('+12', doubt))).size).toBe(doubts.length);
    const problems: QuickProblem[] = [
      { code: 'unknown-word', word: 'x' },
      { code: 'missing-value', subject: '+5' },
      { code: 'missing-rail', word: '7' },
      { code: 'load-too-large', word: '9000w' },
      { code: 'historic-rail' },
      { code: 'not-a-figure', subject: '+5', word: 'x' },
    ];
    expect(new Set(problems.map(quickProblemText)).size).toBe(problems.length);
  });
  it('name the parts that are worth reading, the one that settles most first, and none that settles nothing', () => {
    const share = { share: 0.4, low: 0.39, high: 0.41 };
    const draws: LoadDraws = {
      draws: 1000,
      meanWatts: 300,
      quantiles: { low: 250, middle: 300, high: 350 },
      curve: { watts: [], above: [] },
      against: {
        lasting: share,
        rails: [],
        peaks: [],
        anything: share,
        wrongCalls: 0.4,
        worth: [
          { partId: 'card', left: 0.05 },
          { partId: 'gone', left: 0.1 },
          { partId: 'board', left: 0.395 },
        ],
      },
    };
    const nameOf = (id: string) => (id === 'gone' ? null : `the ${id}`);
    expect(worthReadingText(draws, nameOf)).toEqual(['Read the watts of the card: wrong calls fall from 40% to 5%.']);
    expect(worthReadingText({ ...draws, against: null }, nameOf)).toEqual([]);
  });
  it('tell every act apart by what it did', () => {
    const part = testPart('card-8', 'card', { change: 'replaced' });
    const reading = {
      id: 'r',
      phase: 'before',
      subject: '+12',
      condition: 'work',
      instrumentId: 'meter',
      ...bareReading,
    } as const;
    const figure = { kind: 'figure', figure: 11.32 } as const;
    const [check] = knowledge.checks;
    const acts: Act[] = [
      { kind: 'edit-sheet', changes: { client: 'X' }, basedOn: 0 },
      { kind: 'put-part', part, basedOn: 0 },
      { kind: 'drop-part', partId: 'card', basedOn: 0 },
      { kind: 'put-supply', supply: { name: 'Old', label: testShop.supplies[0]!.label }, basedOn: 0 },
      { kind: 'drop-supply', basedOn: 0 },
      { kind: 'note-outcome', id: 'o', checkId: check!.id, outcomeId: check!.outcomes[0]!.id },
      { kind: 'take-back-outcome', id: 'o' },
      { kind: 'take-reading', reading: { ...reading, value: figure } },
      { kind: 'correct-reading', reading: { ...reading, value: { kind: 'code', code: 'too-low' } } },
      { kind: 'strike-reading', id: 'r' },
      { kind: 'restore-reading', id: 'r' },
      { kind: 'set-finding', finding: null, basedOn: 0 },
      { kind: 'set-finding', finding: { kind: 'no-fault', faultId: null, confirmed: true, note: '' }, basedOn: 0 },
      { kind: 'set-finding', finding: { kind: 'hand-on', faultId: null, confirmed: true, note: '' }, basedOn: 0 },
      { kind: 'set-finding', finding: { kind: 'fault', faultId: 'psu-weak', confirmed: true, note: '' }, basedOn: 0 },
      { kind: 'set-choice', choice: null, basedOn: 0 },
      { kind: 'set-choice', choice: { kind: 'keep', modelId: null, known: [], reason: '' }, basedOn: 0 },
      { kind: 'set-choice', choice: { kind: 'replace', modelId: 'm', known: [], reason: '' }, basedOn: 0 },
      { kind: 'drop-cable', cableId: 'c', basedOn: 0 },
      { kind: 'drop-pin', inletId: 'i', basedOn: 0 },
      { kind: 'recheck-seats', inletIds: ['i'] },
      { kind: 'tick-step', stepId: 's' },
      { kind: 'untick-step', stepId: 's' },
      { kind: 'order-steps', phase: 'refit', stepIds: [], basedOn: 0 },
      { kind: 'note-proof', item: 'started', holds: true, note: '', basedOn: 0 },
      { kind: 'note-proof', item: 'started', holds: false, note: '', basedOn: 0 },
      { kind: 'drop-proof', item: 'started', basedOn: 0 },
      { kind: 'sign-off', id: 's', point: 'p', reason: 'Because' },
      { kind: 'withdraw-sign-off', id: 's' },
      { kind: 'close', basedOn: 0 },
      { kind: 'reopen', basedOn: 0 },
    ];
    const names = { knowledge, part: () => 'Card', inlet: () => 'Card 8', supply: () => 'Corvane' };
    const texts = acts.map((act) => actText(act, names));
    texts.forEach(sound);
    expect(new Set(texts).size).toBe(acts.length);
    expect(texts).toContain('Reading: +12 V at work, 11.32 V');
  });
  it('tell every open point, refusal and label problem apart', () => {
    const codes: OpenPointCode[] = [
      'no-finding',
      'not-confirmed',
      'no-choice',
      'inlet-open',
      'inlet-wrong',
      'not-seated',
      'not-rechecked',
      'plan-breach',
      'plug-misfit',
      'found-adapter',
      'not-shown',
      'shown-wrong',
      'no-readings-after',
      'old-supply-unmarked',
      'lead-out',
      'leads-unsaid',
      'not-recorded',
      'take-out-open',
      'refit-open',
      'fails-after',
    ];
    const texts = codes.map((code) => openPointText({ key: code, code, subject: null, signOff: null }));
    texts.forEach(sound);
    expect(new Set(texts).size).toBe(codes.length);
    const refusals: Refusal[] = [
      { code: 'stale', subject: 'sheet', basedOn: 1, current: 2 },
      { code: 'closed' },
      { code: 'away' },
      { code: 'not-found', subject: 'x' },
      { code: 'duplicate', subject: 'inlet:x' },
      { code: 'duplicate', subject: 'reading:x' },
      { code: 'unknown-reference', path: 'a.b', value: 'x' },
      { code: 'open-points', count: 1 },
      { code: 'open-points', count: 3 },
    ];
    expect(new Set(refusals.map(refusalText)).size).toBe(refusals.length);
    [
      { code: 'no-rails' },
      { code: 'no-twelve' },
      { code: 'rails-below-rating', railWatts: 1, ratingWatts: 2 },
      { code: 'rails-far-above-rating', railWatts: 9, ratingWatts: 2 },
      { code: 'unknown-label', label: 'x' },
    ].forEach((problem) => sound(problemOfLabel(problem as Parameters<typeof problemOfLabel>[0])));
  });
  it('name an outcome that this knowledge does not know by its own id', () => {
    expect(outcomeLabel(knowledge, 'told-button', 'nothing')).toBe('Nothing');
    expect(outcomeLabel(knowledge, 'told-button', 'unknown')).toBe('Cannot tell');
    expect(outcomeLabel(knowledge, 'from-the-future', 'blue')).toBe('blue');
  });
});

describe('figures', () => {
  it('never claim certainty', () => {
    expect([percentText(0), percentText(0.001), percentText(0.424), percentText(0.999), percentText(1)]).toEqual([
      '0%',
      '<1%',
      '42%',
      '>99%',
      '100%',
    ]);
  });
  it('write money and time plainly', () => {
    expect([moneyText(8990, 'EUR'), durationText(1000), durationText(100), durationText(0.1)]).toEqual([
      '€89.90',
      '1 s',
      '100 ms',
      '0.1 ms',
    ]);
  });
});

describe('what a machine has not', () => {
  it('is told once, by the widest of it', () => {
    expect(absentText(['card', 'card-plug', 'card-16'])).toBe(
      'Intake has no card: its faults and checks are left out.',
    );
    expect(absentText(['card-plug', 'card-16'])).toMatch(/^Intake has no card with plugs of its own:/);
    expect(absentText(['card', 'card-16'])).toMatch(/^Intake has no card:/);
    expect(absentText(['card-16'])).toMatch(/^Intake has no 16-pin inlet:/);
    expect(absentText([])).toBe('');
  });
});
