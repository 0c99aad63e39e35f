import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { versionAt, type Job } from '@fairwatt/core';
import { edit, FakeClock, FakeServer, settled } from './offline.test-help.ts';
import { KeptParcels } from './kept-parcels.ts';
import { emptyOutbox, outbox, outboxReducer, type OutboxState } from './outbox.ts';
import { nextOrder, thisTab, type ActParcel, type Parcel } from './parcel.ts';
import { memoryStore, type ParcelStore } from './parcel-store.ts';
import { Sender, settleMilliseconds } from './sender.ts';
import type { TabMessage } from './tabs.ts';

/** How long things take, in milliseconds, one after the other from a list that begins anew at its end. */
function delays(milliseconds: readonly number[]): () => number {
  let next = 0;
  return () => milliseconds[next++ % milliseconds.length] ?? 0;
}

/** One tab, as far as keeping what is unsent is concerned. */
class Tab {
  state: OutboxState = emptyOutbox;
  seen: Job;
  readonly tell: (message: TabMessage) => void;
  readonly kept: KeptParcels;
  changed: () => void = () => undefined;
  private serial = 0;

  constructor(name: string, seen: Job, open: () => Promise<ParcelStore>, tell: (message: TabMessage) => void) {
    this.seen = seen;
    this.tell = tell;
    this.kept = new KeptParcels({
      tab: name,
      state: () => this.state,
      dispatch: (action) => this.dispatch(action),
      open,
      tell,
      successor: (grown, stands) => this.successor(grown as ActParcel, stands),
    });
  }

  private successor(grown: ActParcel, stands: Parcel | null): ActParcel {
    this.serial += 1;
    const base: ActParcel['base'] =
      stands === null ? { at: 'seen', version: versionAt(this.seen, 'sheet') } : { at: 'after', parcel: stands.id };
    return { ...grown, id: `behind-${this.serial}`, order: nextOrder(0), state: 'draft', base };
  }

  dispatch(action: { readonly type: string }): void {
    this.state = outboxReducer(this.state, action);
    this.kept.look();
    this.changed();
  }

  hear(message: TabMessage): void {
    if (message.kind === 'put') this.kept.hear(outbox.put(message.parcel));
    if (message.kind === 'gone') this.kept.hear(outbox.gone(message.id));
    if (message.kind === 'confirmed') this.kept.hear(outbox.confirmed(message.done));
    if (message.kind === 'job') this.seen = message.job;
  }
}

/** Two tabs of one browser on a clock that stands still: one sends for both, words are typed in the other. */
class Browser {
  readonly clock = new FakeClock();
  readonly server = new FakeServer();
  readonly store = memoryStore();
  readonly typing: Tab;
  readonly sending: Tab;
  private readonly delay: () => number;
  private last = 0;

  constructor(milliseconds: readonly number[]) {
    this.delay = delays(milliseconds);
    const open = () => Promise.resolve(this.slowStore());
    const typing = new Tab(thisTab, this.server.job, open, (message) => this.later(() => sending.hear(message)));
    const sending = new Tab('other', this.server.job, open, (message) => this.later(() => typing.hear(message)));
    this.typing = typing;
    this.sending = sending;
    const sender = new Sender({
      state: () => sending.state,
      dispatch: (action) => sending.dispatch(action),
      post: (parcels) => this.after(() => this.server.post(parcels)),
      now: () => this.clock.now,
      later: this.clock.later,
      connection: () => undefined,
      held: () => undefined,
      delivered: (_parcels, done, { job }) => {
        if (job !== null) sending.tell({ kind: 'job', job });
        sending.tell({ kind: 'confirmed', done });
      },
      learned: () => undefined,
      seal: sending.kept.seal,
    });
    sending.changed = () => {
      if (sending.state.parcels.some(({ state }) => state === 'waiting')) sender.wake();
    };
  }

  /** Messages from one tab to the other arrive in order. */
  private later(work: () => void): void {
    this.last = Math.max(this.last, this.clock.now + this.delay());
    this.clock.later(work, this.last - this.clock.now);
  }

  private after<T>(work: () => Promise<T>): Promise<T> {
    return new Promise((resolve, reject) => {
      this.clock.later(() => void work().then(resolve, reject), this.delay());
    });
  }

  /** The storage that both share; each access takes its time. */
  private slowStore(): ParcelStore {
    const { store } = this;
    return {
      all: () => store.all(),
      put: (parcel) => this.after(() => store.put(parcel)),
      grow: (parcel) => this.after(() => store.grow(parcel)),
      seal: (id) => this.after(() => store.seal(id)),
      remove: (id) => this.after(() => store.remove(id)),
    };
  }

  /** What stands in the field where it is typed. */
  get shown(): string {
    const typed = this.typing.state.parcels.findLast((parcel) => parcel.kind === 'act');
    return typed?.kind === 'act' && typed.act.kind === 'edit-sheet'
      ? (typed.act.changes.words ?? '')
      : this.typing.seen.sheet.words;
  }

  private serial = 0;
  private sealing: (() => void) | null = null;
  /** One letter behind what stands in the field; sealed once no other follows for a while. */
  async letter(letter: string, pauseMilliseconds: number): Promise<void> {
    this.serial += 1;
    this.typing.dispatch(
      outbox.did({
        ids: [`id-${this.serial}`, `other-${this.serial}`],
        code: 'LQ-0001',
        by: 'mara',
        at: new Date(this.clock.now).toISOString(),
        tab: thisTab,
        order: nextOrder(this.clock.now),
        act: edit({ words: this.shown + letter }),
        seen: this.typing.seen,
      }),
    );
    this.sealing?.();
    this.sealing = this.clock.later(() => {
      for (const parcel of this.typing.state.parcels)
        if (parcel.state === 'draft') this.typing.dispatch(outbox.seal(parcel.id));
    }, settleMilliseconds);
    await this.clock.pass(pauseMilliseconds);
  }
}

describe('two tabs, one of which sends for both', () => {
  it('lose no letter and put none twice, however slowly anything goes', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.integer({ min: 0, max: 700 }), { minLength: 1, maxLength: 12 }),
        fc.array(fc.integer({ min: 0, max: 400 }), { minLength: 1, maxLength: 9 }),
        async (pauses, milliseconds) => {
          const browser = new Browser(milliseconds);
          await browser.typing.kept.open();
          await browser.sending.kept.open();
          await settled();
          const before = browser.shown;
          const letters = pauses.map((_pause, index) => String.fromCharCode(97 + index));
          for (const [index, letter] of letters.entries()) {
            await browser.letter(letter, pauses[index] ?? 0);
            expect(browser.shown).toBe(before + letters.slice(0, index + 1).join(''));
          }
          await browser.clock.pass(60_000);
          expect(browser.server.job.sheet.words).toBe(before + letters.join(''));
          expect([browser.typing.state.parcels, browser.sending.state.parcels, await browser.store.all()]).toEqual([
            [],
            [],
            [],
          ]);
        },
      ),
      { numRuns: 300 },
    );
  });
});
