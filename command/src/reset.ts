import {
  clusterFolder,
  deleteCluster,
  setClusterAside,
  startCluster,
  stopCluster,
  type RunningCluster,
} from './cluster/index.ts';
import { databaseName, lockPath, mainCluster, say } from './clusters.ts';
import { asked } from './console.ts';
import { countJobs } from './count-jobs.ts';
import { takeLock } from './lock.ts';
import { stop } from './serve.ts';
import { databasesOfShops } from './shops/index.ts';

async function holdings(cluster: RunningCluster): Promise<string> {
  const found = await Promise.all(
    [false, true].map(async (demo) => {
      const jobs = await countJobs(cluster.url(databaseName(demo)));
      return jobs === null ? [] : [`${jobs} jobs of ${demo ? 'the demo shop' : 'the shop'}`];
    }),
  );
  const shops = await Promise.all(
    (await databasesOfShops(cluster.url('postgres'))).map(
      async (name) => `${(await countJobs(cluster.url(name))) ?? 0} jobs of ${name}`,
    ),
  );
  return [...found.flat(), ...shops].join(' and ') || 'no jobs';
}

/**
 * Moves the data of this folder aside, after naming and counting it; `--delete` deletes it instead.
 * @returns 0 done, 1 not wanted, 2 nobody could be asked
 */
export async function reset(flags: readonly string[]): Promise<number> {
  const remove = flags.includes('--delete');
  const options = mainCluster();
  await stop();
  const lock = takeLock(lockPath);
  if (lock === null) {
    say('Another ./fairwatt has begun with this data folder.');
    return 1;
  }
  try {
    const folder = clusterFolder(options);
    if (folder === null) {
      say('There is no data here.');
      return 0;
    }
    const held = await holdings(await startCluster(options)).finally(() => stopCluster(options));
    say(`${folder} holds ${held}. It is ${remove ? 'deleted' : 'moved aside, not deleted'}.`);
    if (!flags.includes('--yes')) {
      const answer = await asked('Type yes to go on: ');
      if (answer === null) {
        process.stderr.write(`Say ./fairwatt reset ${remove ? '--delete ' : ''}--yes\n`);
        return 2;
      }
      if (answer.toLowerCase() !== 'yes') {
        say('Nothing was changed.');
        return 1;
      }
    }
    if (remove) {
      deleteCluster(options);
      say('It is deleted. The next start begins anew.');
    } else {
      say(`It is now ${setClusterAside(options, new Date().toISOString()) ?? 'gone'}. The next start begins anew.`);
    }
    return 0;
  } finally {
    lock.release();
  }
}
