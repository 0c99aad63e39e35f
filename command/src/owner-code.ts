import { makeOwnerCode } from '@fairwatt/server';
import { asRead } from '@fairwatt/server/administration';
import { connected } from './backup/index.ts';
import { say } from './clusters.ts';
import { prepareSchema } from './upgrade.ts';
import { withDatabase } from './shop-database.ts';

/**
 * `owner-code`: a one-time code that makes an owner, for whoever can reach this console; an earlier one is no longer
 * one. It is looked for in the shop's database, not in the demo's.
 */
export const ownerCode = (): Promise<number> =>
  withDatabase(false, async (url) => {
    await prepareSchema(url);
    const code = await connected(url, (client) => makeOwnerCode(client));
    say(`Enter this code at the sign-in, under “Locked out?”: ${asRead(code)}`);
    return 0;
  });
