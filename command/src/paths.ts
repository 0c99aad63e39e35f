import { createHash } from 'node:crypto';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

/** The checkout. */
export const root = fileURLToPath(new URL('../../', import.meta.url));
/** What running leaves behind: cluster, run file, build stamp. Not in git. */
export const stateDirectory = join(root, '.fairwatt');
/** Tells this checkout from others on the machine. */
export const rootHash = createHash('sha256').update(root).digest('hex').slice(0, 10);
