import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { newParts, partClass, type Act } from '@fairwatt/core';
import { historyOf } from './history-lines.ts';

const told = (...acts: Act[]) =>
  historyOf(acts.map((act, index) => ({ id: String(index), by: 'mara', at: '2026-01-01T00:00:00.000Z', act }))).map(
    ({ changes }) => changes.map(({ path, before, after }) => [path, before, after]),
  );
const sheet = (changes: Extract<Act, { kind: 'edit-sheet' }>['changes']): Act => ({
  kind: 'edit-sheet',
  changes,
  basedOn: 0,
});

describe('the history', () => {
  it('tells what stood in a field before, field by field', () => {
    expect(told(sheet({ client: 'One' }), sheet({ words: 'Dead' }), sheet({ client: 'Two', words: 'Dead' }))).toEqual([
      [['client', undefined, 'One']],
      [['words', undefined, 'Dead']],
      [['client', 'One', 'Two']],
    ]);
  });
  it('tells what changed of a thing, down to single figures, and nothing of a new one', () => {
    const source = { ...partClass('card-8')!, classId: 'card-8' };
    const part = newParts([{ source, quantity: 1, change: 'stays' }], [], () => 'card')[0]!;
    const more = { ...part, figures: { ...part.figures, likelyWatts: 200 } };
    const put = (one: typeof part): Act => ({ kind: 'put-part', part: one, basedOn: 0 });
    expect(told(put(part), put(more), put(more))).toEqual([
      [],
      [['figures.likelyWatts', part.figures.likelyWatts, 200]],
      [],
    ]);
    expect(told(put(part), { kind: 'drop-part', partId: 'card', basedOn: 0 }, put(more))).toEqual([[], [], []]);
  });
  it('tells another answer, finding or choice with the one before', () => {
    const note = (outcomeId: string): Act => ({ kind: 'note-outcome', id: outcomeId, checkId: 'look', outcomeId });
    expect(told(note('clean'), note('dusty'))[1]).toEqual([['outcomeId', 'clean', 'dusty']]);
    const proof = (holds: boolean): Act => ({ kind: 'note-proof', item: 'started', holds, note: '', basedOn: 0 });
    expect(told(proof(false), proof(true))[1]).toEqual([['holds', false, true]]);
  });
  it('leads from what was told first to what stands last, whatever was written', () => {
    const fields = fc.record({ client: fc.string(), words: fc.string(), upgrade: fc.string() }, { requiredKeys: [] });
    fc.assert(
      fc.property(fc.array(fields, { maxLength: 20 }), (edits) => {
        const replayed: Record<string, unknown> = {};
        for (const changes of told(...edits.map(sheet)))
          for (const [path, before, after] of changes) {
            expect(replayed[path as string]).toEqual(before);
            replayed[path as string] = after;
          }
        expect(replayed).toEqual(Object.assign({}, ...edits) as object);
      }),
    );
  });
});
