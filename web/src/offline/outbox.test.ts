import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { OutboxState } from './outbox.ts';
import { newJob, type Act, type ActContext, type Job } from '@fairwatt/core';

/** The browser's storage, as far as the outbox uses it. */
const kept = new Map<string, string>();
vi.stubGlobal('localStorage', {
  getItem: (key: string) => kept.get(key) ?? null,
  setItem: (key: string, value: string) => {
    kept.set(key, value);
  },
  removeItem: (key: string) => {
    kept.delete(key);
  },
});
const { keepItems, keptItems, outbox, outboxReducer, overlay } = await import('./outbox.ts');
type Item = ReturnType<typeof keptItems>[number];

const knows: ActContext['knows'] = { instrument: () => true, supply: () => true };
const job: Job = newJob('LQ-0001', 'Machine', 'Client', 'Words', 'peaks-covered', '2026-01-01T00:00:00.000Z');
let serial = 0;
function item(act: Act, extra: Partial<Item> = {}): Item {
  serial += 1;
  return {
    id: `id-${serial}`,
    code: 'LQ-0001',
    by: 'mara',
    at: '2026-01-01T00:01:00.000Z',
    act,
    was: {},
    state: 'waiting',
    refusal: null,
    ...extra,
  };
}
const edit = (changes: Extract<Act, { kind: 'edit-sheet' }>['changes'], basedOn: number): Act => ({
  kind: 'edit-sheet',
  changes,
  basedOn,
});
const start: OutboxState = { items: [], lastSaved: null };
const added = (...items: Item[]): OutboxState =>
  items.reduce<OutboxState>((state, one) => outboxReducer(state, outbox.add(one)), start);

beforeEach(() => kept.clear());

describe('gathering', () => {
  it('makes one change of what is typed letter by letter, and remembers what stood there first', () => {
    const state = added(
      item(edit({ words: 'G' }, 1), { was: { words: 'Words' } }),
      item(edit({ words: 'Go' }, 2), { was: { words: 'G' } }),
      item(edit({ client: 'X' }, 3), { was: { client: 'Client' } }),
    );
    expect(state.items).toHaveLength(1);
    expect(state.items[0]!.act).toEqual(edit({ words: 'Go', client: 'X' }, 1));
    expect(state.items[0]!.was).toEqual({ words: 'Words', client: 'Client' });
  });
  it("does not add to what is already on its way, nor to another job's or another person's", () => {
    const first = item(edit({ words: 'A' }, 1));
    const state = outboxReducer(added(first), outbox.sending(first.id));
    expect(outboxReducer(state, outbox.add(item(edit({ words: 'B' }, 2)))).items).toHaveLength(2);
    expect(added(item(edit({ words: 'A' }, 1)), item(edit({ words: 'B' }, 1), { code: 'LQ-0002' })).items).toHaveLength(
      2,
    );
    expect(added(item(edit({ words: 'A' }, 1)), item(edit({ words: 'B' }, 2), { by: 'joss' })).items).toHaveLength(2);
  });
  it('replaces a waiting tick by the next one on the same inlet only', () => {
    const seat = (inletId: string, click: boolean, basedOn: number): Act => ({
      kind: 'put-seat',
      seat: {
        inletId,
        cableCode: 'C01',
        plugIndex: 0,
        click,
        tug: false,
        gap: false,
        halves: false,
        bend: false,
        panel: false,
      },
      basedOn,
    });
    const state = added(item(seat('a', false, 0)), item(seat('a', true, 1)));
    expect(state.items.map((one) => one.act)).toEqual([seat('a', true, 0)]);
    expect(added(item(seat('a', true, 0)), item(seat('b', true, 0))).items).toHaveLength(2);
  });
  it('never gathers what only adds', () => {
    const note = (id: string): Act => ({ kind: 'note-outcome', id, checkId: 'look-dust', outcomeId: 'clean' });
    expect(added(item(note('1')), item(note('2'))).items).toHaveLength(2);
  });
});

describe('keeping', () => {
  it('survives a reload; what was on its way is sent again', () => {
    const one = item(edit({ words: 'A' }, 1), { state: 'sending' });
    keepItems([one]);
    expect(keptItems()).toEqual([{ ...one, state: 'waiting' }]);
    keepItems([]);
    expect(kept.size).toBe(0);
  });
  it('puts spoiled storage aside instead of losing it or failing', () => {
    kept.set('fairwatt.outbox', '[{"id":');
    expect(keptItems()).toEqual([]);
    expect(kept.get('fairwatt.outbox.unreadable')).toBe('[{"id":');
  });
  it('keeps a refused change until somebody decides', () => {
    const one = item(edit({ words: 'Mine' }, 1));
    let state = added(one);
    state = outboxReducer(
      state,
      outbox.refused({
        id: one.id,
        refusal: { title: 'changed', stale: true, current: 4, theirs: { words: 'Theirs' } },
      }),
    );
    expect(state.items[0]).toMatchObject({ state: 'refused', act: { changes: { words: 'Mine' } } });
    const mine = outboxReducer(state, outbox.waitAgain({ id: one.id, basedOn: 4 }));
    expect(mine.items[0]).toMatchObject({ state: 'waiting', refusal: null, act: { basedOn: 4 } });
    expect(outboxReducer(state, outbox.discard(one.id)).items).toEqual([]);
  });
});

describe('the job as it will be', () => {
  it('shows everything waiting at once, in order', () => {
    const shown = overlay(
      job,
      [item(edit({ words: 'A' }, 1)), item(edit({ client: 'B' }, 2), { state: 'sending' })],
      knows,
    );
    expect(shown.sheet).toMatchObject({ words: 'A', client: 'B', version: 3 });
  });
  it('leaves out what was refused and what belongs to another job', () => {
    const shown = overlay(
      job,
      [item(edit({ words: 'A' }, 1), { state: 'refused' }), item(edit({ words: 'B' }, 1), { code: 'LQ-0002' })],
      knows,
    );
    expect(shown).toBe(job);
  });
  it('shows what was typed while a question about the field is open, and typing on changes the answer', () => {
    const one = item(edit({ words: 'Mine' }, 1), {
      state: 'refused',
      refusal: { title: 'changed', stale: true, current: 2, theirs: { words: 'Theirs' } },
    });
    const newer = { ...job, sheet: { ...job.sheet, words: 'Theirs', version: 2 } };
    expect(overlay(newer, [one], knows).sheet).toMatchObject({ words: 'Mine', version: 2 });
    const typedOn = outboxReducer({ items: [one], lastSaved: null }, outbox.add(item(edit({ words: 'Mine too' }, 2))));
    expect(typedOn.items).toHaveLength(1);
    expect(typedOn.items[0]).toMatchObject({ state: 'refused', act: { changes: { words: 'Mine too' } } });
    expect(
      outboxReducer({ items: [one], lastSaved: null }, outbox.add(item(edit({ client: 'X' }, 2)))).items,
    ).toHaveLength(2);
  });
  it('lays a change over a newer state of the server', () => {
    const newer = { ...job, sheet: { ...job.sheet, client: 'Theirs', version: 7 } };
    expect(overlay(newer, [item(edit({ words: 'Mine' }, 1))], knows).sheet).toMatchObject({
      client: 'Theirs',
      words: 'Mine',
      version: 8,
    });
  });
  it('does not fail over a change that can no longer be done', () => {
    expect(
      overlay(job, [item({ kind: 'drop-part', partId: 'gone', basedOn: 1 }), item(edit({ words: 'A' }, 1))], knows)
        .sheet.words,
    ).toBe('A');
  });
});
