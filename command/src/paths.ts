import { join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';

/** The checkout. */
export const root = fileURLToPath(new URL('../../', import.meta.url));
/** What building and testing leave behind. Not in git. */
export const stateDirectory = join(root, '.fairwatt');
/** The data folder: clusters, logs, backups, lock. `FAIRWATT_DATA` puts it elsewhere. */
export const dataDirectory = (() => {
  const wanted = process.env['FAIRWATT_DATA'];
  return wanted === undefined || wanted === '' ? stateDirectory : resolve(wanted);
})();
