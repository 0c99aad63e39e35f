import { describe, expect, it } from 'vitest';
import type { Act } from '@fairwatt/core';
import { edit, FakeTab, startingJob } from './offline.test-help.ts';
import { emptyOutbox, nextTogether, outbox, outboxReducer } from './outbox.ts';
import { thisTab, type ActParcel, type Parcel, type Refused, type RequestParcel } from './parcel.ts';

const note = (id: string): Act => ({ kind: 'note-outcome', id, checkId: 'look-dust', outcomeId: 'clean' });
const tick = (cable: string): Act => ({ kind: 'lay-cable', cable, way: 'behind the tray', basedOn: 0 });
const no: Refused = { kind: 'other', title: 'no' };
const conflict = (): Refused => {
  const theirs = { ...startingJob(), revision: 4 };
  return { kind: 'conflict', title: 'changed', current: 4, theirs, changed: null };
};

const request = (id: string, more: Partial<RequestParcel> = {}): RequestParcel => ({
  kind: 'request',
  id,
  code: null,
  by: 'mara',
  at: '2026-01-01T00:00:00.000Z',
  tab: thisTab,
  order: 1,
  state: 'waiting',
  refused: null,
  failures: 0,
  title: 'A supply',
  method: 'PUT',
  path: '/supplies',
  body: null,
  contentType: 'application/json',
  tags: [],
  ...more,
});
const parcel = (id: string, more: Partial<ActParcel> = {}): ActParcel => ({
  kind: 'act',
  id,
  code: 'LQ-0001',
  by: 'mara',
  at: '2026-01-01T00:00:00.000Z',
  tab: thisTab,
  order: 1,
  act: note(id),
  base: { at: 'seen', version: 0 },
  state: 'waiting',
  refused: null,
  failures: 0,
  ...more,
});
const holding = (...parcels: readonly Parcel[]): FakeTab => {
  const tab = new FakeTab();
  for (const [order, one] of parcels.entries()) tab.dispatch(outbox.put({ ...one, order: one.order + order }));
  return tab;
};
const ids = (tab: FakeTab) => tab.state.parcels.map(({ id }) => id);
const byId = (tab: FakeTab, id: string) => tab.state.parcels.find((one) => one.id === id)!;

describe('an outbox', () => {
  it('is empty at first, and kept', () => {
    expect(outboxReducer(undefined, { type: 'nothing' })).toEqual({
      parcels: [],
      sending: null,
      storage: 'kept',
      done: [],
    });
    expect(outboxReducer(undefined, { type: 'nothing' })).toBe(emptyOutbox);
    expect(outbox.seal('a').type).toBe('outbox/seal');
  });
  it('remembers the last fifty that were done, and no more', () => {
    const tab = new FakeTab();
    const many = Array.from({ length: 60 }, (_, version) => ({ id: `p${version}`, version }));
    tab.dispatch(outbox.confirmed(many.slice(0, 45)));
    tab.dispatch(outbox.confirmed(many.slice(45)));
    expect(tab.state.done).toEqual(many.slice(10));
  });
});

describe('what belongs to another job, another tab or the shop', () => {
  const elsewhere = parcel('elsewhere', { code: 'LQ-0002', act: edit({ words: 'Theirs' }), state: 'draft' });
  const shelf = request('shelf');
  it('is nothing that an act is typed over, and goes on growing', () => {
    const tab = holding(elsewhere, shelf)
      .do(edit({ words: 'A' }))
      .do(note('n'));
    expect(tab.acts.map(({ base }) => base.at)).toEqual(['seen', 'seen', 'seen']);
    expect(byId(tab, 'elsewhere')).toMatchObject({ state: 'draft', act: edit({ words: 'Theirs' }) });
    expect(byId(tab, 'shelf').state).toBe('waiting');
  });
  it('is final by its own tab alone', () => {
    const tab = holding(parcel('theirs', { tab: 'another', act: edit({ words: 'T' }), state: 'draft' })).do(note('n'));
    expect(byId(tab, 'theirs').state).toBe('draft');
  });
  it('stays as it is while acts are confirmed, refused, let go and sent after all', () => {
    const after = parcel('b', { base: { at: 'after', parcel: 'a' } });
    const tab = holding(shelf, parcel('a'), after);
    tab.dispatch(outbox.refused({ id: 'a', refused: conflict() }));
    tab.dispatch(outbox.insist({ id: 'a', newId: 'a2', basedOn: 4 }));
    tab.dispatch(outbox.confirmed([{ id: 'a2', version: 5 }]));
    tab.dispatch(outbox.discard('b'));
    expect(tab.state.parcels).toEqual([{ ...shelf, order: 1 }]);
  });
  it('is refused by itself, sent again under its own id, and let go', () => {
    const tab = holding(shelf, parcel('a', { act: edit({ words: 'A' }) }));
    tab.dispatch(outbox.failed('shelf'));
    expect([byId(tab, 'shelf').failures, byId(tab, 'a').failures]).toEqual([1, 0]);
    tab.dispatch(outbox.refused({ id: 'shelf', refused: conflict() }));
    expect(tab.state.parcels).toMatchObject([
      { id: 'shelf', state: 'refused' },
      { id: 'a', state: 'waiting' },
    ]);
    tab.dispatch(outbox.insist({ id: 'shelf', newId: 'other' }));
    expect(byId(tab, 'shelf')).toMatchObject({ state: 'waiting', refused: null, failures: 0 });
    tab.dispatch(outbox.discard('shelf'));
    expect(ids(tab)).toEqual(['a']);
  });
});

describe('typing on', () => {
  it('goes on in what was typed over a sealed parcel', () => {
    const tab = new FakeTab().do(edit({ words: 'A' }));
    tab.dispatch(outbox.seal(tab.acts[0]!.id));
    tab.do(edit({ words: 'AB' })).do(edit({ words: 'ABC' }));
    expect(tab.acts.map(({ act }) => act)).toEqual([edit({ words: 'A' }), edit({ words: 'ABC' })]);
  });
  it('takes no field along into it that stands on what the server has', () => {
    const tab = new FakeTab().do(edit({ words: 'A' }));
    tab.dispatch(outbox.seal(tab.acts[0]!.id));
    tab.do(edit({ words: 'AB' })).do(edit({ words: 'ABC', client: 'X' }));
    expect(tab.acts.map(({ act, state, base }) => [act, state, base.at])).toEqual([
      [edit({ words: 'A' }), 'waiting', 'seen'],
      [edit({ words: 'AB' }), 'waiting', 'after'],
      [edit({ words: 'ABC' }), 'draft', 'after'],
      [edit({ client: 'X' }), 'draft', 'seen'],
    ]);
    const [, , words, client] = tab.acts;
    expect(client!.order - words!.order).toBeCloseTo(0.1, 9);
  });
  it('does not go on in a parcel past one from another tab that came before it', () => {
    const tab = new FakeTab().do(edit({ words: 'A' }));
    const [here] = tab.acts;
    tab.dispatch(outbox.put(parcel('theirs', { tab: 'another', order: here!.order - 1, act: edit({ words: 'T' }) })));
    tab.do(edit({ words: 'AB' }));
    expect(tab.acts.map(({ act }) => act)).toEqual([edit({ words: 'T' }), edit({ words: 'A' }), edit({ words: 'AB' })]);
    expect(tab.acts[2]!.base).toEqual({ at: 'after', parcel: here!.id });
  });
  it('stands on a sealed act on the same thing', () => {
    const tab = holding(parcel('laid', { act: tick('C1') }))
      .do(tick('C1'))
      .do(tick('C2'));
    expect(tab.acts.slice(1).map(({ base }) => base)).toEqual([
      { at: 'after', parcel: 'laid' },
      { at: 'seen', version: 0 },
    ]);
  });
  it('opens no closed refusal, and changes nobody else’s answer to a question', () => {
    const tab = holding(parcel('a', { act: edit({ words: 'Mine' }) }));
    tab.dispatch(outbox.refused({ id: 'a', refused: no }));
    tab.do(edit({ words: 'Again' }));
    expect(tab.acts.map(({ act, state }) => [act, state])).toEqual([
      [edit({ words: 'Mine' }), 'refused'],
      [edit({ words: 'Again' }), 'draft'],
    ]);
    const asked = holding(parcel('a', { act: edit({ words: 'Mine' }) }));
    asked.dispatch(outbox.refused({ id: 'a', refused: conflict() }));
    asked.do(edit({ words: 'Joss says' }), 'joss');
    expect(asked.acts.map(({ act, by }) => [act, by])).toEqual([
      [edit({ words: 'Mine' }), 'mara'],
      [edit({ words: 'Joss says' }), 'joss'],
    ]);
  });
  it('takes nothing into a question that was not asked', () => {
    const tab = holding(parcel('a', { act: edit({ words: 'Mine' }) }));
    tab.dispatch(outbox.refused({ id: 'a', refused: conflict() }));
    tab.do(edit({ words: 'Mine too', client: 'X' }));
    expect(tab.acts.map(({ act, base }) => [act, base.at])).toEqual([
      [edit({ words: 'Mine' }), 'seen'],
      [edit({ words: 'Mine too' }), 'after'],
      [edit({ client: 'X' }), 'seen'],
    ]);
  });
  it('is sealed by its own id alone, and nothing that was refused is opened by it', () => {
    const tab = holding(parcel('a', { state: 'draft' }), parcel('b', { state: 'draft' }), parcel('c'));
    tab.dispatch(outbox.refused({ id: 'c', refused: no }));
    for (const id of ['b', 'c']) tab.dispatch(outbox.seal(id));
    expect(tab.acts.map(({ state }) => state)).toEqual(['draft', 'waiting', 'refused']);
  });
});

describe('a question', () => {
  const over = (under: string) => ({ at: 'after', parcel: under }) as const;
  const words = (id: string, more: Partial<ActParcel> = {}) => parcel(id, { act: edit({ words: id }), ...more });
  it('takes in what its person typed over it, and what others typed over that stands on the question', () => {
    const tab = holding(words('a'), words('b', { base: over('a') }), words('c', { base: over('b'), by: 'joss' }));
    tab.dispatch(outbox.refused({ id: 'a', refused: conflict() }));
    expect(tab.acts.map(({ id, act, base }) => [id, act, base])).toEqual([
      ['a', edit({ words: 'b' }), { at: 'seen', version: 0 }],
      ['c', edit({ words: 'c' }), over('a')],
    ]);
  });
  it('takes in what stands on what it took, but nothing refused and nothing typed over something else', () => {
    const tab = holding(
      words('a'),
      words('b', { base: over('a') }),
      words('c', { base: over('b') }),
      words('d', { base: over('c') }),
      words('e'),
    );
    tab.dispatch(outbox.refused({ id: 'd', refused: no }));
    tab.dispatch(outbox.refused({ id: 'a', refused: conflict() }));
    expect(tab.acts.map(({ id, act }) => [id, act])).toEqual([
      ['a', edit({ words: 'c' })],
      ['d', edit({ words: 'd' })],
      ['e', edit({ words: 'e' })],
    ]);
    expect(tab.acts[1]).toMatchObject({ state: 'refused', base: over('a') });
  });
  it('of a parcel that is gone is none', () => {
    const tab = holding(words('a'));
    const { state } = tab;
    tab.dispatch(outbox.refused({ id: 'gone', refused: conflict() }));
    expect(tab.state.parcels).toBe(state.parcels);
    tab.dispatch(outbox.insist({ id: 'gone', newId: 'new' }));
    tab.dispatch(outbox.discard('gone'));
    expect(ids(tab)).toEqual(['a']);
  });
  it('answered stands where it stood, on what it was typed over unless something else is said', () => {
    const tab = holding(words('a'), words('b', { base: over('a') }), words('c'));
    tab.dispatch(outbox.refused({ id: 'a', refused: no }));
    tab.dispatch(outbox.insist({ id: 'a', newId: 'a2', act: edit({ words: 'Both' }) }));
    expect(tab.acts.map(({ id, base, act }) => [id, base, act])).toEqual([
      ['a2', { at: 'seen', version: 0 }, edit({ words: 'Both' })],
      ['b', over('a2'), edit({ words: 'b' })],
      ['c', { at: 'seen', version: 0 }, edit({ words: 'c' })],
    ]);
  });
});

describe('what goes together', () => {
  const next = (parcels: readonly Parcel[], held: readonly string[] = []) =>
    nextTogether({ ...emptyOutbox, parcels }, new Set(held), 5)?.map(({ id }) => id) ?? null;
  it('is of one person and one job, and passes by what is held', () => {
    expect(next([parcel('a'), parcel('b'), parcel('c')])).toEqual(['a', 'b', 'c']);
    expect(next([parcel('a'), parcel('b'), parcel('c')], ['b'])).toEqual(['a', 'c']);
    expect(next([parcel('a'), parcel('b', { by: 'joss' }), parcel('c')])).toEqual(['a']);
    expect(next([parcel('a'), parcel('b', { code: 'LQ-0002' }), parcel('c')])).toEqual(['a']);
    expect(next([parcel('a'), parcel('b', { state: 'draft' }), parcel('c')])).toEqual(['a', 'c']);
  });
  it('leaves a closing by itself, first or behind others', () => {
    const closing = parcel('close', { act: { kind: 'close' } as Act });
    expect(next([closing, parcel('a')])).toEqual(['close']);
    expect(next([parcel('a'), closing, parcel('b')])).toEqual(['a']);
  });
  it('is no request: it goes by itself, and nothing passes it', () => {
    expect(next([request('r'), parcel('a')])).toEqual(['r']);
    expect(next([request('r'), request('s')])).toEqual(['r']);
    expect(next([parcel('a'), request('r'), parcel('b')])).toEqual(['a']);
  });
  it('stops at what is typed over one of them, and passes by what is typed over something held', () => {
    const over = (under: string) => ({ base: { at: 'after', parcel: under } }) as const;
    expect(next([parcel('a'), parcel('b', over('a')), parcel('c')])).toEqual(['a']);
    expect(next([parcel('a'), parcel('b'), parcel('c', over('b')), parcel('d')], ['b'])).toEqual(['a', 'd']);
    expect(next([parcel('a', over('gone long ago')), parcel('b')])).toEqual(['a', 'b']);
  });
  it('is at most as many as may go at once, one unless more is said', () => {
    const parcels = Array.from({ length: 7 }, (_, index) => parcel(`p${index}`));
    expect(next(parcels)).toHaveLength(5);
    expect(nextTogether({ ...emptyOutbox, parcels })).toHaveLength(1);
    expect(next([])).toBeNull();
  });
});
