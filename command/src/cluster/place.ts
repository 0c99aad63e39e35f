import { createHash, randomBytes } from 'node:crypto';
import { spawnSync } from 'node:child_process';
import { chmodSync, existsSync, mkdirSync, readFileSync, realpathSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root, stateDirectory } from '../paths.ts';
import { isRoot } from '../system.ts';
import { canEnter, ownerOf } from './programs.ts';

/** Where root's clusters stand whose data folder the database's user cannot enter. */
const outsideFolder = () => process.env['FAIRWATT_OUTSIDE'] ?? '/var/lib/fairwatt';

export const holdsCluster = (folder: string): boolean => existsSync(join(folder, 'PG_VERSION'));

/** Who an outside cluster belongs to: the data folder by its path when it was last started. */
const belongsFile = (outside: string) => join(outside, 'belongs-to');
const idFile = (dataFolder: string, name: string) => join(dataFolder, `pg-${name}.id`);
const readId = (path: string) => (existsSync(path) ? readFileSync(path, 'utf8').trim() : null);

function makeOutside(dataFolder: string, name: string): string {
  const id = randomBytes(8).toString('hex');
  const outside = join(outsideFolder(), id);
  mkdirSync(outside, { recursive: true });
  chmodSync(outsideFolder(), 0o755);
  chmodSync(outside, 0o755);
  writeFileSync(belongsFile(outside), dataFolder);
  writeFileSync(idFile(dataFolder, name), id);
  return outside;
}

/** The outside folder that this data folder names, unless it is a copy of the data folder that owns it. */
function ownOutside(
  dataFolder: string,
  name: string,
  id: string,
  say: (text: string) => void,
): { readonly outside: string } | null {
  const outside = join(outsideFolder(), id);
  if (!existsSync(outside)) return null;
  const last = readFileSync(belongsFile(outside), 'utf8').trim();
  if (last !== dataFolder && readId(idFile(last, name)) === id) {
    say(
      `${dataFolder} is a copy of ${last}, whose data stays with it. A shop of its own begins ` +
        'here; to bring the data over, make a backup there and restore it here.',
    );
    return null;
  }
  if (last !== dataFolder) writeFileSync(belongsFile(outside), dataFolder);
  return { outside };
}

function moveOut(inside: string, outside: string): void {
  const target = join(outside, 'pg');
  try {
    renameSync(inside, target);
  } catch (error) {
    if (!(error instanceof Error && 'code' in error && error.code === 'EXDEV')) throw error;
    const copied = spawnSync('cp', ['-a', inside, `${target}.copying`], { stdio: ['ignore', 'ignore', 'inherit'] });
    if (copied.status !== 0) throw new Error(`${inside} could not be copied to ${target}`, { cause: error });
    renameSync(`${target}.copying`, target);
    renameSync(inside, `${inside}.moved`);
  }
}

/** Where an earlier version kept the cluster of a checkout that the database's user cannot enter. */
function earlierOutside(dataFolder: string, name: string): string | null {
  if (dataFolder !== realpathSync(stateDirectory)) return null;
  const hash = createHash('sha256').update(root).digest('hex').slice(0, 10);
  const folder = `/var/tmp/fairwatt-pg-${hash}-${name}`;
  return holdsCluster(folder) ? folder : null;
}

/**
 * The folder of a cluster, found by where the data folder stands: inside it, or, for root, outside where the database's
 * user cannot enter it. An outside cluster is named by an id that travels with the data folder, so that a renamed data
 * folder finds its own, and a copied one is told from it. Nothing is ever deleted here.
 * @param make a new outside place may be made
 */
export function clusterPlace(dataFolder: string, name: string, make: boolean, say: (text: string) => void): string {
  const folder = realpathSync(dataFolder);
  const inside = join(folder, `pg-${name}`);
  if (!isRoot) return inside;
  const id = readId(idFile(folder, name));
  const own = id === null ? null : ownOutside(folder, name, id, say);
  if (own !== null) return join(own.outside, 'pg');
  if (canEnter(folder, ownerOf(inside))) return inside;
  if (!make) return inside;
  const outside = makeOutside(folder, name);
  const from = holdsCluster(inside) ? inside : earlierOutside(folder, name);
  if (from !== null) {
    say(`Moving the data from ${from} to ${outside}, where the database's user can reach it ...`);
    moveOut(from, outside);
  }
  return join(outside, 'pg');
}
