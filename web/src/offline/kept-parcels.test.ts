import { describe, expect, it } from 'vitest';
import { edit, settled, startingJob } from './offline.test-help.ts';
import { KeptParcels } from './kept-parcels.ts';
import { emptyOutbox, outbox, outboxReducer, type OutboxState } from './outbox.ts';
import { nextOrder, thisTab, type ActParcel, type Parcel } from './parcel.ts';
import { memoryStore, type ParcelStore } from './parcel-store.ts';

/** A tab as far as keeping is concerned: a state, a storage, and what it tells the others. */
function tab(open: () => Promise<ParcelStore>) {
  let state: OutboxState = emptyOutbox;
  const told: { kind: string; id: string }[] = [];
  let serial = 0;
  const kept = new KeptParcels({
    tab: thisTab,
    state: () => state,
    dispatch: (action) => {
      state = outboxReducer(state, action);
      kept.look();
    },
    open,
    tell: (message) => told.push({ kind: message.kind, id: message.kind === 'put' ? message.parcel.id : message.id }),
    successor: (grown, stands): Parcel => ({
      ...(grown as ActParcel),
      id: 'successor',
      order: nextOrder(Date.now()),
      state: 'draft',
      base: stands === null ? { at: 'seen', version: 9 } : { at: 'after', parcel: stands.id },
    }),
  });
  const dispatch = (action: { readonly type: string }) => {
    state = outboxReducer(state, action);
    kept.look();
  };
  return {
    kept,
    told,
    dispatch,
    state: () => state,
    type: (words: string) => {
      serial += 1;
      const ids = [`id-${serial}`, `other-${serial}`] as const;
      dispatch(
        outbox.did({
          ids,
          code: 'LQ-0001',
          by: 'mara',
          at: '2026-01-01T00:00:00.000Z',
          tab: thisTab,
          order: nextOrder(Date.now()),
          act: edit({ words }),
          seen: startingJob(),
        }),
      );
    },
  };
}
const wordsOf = (parcel: Parcel | undefined) =>
  parcel?.kind === 'act' && parcel.act.kind === 'edit-sheet' ? parcel.act.changes.words : undefined;

const typedElsewhere = (id: string, words: string, base: ActParcel['base'], state: Parcel['state']): ActParcel => ({
  kind: 'act',
  id,
  code: 'LQ-0001',
  by: 'mara',
  at: '2026-01-01T00:00:00.000Z',
  tab: 'another',
  order: nextOrder(Date.now()),
  act: edit({ words }),
  base,
  state,
  refused: null,
  failures: 0,
});

describe('keeping', () => {
  it('survives a reload, as it was typed last', async () => {
    const store = memoryStore();
    const first = tab(() => Promise.resolve(store));
    await first.kept.open();
    first.type('Half');
    first.type('Half a word');
    await settled();
    const reloaded = tab(() => Promise.resolve(store));
    await reloaded.kept.open();
    expect(reloaded.state().parcels.map(wordsOf)).toEqual(['Half a word']);
    expect(reloaded.told).toEqual([]);
  });
  it('lets go of what the server has confirmed, and tells the other tabs', async () => {
    const store = memoryStore();
    const one = tab(() => Promise.resolve(store));
    await one.kept.open();
    one.type('Done');
    await settled();
    one.dispatch(outbox.confirmed([{ id: 'id-1', version: 2 }]));
    await settled();
    expect(await store.all()).toEqual([]);
    expect(one.told).toEqual([
      { kind: 'put', id: 'id-1' },
      { kind: 'gone', id: 'id-1' },
    ]);
  });
  it('what was typed after another tab had sealed it goes behind it, and nothing of it is lost', async () => {
    const store = memoryStore();
    const one = tab(() => Promise.resolve(store));
    await one.kept.open();
    one.type('Sealed here');
    await settled();
    await store.seal('id-1');
    one.type('Sealed here, and on');
    await settled();
    expect(one.state().parcels.map((parcel) => [parcel.id, parcel.state, wordsOf(parcel)])).toEqual([
      ['id-1', 'waiting', 'Sealed here'],
      ['successor', 'draft', 'Sealed here, and on'],
    ]);
    expect((await store.all()).map(wordsOf)).toEqual(['Sealed here', 'Sealed here, and on']);
  });
  it('or had even been sent', async () => {
    const store = memoryStore();
    const one = tab(() => Promise.resolve(store));
    await one.kept.open();
    one.type('Sent');
    await settled();
    await store.remove('id-1');
    one.type('Sent, and on');
    await settled();
    expect(one.state().parcels.map((parcel) => [parcel.id, wordsOf(parcel)])).toEqual([['successor', 'Sent, and on']]);
  });
  it('another tab hears of it once it is kept, and not before', async () => {
    let free: () => void = () => undefined;
    const held = new Promise<void>((resolve) => {
      free = resolve;
    });
    const store = memoryStore();
    const one = tab(() => Promise.resolve({ ...store, put: (parcel) => held.then(() => store.put(parcel)) }));
    await one.kept.open();
    one.type('Slowly kept');
    one.dispatch(outbox.seal('id-1'));
    await settled();
    expect([one.told, await store.all()]).toEqual([[], []]);
    free();
    await settled();
    expect([one.told.map(({ id }) => id), (await store.all()).map((parcel) => parcel.state)]).toEqual([
      ['id-1'],
      ['waiting'],
    ]);
  });
  it('what is being typed in another tab is never told by this one, which knows only some of the letters', async () => {
    const store = memoryStore();
    const one = tab(() => Promise.resolve(store));
    await one.kept.open();
    one.kept.hear(outbox.put(typedElsewhere('before', 'Half', { at: 'seen', version: 0 }, 'waiting')));
    one.kept.hear(outbox.put(typedElsewhere('growing', 'Half a w', { at: 'after', parcel: 'before' }, 'draft')));
    one.dispatch(outbox.confirmed([{ id: 'before', version: 5 }]));
    await settled();
    expect(one.state().parcels.map((parcel) => parcel.kind === 'act' && parcel.base)).toEqual([
      { at: 'seen', version: 5 },
    ]);
    expect(one.told).toEqual([{ kind: 'gone', id: 'before' }]);
  });
  it('what is typed here, over something that another tab has sent, is kept and told as standing on that', async () => {
    const store = memoryStore();
    const one = tab(() => Promise.resolve(store));
    await one.kept.open();
    one.type('Half');
    one.dispatch(outbox.seal('id-1'));
    one.type('Half a word');
    await settled();
    one.told.length = 0;
    one.kept.hear(outbox.confirmed([{ id: 'id-1', version: 5 }]));
    await settled();
    expect(one.told).toEqual([{ kind: 'put', id: 'id-2' }]);
    const kept = (await store.all()).find(({ id }) => id === 'id-2');
    expect([wordsOf(kept), kept?.kind === 'act' && kept.base]).toEqual(['Half a word', { at: 'seen', version: 5 }]);
  });
  it('what another tab tells is taken in and not kept twice', async () => {
    const store = memoryStore();
    const one = tab(() => Promise.resolve(store));
    await one.kept.open();
    const other = tab(() => Promise.resolve(memoryStore()));
    other.type('From the other');
    one.kept.hear(outbox.put(other.state().parcels[0]!));
    await settled();
    expect(one.state().parcels).toHaveLength(1);
    expect(await store.all()).toEqual([]);
    expect(one.told).toEqual([]);
  });
});

describe('a browser that keeps nothing', () => {
  it('from the start: the application works and says so', async () => {
    const one = tab(() => Promise.reject(new Error('denied')));
    await one.kept.open();
    one.type('Typed');
    await settled();
    expect([one.state().storage, one.state().parcels.map(wordsOf)]).toEqual(['memory', ['Typed']]);
  });
  it('any more, since it is full: what is unsent lives on, and is kept again when there is room', async () => {
    let full = true;
    const good = memoryStore();
    const bad: ParcelStore = { ...good, put: () => Promise.reject(new Error('QuotaExceededError')) };
    let opened = 0;
    const one = tab(() => {
      opened += 1;
      return opened === 1 ? Promise.resolve(bad) : full ? Promise.reject(new Error('full')) : Promise.resolve(good);
    });
    await one.kept.open();
    one.type('No room');
    await settled();
    expect([one.state().storage, one.state().parcels.map(wordsOf)]).toEqual(['memory', ['No room']]);
    full = false;
  });
  it('any more, since it was cleared: it is opened anew and everything unsent goes in again', async () => {
    const fresh = memoryStore();
    let lost: () => void = () => undefined;
    let opened = 0;
    const one = tab(() => Promise.resolve(memoryStore()));
    const kept = new KeptParcels({
      tab: thisTab,
      state: one.state,
      dispatch: one.dispatch,
      open: (onLost) => {
        opened += 1;
        lost = onLost;
        return Promise.resolve(opened === 1 ? memoryStore() : fresh);
      },
      tell: () => undefined,
      successor: (grown) => grown,
    });
    await kept.open();
    one.type('Unsent');
    lost();
    await settled();
    expect(one.state().storage).toBe('kept');
    expect((await fresh.all()).map(wordsOf)).toEqual(['Unsent']);
  });
});
