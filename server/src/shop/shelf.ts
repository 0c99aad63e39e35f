import { LRUCache } from 'lru-cache';
import type { SearchNames, Shop } from '@fairwatt/core';
import type { Technician } from '@fairwatt/contract';
import { one, type Queryable } from '../database/query.ts';
import { text } from '../database/read.ts';
import { readCableBags } from '../cable-bags/store.ts';
import { readSupplies } from '../supplies/store.ts';
import { readInstruments, readSettings, readTechnicians } from './store.ts';

/** What a shop computes with, beside what its closed jobs taught, and who works there. */
export interface Shelf extends Omit<Shop, 'model'> {
  readonly people: readonly Technician[];
}

export const shelfStamp = (db: Queryable) => one(db, 'select stamp from shelf_stamp', [], (row) => text(row, 'stamp'));

/**
 * A stamp belongs to one content, whatever database it comes from. What is kept is counted in supplies, of which most of
 * a shelf is made: one of five thousand, or those of many small shops.
 */
const known = new LRUCache<string, Shelf>({
  maxSize: 20_000,
  sizeCalculation: (shelf) => shelf.supplies.length + 20,
});

/**
 * The shelf as it stands for this connection. It is read only when its stamp is not known: a stamp is drawn anew by the
 * database at every change, also inside a transaction that is rolled back.
 * @param stamp as this connection sees it
 */
export async function readShelf(db: Queryable, stamp: string): Promise<Shelf> {
  const before = known.get(stamp);
  if (before !== undefined) return before;
  const shelf: Shelf = {
    settings: await readSettings(db),
    instruments: await readInstruments(db),
    supplies: await readSupplies(db),
    bags: await readCableBags(db),
    people: await readTechnicians(db),
  };
  // What changed while it was read belongs to no stamp.
  if ((await shelfStamp(db)) === stamp) known.set(stamp, shelf);
  return shelf;
}

/** Names by id of lists that are kept. */
const names = new WeakMap<object, ReadonlyMap<string, string>>();

function named<Item extends { readonly id: string }>(
  list: readonly Item[],
  nameOf: (item: Item) => string,
): (id: string) => string | null {
  const known = names.get(list) ?? new Map(list.map((item) => [item.id, nameOf(item)]));
  names.set(list, known);
  return (id) => known.get(id) ?? null;
}

const itsName = (item: { readonly name: string }) => item.name;

/** The names by which jobs of this shop are found. */
export const searchNamesOf = (shop: Shop & Shelf): SearchNames => ({
  supply: named(shop.supplies, itsName),
  fault: named(shop.model.knowledge.faults, itsName),
  technician: named(shop.people, itsName),
  spare: named(shop.bags.cables, (cable) => cable.label),
});
