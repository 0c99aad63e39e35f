import { outbox, type OutboxState } from './outbox.ts';
import type { Parcel } from './parcel.ts';
import { memoryStore, openParcelStore, type ParcelStore } from './parcel-store.ts';

/** A browser that does not open its database within this time is treated as one that keeps nothing. */
const openMilliseconds = 3000;

export interface KeptParcelsParts {
  /** The name of this tab. */
  readonly tab: string;
  readonly state: () => OutboxState;
  readonly dispatch: (action: { readonly type: string }) => void;
  /** Open storage; rejects when there is none. */
  readonly open: (onLost: () => void) => Promise<ParcelStore>;
  readonly tell: (message: { kind: 'put'; parcel: Parcel } | { kind: 'gone'; id: string }) => void;
  /** A parcel that takes what was typed after its predecessor was sealed elsewhere. */
  readonly successor: (grown: Parcel, stands: Parcel | null) => Parcel;
}

/**
 * Keeps what is unsent in the browser's storage, one write after the other, and tells the other tabs what is kept. Told
 * before it is kept, a parcel could be sent and taken out by another tab while it is still to be written here.
 */
export class KeptParcels {
  private store: ParcelStore = memoryStore();
  private queue: Promise<void> = Promise.resolve();
  private seen: readonly Parcel[] = [];
  private hearing = false;
  /** What is still to be written, as it is by now, with what was written before. */
  private readonly unwritten = new Map<string, { readonly parcel: Parcel; readonly was: Parcel | null }>();
  private readonly parts: KeptParcelsParts;
  constructor(parts: KeptParcelsParts) {
    this.parts = parts;
  }

  /** Opens the storage and takes out what an earlier visit left. */
  async open(): Promise<void> {
    const { dispatch } = this.parts;
    try {
      const store = await Promise.race([
        this.parts.open(() => this.lost()),
        new Promise<never>((_resolve, reject) => {
          setTimeout(() => reject(new Error('storage does not open')), openMilliseconds);
        }),
      ]);
      this.store = store;
      for (const parcel of await store.all()) this.hear(outbox.put(parcel));
    } catch {
      // No storage, or one that hangs: the application works, and says that nothing survives a reload.
      dispatch(outbox.storage('memory'));
    }
  }

  /** Takes in what another tab did; it has kept it already, but for what is being typed in this one. */
  hear(action: { readonly type: string }): void {
    const before = new Map(this.seen.map((parcel) => [parcel.id, parcel]));
    this.hearing = true;
    try {
      this.parts.dispatch(action);
      this.seen = this.parts.state().parcels;
    } finally {
      this.hearing = false;
    }
    for (const parcel of this.seen) {
      const was = before.get(parcel.id);
      if (was?.state === 'draft' && was !== parcel && this.growsHere(parcel)) this.keep(parcel, was);
    }
  }

  /** Reads what is kept once more, for a tab that begins to send for all. */
  async takeStock(): Promise<void> {
    await this.queue;
    const known = new Set(this.parts.state().parcels.map((parcel) => parcel.id));
    for (const parcel of await this.store.all()) if (!known.has(parcel.id)) this.hear(outbox.put(parcel));
  }

  seal = async (id: string): Promise<Parcel | null> => {
    await this.queue;
    const sealed = await this.store.seal(id);
    if (sealed !== null) this.parts.tell({ kind: 'put', parcel: sealed });
    return sealed;
  };

  /** Looks at what changed since the last look, keeps it and tells it. */
  look(): void {
    const { parcels } = this.parts.state();
    if (parcels === this.seen || this.hearing) return;
    const before = new Map(this.seen.map((parcel) => [parcel.id, parcel]));
    this.seen = parcels;
    for (const parcel of parcels) {
      const was = before.get(parcel.id);
      before.delete(parcel.id);
      // What is being typed in another tab is that one's to keep: it knows the latest letters.
      if (was !== parcel && (parcel.state !== 'draft' || this.growsHere(parcel))) this.keep(parcel, was ?? null);
    }
    for (const id of before.keys()) this.letGo(id);
  }

  private growsHere(parcel: Parcel): boolean {
    return parcel.state === 'draft' && parcel.tab === this.parts.tab;
  }

  private keep(parcel: Parcel, was: Parcel | null): void {
    const unwritten = this.unwritten.get(parcel.id);
    this.unwritten.set(parcel.id, { parcel, was: unwritten === undefined ? was : unwritten.was });
    if (unwritten === undefined) this.write((store) => this.keepNow(store, parcel.id));
  }

  private async keepNow(store: ParcelStore, id: string): Promise<void> {
    const unwritten = this.unwritten.get(id);
    if (unwritten === undefined) return;
    this.unwritten.delete(id);
    const { parcel, was } = unwritten;
    const ownDraft = was?.state === 'draft' && parcel.tab === this.parts.tab && parcel.state !== 'refused';
    if (!ownDraft) await store.put(parcel);
    else {
      const result = await store.grow(parcel);
      if (!result.grown) {
        this.goBehind(parcel, result.stands);
        return;
      }
    }
    this.parts.tell({ kind: 'put', parcel });
  }

  /** Sealed meanwhile by the tab that sends: what was typed since, until now, goes after it. */
  private goBehind(parcel: Parcel, stands: Parcel | null): void {
    const latest = this.unwritten.get(parcel.id)?.parcel ?? parcel;
    this.unwritten.delete(parcel.id);
    const next = this.parts.successor(latest, stands);
    this.hear(stands === null ? outbox.gone(parcel.id) : outbox.put(stands));
    this.parts.dispatch(outbox.put(next));
  }

  private letGo(id: string): void {
    this.unwritten.delete(id);
    this.write(async (store) => {
      await store.remove(id);
      this.parts.tell({ kind: 'gone', id });
    });
  }

  private write(work: (store: ParcelStore) => Promise<void>): void {
    this.queue = this.queue.then(() => work(this.store)).catch(() => this.lost());
  }

  /** The storage is full, was cleared or taken away: what is unsent lives on in this page. */
  private lost(): void {
    if (this.parts.state().storage === 'memory') return;
    const memory = memoryStore();
    this.store = memory;
    for (const parcel of this.parts.state().parcels) {
      void memory.put(parcel);
      this.parts.tell({ kind: 'put', parcel });
    }
    this.parts.dispatch(outbox.storage('memory'));
    // Cleared is not denied: it may take things again.
    void this.parts
      .open(() => this.lost())
      .then(async (store) => {
        for (const parcel of this.parts.state().parcels) await store.put(parcel);
        this.store = store;
        this.parts.dispatch(outbox.storage('kept'));
      })
      .catch(() => undefined);
  }
}

export const browserStorage = (onLost: () => void): Promise<ParcelStore> => openParcelStore(onLost);
