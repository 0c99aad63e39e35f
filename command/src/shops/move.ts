import { join } from 'node:path';
import { databaseOfShop, type ShopEntry } from '@fairwatt/server/administration';
import {
  backupFolder,
  connected,
  databaseOf,
  makeBackup,
  otherDatabase,
  putInPlace,
  restoreInto,
  dropDatabase,
} from '../backup/index.ts';
import { say } from '../clusters.ts';
import { asked } from '../console.ts';
import { countJobs } from '../count-jobs.ts';
import { databaseIsThere, ensureServerRole, ownerUrl, prepareShop, untilLetGo } from './databases.ts';
import { BadShop, holdShop, listedShop, withShop } from './list.ts';

const stampOf = (now: string) => now.replace(/\D/g, '').slice(0, 14);

/**
 * Shuts a shop while something is done to its database that nobody may write beside; it is open again afterwards,
 * where it was or where the work says.
 */
async function whileShut(shop: ShopEntry, url: string, work: () => Promise<Pick<ShopEntry, 'place'>>): Promise<void> {
  const held = holdShop(shop.name);
  await withShop(shop.name, (entry) => ({ ...entry, state: 'shut' }));
  let { place } = shop;
  try {
    await untilLetGo(url);
    place = (await work()).place;
  } finally {
    await withShop(shop.name, (entry) => ({ ...entry, place, state: 'open' }));
    held.release();
  }
}

/** Moves a shop to another database, by a backup of which every table is compared; the old database is kept. */
export async function moveShop(name: string, to: string, ownUrl: string, now: string): Promise<void> {
  const shop = await listedShop(name);
  const place = to === 'here' ? null : to;
  if (place === shop.place) throw new BadShop(`${name} is there already.`);
  const moved = { ...shop, place };
  const [from, target] = [await ownerUrl(shop, ownUrl), await ownerUrl(moved, ownUrl)];
  if (await databaseIsThere(target))
    throw new BadShop(`There is a database ${databaseOf(target)} there already; nothing was changed.`);
  await whileShut(shop, from, async () => {
    const path = join(backupFolder, name, `before-move-${stampOf(now)}.backup`);
    const { jobs } = await makeBackup(from, path, now);
    await restoreInto(target, databaseOf(target), path);
    if (place === null) await ensureServerRole(ownUrl);
    await prepareShop(moved, ownUrl);
    say(`${jobs} jobs of ${name} are moved; every table was compared. ${path} holds them too.`);
    return { place };
  });
  await setAside(from, `${databaseOf(from)}_moved_${stampOf(now)}`);
}

/** The old database gets another name, so that nobody writes to it by mistake. */
async function setAside(url: string, aside: string): Promise<void> {
  const renamed = connected(otherDatabase(url, 'postgres'), (client) =>
    client.query(
      `alter database ${client.escapeIdentifier(databaseOf(url))} rename to ${client.escapeIdentifier(aside)}`,
    ),
  );
  const told = await renamed.then(
    () => `as ${aside}`,
    (error: unknown) => `under its name (${error instanceof Error ? error.message : String(error)})`,
  );
  say(`The old database is kept ${told}.`);
}

/** Puts a backup in the place of a shop's database, which is kept under another name. @returns 0 done, 1 not wanted */
export async function restoreShop(
  name: string,
  file: string,
  ownUrl: string,
  now: string,
  yes: boolean,
): Promise<number> {
  const shop = await listedShop(name);
  const url = await ownerUrl(shop, ownUrl);
  const scratch = `${databaseOfShop(name)}_trial_${stampOf(now)}`;
  const manifest = await restoreInto(url, scratch, file);
  say(`${file}: ${manifest.jobs} jobs and ${manifest.pictures} pictures of ${manifest.madeAt}; every table is whole.`);
  const present = await countJobs(url);
  const answer = yes || present === 0 ? 'yes' : await asked(`It takes the place of ${present} jobs. Type yes: `);
  if (answer?.toLowerCase() !== 'yes') {
    await dropDatabase(url, scratch);
    say(answer === null ? `${present} jobs are here already; say --yes` : 'Nothing was changed.');
    return answer === null ? 2 : 1;
  }
  await whileShut(shop, url, async () => {
    await putInPlace(url, scratch, stampOf(now), present);
    await prepareShop(shop, ownUrl);
    return shop;
  });
  say(`${manifest.jobs} jobs of ${name} are restored.`);
  return 0;
}
