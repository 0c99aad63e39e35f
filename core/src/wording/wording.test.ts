import { readFileSync, readdirSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { testShop, TestBench } from '../job/fixture.test-help.ts';
import { schoolRatings } from '../load/index.ts';
import { viewJob, type Job, type OpenPointCode, type Refusal } from '../job/index.ts';
import type { Doubt, QuickProblem } from '../measure/index.ts';
import {
  checkWorth,
  conclusionSentence,
  doubtText,
  durationText,
  findingSentence,
  fitReasonText,
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
      { code: 'mains', figure: 230 },
      { code: 'far', figure: 40 },
    ];
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
      'no-readings-after',
      'fails-after',
    ];
    const texts = codes.map((code) => openPointText({ key: code, code, subject: null, signOff: null }));
    texts.forEach(sound);
    expect(new Set(texts).size).toBe(codes.length);
    const refusals: Refusal[] = [
      { code: 'stale', subject: 'sheet', basedOn: 1, current: 2 },
      { code: 'closed' },
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
      '89.90 EUR',
      '1 s',
      '100 ms',
      '0.1 ms',
    ]);
  });
});
