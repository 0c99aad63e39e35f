import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { Parcel } from './parcel.ts';

interface Schema extends DBSchema {
  parcels: { key: string; value: Parcel; indexes: { order: number } };
}

/** Where parcels outlive a reload: one record each, shared by all tabs of this browser. */
export interface ParcelStore {
  readonly all: () => Promise<Parcel[]>;
  readonly put: (parcel: Parcel) => Promise<void>;
  /** Writes a draft that grew, unless it was sealed or sent meanwhile: then answers what stands there instead. */
  readonly grow: (
    parcel: Parcel,
  ) => Promise<{ readonly grown: true } | { readonly grown: false; readonly stands: Parcel | null }>;
  /** Seals a draft and answers it as it is kept; null when it is gone. */
  readonly seal: (id: string) => Promise<Parcel | null>;
  readonly remove: (id: string) => Promise<void>;
}

const name = 'fairwatt';

/**
 * Parcels in the browser's database.
 * @param onLost the storage was taken away while the page was open
 * @throws when the browser keeps nothing
 */
export async function openParcelStore(onLost: () => void): Promise<ParcelStore> {
  const database: IDBPDatabase<Schema> = await openDB<Schema>(name, 1, {
    upgrade: (db) => {
      db.createObjectStore('parcels', { keyPath: 'id' }).createIndex('order', 'order');
    },
    terminated: onLost,
  });
  database.addEventListener('versionchange', () => {
    database.close();
    onLost();
  });
  return {
    all: () => database.getAllFromIndex('parcels', 'order'),
    put: async (parcel) => {
      await database.put('parcels', parcel);
    },
    grow: async (parcel) => {
      const work = database.transaction('parcels', 'readwrite');
      const stands = (await work.store.get(parcel.id)) ?? null;
      const free = stands?.state === 'draft';
      if (free) await work.store.put(parcel);
      await work.done;
      return free ? { grown: true } : { grown: false, stands };
    },
    seal: async (id) => {
      const work = database.transaction('parcels', 'readwrite');
      const stands = await work.store.get(id);
      const sealed: Parcel | null =
        stands === undefined ? null : stands.state === 'draft' ? { ...stands, state: 'waiting' } : stands;
      if (sealed !== null) await work.store.put(sealed);
      await work.done;
      return sealed;
    },
    remove: (id) => database.delete('parcels', id),
  };
}

/** Where nothing can be kept: parcels live as long as the page. */
export function memoryStore(): ParcelStore {
  const kept = new Map<string, Parcel>();
  return {
    all: () => Promise.resolve([...kept.values()].sort((a, b) => a.order - b.order)),
    put: (parcel) => {
      kept.set(parcel.id, parcel);
      return Promise.resolve();
    },
    grow: (parcel) => {
      const stands = kept.get(parcel.id) ?? null;
      if (stands?.state !== 'draft') return Promise.resolve({ grown: false, stands });
      kept.set(parcel.id, parcel);
      return Promise.resolve({ grown: true });
    },
    seal: (id) => {
      const stands = kept.get(id) ?? null;
      const sealed: Parcel | null = stands?.state === 'draft' ? { ...stands, state: 'waiting' } : stands;
      if (sealed !== null) kept.set(id, sealed);
      return Promise.resolve(sealed);
    },
    remove: (id) => {
      kept.delete(id);
      return Promise.resolve();
    },
  };
}
