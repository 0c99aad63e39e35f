import { writablePlace } from '@fairwatt/server/administration';
import { ensureDatabase, runningCluster, startCluster, stopCluster } from './cluster/index.ts';
import { databaseName, lockPath, mainCluster } from './clusters.ts';
import { countJobs } from './count-jobs.ts';
import { isLocked, notedHolder } from './lock.ts';

/**
 * Runs `work` on the shop's database; `demo` null means the one that is in use. A cluster that does not run is started
 * for it and stopped afterwards.
 */
export async function withDatabase<T>(demo: boolean | null, work: (url: string) => Promise<T>): Promise<T> {
  const owner = process.env['DATABASE_OWNER_URL'] ?? '';
  const given = owner !== '' ? owner : process.env['DATABASE_URL'];
  if (given !== undefined && given !== '' && demo !== true) return work(await writablePlace(given));
  const running = runningCluster(mainCluster());
  const cluster = running ?? (await startCluster(mainCluster()));
  try {
    const used = isLocked(lockPath) ? (notedHolder(lockPath)?.database ?? null) : null;
    const shop = await countJobs(cluster.url(databaseName(false)));
    const name = demo !== null ? databaseName(demo) : (used ?? databaseName(shop === null));
    return await work(await ensureDatabase(cluster, name));
  } finally {
    if (running === null) stopCluster(mainCluster());
  }
}
