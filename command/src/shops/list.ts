import { mkdirSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { readShops, registrySchema, shopNameSchema, type ShopEntry } from '@fairwatt/server/administration';
import { takeLock } from '../lock.ts';
import { dataDirectory } from '../paths.ts';

/** The list of shops, which servers follow. */
export const shopsPath = join(dataDirectory, 'shops.json');
/** Where what is of one shop is kept, such as the note of its last backup. */
export const shopFolder = (name: string): string => join(dataDirectory, 'shops', name);

/** What somebody asked for that cannot be, in words. */
export class BadShop extends Error {}

export const listedShops = (): Promise<readonly ShopEntry[]> => readShops(shopsPath);

/** @throws BadShop */
export async function listedShop(name: string): Promise<ShopEntry> {
  const found = (await listedShops()).find((shop) => shop.name === name);
  if (found === undefined) throw new BadShop(`There is no shop ${name}; ./fairwatt shop list names them.`);
  return found;
}

/** @throws BadShop when it cannot be the name of a shop */
export function checkedName(name: string): string {
  const parsed = shopNameSchema.safeParse(name);
  if (!parsed.success) throw new BadShop(`“${name}” cannot be a shop's name: it ${parsed.error.issues[0]?.message}.`);
  return parsed.data;
}

/** Changes the list. One command at a time does; servers read the old list or the new one, never half of it. */
export async function changeShops(
  change: (shops: readonly ShopEntry[]) => readonly ShopEntry[],
): Promise<readonly ShopEntry[]> {
  mkdirSync(dataDirectory, { recursive: true });
  const lock = takeLock(`${shopsPath}.lock`, true);
  try {
    const shops = change(await listedShops());
    const list = registrySchema.parse({ format: 'fairwatt-shops', version: 1, shops });
    // Addresses of databases hold passwords.
    writeFileSync(`${shopsPath}.new`, `${JSON.stringify(list, null, 2)}\n`, { mode: 0o600 });
    renameSync(`${shopsPath}.new`, shopsPath);
    return shops;
  } finally {
    lock?.release();
  }
}

/**
 * Held by whoever has a shop shut, so that one that was left shut is told from one that is being worked on.
 * @throws BadShop when another command works on it
 */
export function holdShop(name: string): { readonly release: () => void } {
  const lock = takeLock(join(shopFolder(name), 'lock'));
  if (lock === null) throw new BadShop(`${name} is being moved or restored just now.`);
  return lock;
}

export const withShop = (name: string, change: (shop: ShopEntry) => ShopEntry) =>
  changeShops((shops) => shops.map((shop) => (shop.name === name ? change(shop) : shop)));
