import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { repairCheckId } from '../diagnose/index.ts';
import { proofItems, proofsAsked, standingProof, unanswered, viewJob, type ProofItem } from './index.ts';
import { TestBench, testPart, testShop } from './fixture.test-help.ts';

const supplies = ['corvane-650-s', 'corvane-750-s'] as const;

/** A machine with a card and two drives, and something chosen for it. */
function bench(): TestBench {
  const on = new TestBench();
  for (const [classId, id] of [
    ['board', 'board'],
    ['processor-65', 'cpu'],
    ['card-8', 'card'],
    ['drive-35', 'd1'],
    ['drive-flat', 'd2'],
  ] as const)
    on.do({ kind: 'put-part', part: testPart(classId, id), basedOn: 0 });
  return on;
}
const choose = (on: TestBench, modelId: string | null) =>
  on.do({
    kind: 'set-choice',
    choice: { kind: modelId === null ? 'keep' : 'replace', modelId, known: [], reason: 'fits' },
    basedOn: 0,
  });
const say = (on: TestBench, item: ProofItem, holds = true, note = '') =>
  on.do({ kind: 'note-proof', item, holds, note, basedOn: 0 });
const open = (on: TestBench) =>
  unanswered(viewJob(on.job, testShop).openPoints)
    .filter(({ code }) => code === 'not-shown' || code === 'shown-wrong')
    .map(({ key }) => key);

describe('what has to be shown', () => {
  it('is asked where something was fitted: another supply, or a kept one with another part', () => {
    const on = bench();
    expect(proofsAsked(on.job)).toEqual([]);
    choose(on, null);
    expect(proofsAsked(on.job)).toEqual([]);
    on.do({ kind: 'put-part', part: testPart('drive-35', 'd3', { change: 'added' }), basedOn: 0 });
    expect(proofsAsked(on.job)).toEqual(proofItems);
    choose(on, supplies[0]);
    expect(proofsAsked(on.job)).toEqual(proofItems);
  });
  it('asks only for what the finished machine has', () => {
    const on = bench();
    choose(on, supplies[0]);
    on.do({ kind: 'put-part', part: testPart('card-8', 'card', { change: 'removed' }), basedOn: 0 });
    expect(proofsAsked(on.job)).not.toContain('card');
    for (const id of ['d1', 'd2']) on.do({ kind: 'drop-part', partId: id, basedOn: 0 });
    expect(proofsAsked(on.job)).toEqual(['started', 'picture', 'fans', 'complaint']);
  });
  it('keeps the job open until each was seen, and says which was seen not to hold', () => {
    const on = bench();
    choose(on, supplies[0]);
    expect(open(on)).toEqual(proofItems.map((item) => `not-shown:${item}`));
    for (const item of proofItems) say(on, item);
    expect(open(on)).toEqual([]);
    say(on, 'complaint', false, 'Off again after an hour');
    expect(open(on)).toEqual(['shown-wrong:complaint']);
    on.do({ kind: 'drop-proof', item: 'complaint', basedOn: 0 });
    expect(open(on)).toEqual(['not-shown:complaint']);
    expect(on.try({ kind: 'drop-proof', item: 'complaint', basedOn: 0 })).toMatchObject({ code: 'not-found' });
    on.do({
      kind: 'sign-off',
      id: '00000000-0000-4000-8000-000000000001',
      point: 'not-shown:complaint',
      reason: 'No mains here',
    });
    expect(open(on)).toEqual([]);
  });
  it('does not open a job again that was closed before it was asked', () => {
    const on = bench();
    choose(on, supplies[0]);
    expect(viewJob({ ...on.job, state: 'closed' }, testShop).openPoints.map(({ code }) => code)).not.toContain(
      'not-shown',
    );
  });
  it('belongs to the supply that was fitted and to the drives that were in, and comes back with them', () => {
    const on = bench();
    choose(on, supplies[0]);
    for (const item of proofItems) say(on, item);
    choose(on, supplies[1]);
    expect(open(on)).toHaveLength(proofItems.length);
    choose(on, supplies[0]);
    expect(open(on)).toEqual([]);
    on.do({ kind: 'put-part', part: testPart('drive-35', 'd3', { change: 'added' }), basedOn: 0 });
    expect(open(on)).toEqual(['not-shown:drives']);
    on.do({ kind: 'drop-part', partId: 'd3', basedOn: 0 });
    expect(open(on)).toEqual([]);
  });

  it('never stands for something it was not given to, whatever is changed', () => {
    const step = fc.oneof(
      fc.constantFrom(...supplies, null).map((modelId) => ({ kind: 'choose', modelId }) as const),
      fc.constantFrom(...proofItems).map((item) => ({ kind: 'say', item }) as const),
      fc.constantFrom(...proofItems).map((item) => ({ kind: 'drop', item }) as const),
      fc
        .tuple(fc.constantFrom('card', 'd1', 'd2', 'd3'), fc.constantFrom('stays', 'added', 'removed', 'replaced'))
        .map(([id, change]) => ({ kind: 'part', id, change }) as const),
    );
    const classOf = { card: 'card-8', d1: 'drive-35', d2: 'drive-flat', d3: 'drive-25' } as const;
    fc.assert(
      fc.property(fc.array(step, { maxLength: 30 }), (steps) => {
        const on = bench();
        /** What the machine was when each was said last, told apart by everything that could matter to it. */
        const given = new Map<string, boolean>();
        const machine = (item: ProofItem) => {
          const inside = on.job.parts
            .filter(({ change }) => change === 'stays' || change === 'added')
            .map(({ id }) => id);
          const drives = inside.filter((id) => /^d\d/.test(id)).join();
          const about = item === 'drives' ? drives : item === 'card' ? String(inside.includes('card')) : '';
          return JSON.stringify([item, on.job.choice?.kind ?? null, on.job.choice?.modelId ?? null, about]);
        };
        for (const one of steps) {
          if (one.kind === 'choose') choose(on, one.modelId);
          else if (one.kind === 'say') {
            say(on, one.item);
            given.set(machine(one.item), true);
          } else if (one.kind === 'drop') {
            if (standingProof(on.job, one.item) !== null) on.do({ kind: 'drop-proof', item: one.item, basedOn: 0 });
            given.delete(machine(one.item));
          } else
            on.do({ kind: 'put-part', part: testPart(classOf[one.id], one.id, { change: one.change }), basedOn: 0 });
          for (const item of proofItems)
            expect([item, standingProof(on.job, item) !== null]).toEqual([item, given.has(machine(item))]);
        }
      }),
      { numRuns: 200 },
    );
  });
  it('tells the search that the fitted supply changed nothing, until that is taken back or another is fitted', () => {
    const on = bench();
    on.do({ kind: 'edit-sheet', basedOn: on.job.sheet.version, changes: { button: 'cuts-load' } });
    choose(on, supplies[0]);
    const tried = () => on.view().observations.filter(({ checkId }) => checkId === repairCheckId('replace-supply'));
    const weak = () => on.view().suspects.find(({ faultId }) => faultId === 'psu-weak')!.probability;
    const before = weak();
    expect(tried()).toEqual([]);
    say(on, 'complaint', false, 'Off again after an hour');
    expect(tried()).toMatchObject([{ source: 'hand-over', outcomeId: 'same', notedId: null }]);
    expect(on.view().round).toBe(2);
    expect(weak()).toBeLessThan(before / 5);
    choose(on, supplies[1]);
    expect(tried()).toEqual([]);
    choose(on, supplies[0]);
    expect(tried()).toHaveLength(1);
    on.do({ kind: 'drop-proof', item: 'complaint', basedOn: standingProof(on.job, 'complaint')!.version });
    expect(tried()).toEqual([]);
    expect(weak()).toBe(before);
  });
});
