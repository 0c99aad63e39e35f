import type { Logger } from 'pino';
import { ChangeFeed } from '@fairwatt/server';

/** A feed that hears each change from now on: what changes before it listens is told as a whole, once it does. */
export async function listeningFeed(databaseUrl: string, log: Logger): Promise<ChangeFeed> {
  const feed = new ChangeFeed(databaseUrl, log);
  await new Promise<void>((resolve) => {
    const leave = feed.listen(({ topic }) => {
      if (topic !== 'everything') return;
      leave();
      resolve();
    });
  });
  return feed;
}
