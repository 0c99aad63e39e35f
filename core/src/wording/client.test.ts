import { readFileSync, readdirSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { TestBench, testPart, testShop, uuid } from '../job/fixture.test-help.ts';
import { newJob, unanswered, viewJob, type Job } from '../job/index.ts';
import { clientWords, wattsText } from './index.ts';

const { knowledge } = testShop.model;
const directory = new URL('../../../demo/jobs/', import.meta.url);
const jobs = readdirSync(directory).map(
  (name) => (JSON.parse(readFileSync(new URL(name, directory), 'utf8')) as { job: Job }).job,
);
/** With what files of today say that older ones do not. */
const { sheet: blank } = newJob('', '', '', '', 'peaks-covered', '2026-01-01T00:00:00.000Z');
const instruments = (
  JSON.parse(readFileSync(new URL('../../../demo/shop.json', import.meta.url), 'utf8')) as {
    instruments: typeof testShop.instruments;
  }
).instruments;
const shop = { ...testShop, instruments };
const wordsOf = (on: TestBench) => clientWords(on.job, on.view(), knowledge);

const weak = () =>
  new TestBench()
    .do({ kind: 'put-part', part: testPart('board', 'board'), basedOn: 0 })
    .do({ kind: 'edit-sheet', changes: { words: 'It goes off when I cut a film', button: 'cuts-load' }, basedOn: 1 })
    .read(1, '+12', 'work', 11.1)
    .do(
      { kind: 'note-outcome', id: uuid(3), checkId: 'd-swap', outcomeId: 'cured' },
      { kind: 'set-finding', finding: { kind: 'fault', faultId: 'psu-weak', confirmed: true, note: '' }, basedOn: 0 },
    );

describe('what the client reads', () => {
  it('says what was told, found and how that is known', () => {
    const { told, found, unsettled } = wordsOf(weak());
    expect(told).toEqual(['“It goes off when I cut a film”', 'When its button is pressed: cuts out under load.']);
    expect(found).toEqual([
      'The power supply is at fault: supply weak under load.',
      'The 12 volt line, with the machine at work, was at 11.10 V; 11.40 to 12.60 V is right.',
      'We tried it: known-good supply in its place, and it was cured.',
    ]);
    expect(unsettled).not.toEqual([]);
  });
  it.each([
    ['A larger card', 'A larger card.'],
    ['plan graphics card 285 W', 'graphics card 285 W.'],
    ['Planned: a second drive.', 'a second drive.'],
    ['planer', 'planer.'],
    ['plan', 'plan.'],
  ])('says what was planned in the words that were typed: %s', (upgrade, said) => {
    const on = weak().do({ kind: 'edit-sheet', changes: { upgrade }, basedOn: 2 });
    expect(wordsOf(on).told.at(-1)).toBe(`You planned: ${said}`);
  });
  it('says before and after, and never calls right what the record does not', () => {
    const on = weak().do({
      kind: 'set-choice',
      choice: { kind: 'replace', modelId: 'corvane-650-s', known: [], reason: 'fits' },
      basedOn: 0,
    });
    on.read(5, '+12', 'work', 12.04, 'after');
    expect(wordsOf(on).measured).toEqual([
      'The 12 volt line, with the machine at work: 11.10 V before, 12.04 V now, which is as it should be.',
    ]);
    on.read(6, '+12', 'work', 10.9, 'after').read(7, '+12', 'work', 10.9, 'after');
    expect(wordsOf(on).measured.join()).not.toContain('as it should be');
  });
  it('says of a supply that is too small what was asked of it: lasting, for moments, or with what is planned', () => {
    const small = (ratingWatts: number, more: Parameters<TestBench['do']> = []) => {
      const on = new TestBench().do(
        { kind: 'put-part', part: testPart('board', 'board'), basedOn: 0 },
        { kind: 'put-part', part: testPart('processor-125', 'processor'), basedOn: 0 },
        { kind: 'put-part', part: testPart('card-88', 'card'), basedOn: 0 },
        ...more,
        {
          kind: 'put-supply',
          supply: { name: '', label: { ...testShop.supplies[0]!.label, ratingWatts } },
          basedOn: 0,
        },
        {
          kind: 'set-finding',
          finding: { kind: 'fault', faultId: 'psu-undersized', confirmed: true, note: '' },
          basedOn: 0,
        },
      );
      const { present, planned } = on.view().load;
      const figures = [present, planned].map(({ sustainedWatts, peaks }) => [
        wattsText(sustainedWatts),
        wattsText(peaks[0]!.watts),
      ]);
      return { said: wordsOf(on).found[1], figures };
    };
    const lasting = small(300);
    expect(lasting.said).toBe(`At work the machine takes ${lasting.figures[0]![0]!}; the supply gives 300 W at most.`);
    const moments = small(550);
    expect(moments.said).toBe(
      `At work the machine takes ${moments.figures[0]![0]!}, and for moments ${moments.figures[0]![1]!}; ` +
        'the supply gives 550 W at most.',
    );
    const later = small(900, [
      { kind: 'put-part', part: testPart('card-888', 'new', { change: 'added' }), basedOn: 0 },
    ]);
    expect(later.said).toBe(
      `With what is planned the machine takes ${later.figures[1]![0]!}, and for moments ${later.figures[1]![1]!}; ` +
        'the supply gives 900 W at most.',
    );
  });
  it('calls nothing fitted or put in that is only chosen or planned', () => {
    const on = weak().do(
      { kind: 'put-part', part: testPart('drive-35', 'd1', { change: 'added' }), basedOn: 0 },
      {
        kind: 'set-choice',
        choice: { kind: 'replace', modelId: 'corvane-650-s', known: [], reason: 'fits' },
        basedOn: 0,
      },
    );
    expect(wordsOf(on).did).toEqual([
      'We chose another power supply for it: Corvane 650 S.',
      expect.stringMatching(/^To go into the machine: /) as string,
    ]);
  });
  it('does not call proved what is not, and says what is handed on or healthy', () => {
    const on = new TestBench().do({
      kind: 'set-finding',
      finding: { kind: 'fault', faultId: 'psu-weak', confirmed: false, note: '' },
      basedOn: 0,
    });
    expect(wordsOf(on).found.at(-1)).toBe('That is what everything points to; it is not proved yet.');
    on.do({ kind: 'set-finding', finding: { kind: 'no-fault', faultId: null, confirmed: true, note: '' }, basedOn: 1 });
    expect(wordsOf(on).found).toEqual(['We found no fault, and the power supply is healthy.']);
    expect(wordsOf(new TestBench()).found).toEqual(['We have not come to a finding yet.']);
  });
  it('of each job of the demo: finished only where nothing is open, no code and no empty word', () => {
    for (const one of jobs) {
      const job = { ...one, sheet: { ...blank, ...one.sheet } };
      const view = viewJob(job, shop);
      const words = clientWords(job, view, knowledge);
      expect(words.unsettled.length === 0, job.code).toBe(unanswered(view.openPoints).length === 0);
      for (const sentence of Object.values(words).flat())
        expect(sentence, job.code).not.toMatch(/undefined|null|NaN|[a-z]+-[a-z]+-[a-z]+|psu|: ?\.|\.\.| {2}/);
    }
  });
});
