import { setTimeout as wait } from 'node:timers/promises';
import type pg from 'pg';
import type { Logger } from 'pino';
import { changeMessageSchema, type ChangeMessage } from '@fairwatt/contract';
import { placedClients } from '../database/placed-client.ts';
import { Primary } from '../database/primary.ts';

const everything: ChangeMessage = { topic: 'everything', code: null, revision: null };
const changeChannel = 'fairwatt_change';
const sessionChannel = 'fairwatt_session';
const firstPauseMilliseconds = 200;
const longestPauseMilliseconds = 5000;

/**
 * What changed in the database, whichever server process changed it: one connection that listens. When it breaks it is
 * opened again, and everybody is told that anything may have changed meanwhile.
 */
export class ChangeFeed {
  private readonly listeners = new Set<(change: ChangeMessage) => void>();
  private readonly sessionListeners = new Set<() => void>();
  private readonly abort = new AbortController();
  private client: pg.Client | null = null;
  private readonly running: Promise<void>;
  private readonly Client: ReturnType<typeof placedClients>;
  private readonly log: Logger;

  constructor(database: Primary | string, log: Logger) {
    this.Client = placedClients(typeof database === 'string' ? new Primary(database, log) : database);
    this.log = log;
    this.running = this.run();
  }

  /** Calls back for each change; the answer stops it. */
  listen(hear: (change: ChangeMessage) => void): () => void {
    this.listeners.add(hear);
    return () => this.listeners.delete(hear);
  }

  /** Calls back when sessions of browsers have ended, or may have while nobody listened. */
  listenToSessions(hear: () => void): void {
    this.sessionListeners.add(hear);
  }

  private tellSessions(): void {
    for (const hear of this.sessionListeners) hear();
  }

  private tell(change: ChangeMessage): void {
    for (const hear of this.listeners) hear(change);
  }

  /** Listens until the connection breaks. */
  private async listenOnce(): Promise<void> {
    const client = new this.Client({ connectionTimeoutMillis: 4000 });
    this.client = client;
    const broken = new Promise<void>((resolve) => {
      client.on('error', () => resolve());
      client.on('end', () => resolve());
    });
    client.on('notification', ({ channel, payload }) => {
      if (channel === sessionChannel) {
        this.tellSessions();
        return;
      }
      const parsed = changeMessageSchema.safeParse(JSON.parse(payload ?? 'null'));
      if (parsed.success) this.tell(parsed.data);
      else this.log.error({ payload }, 'a change was told that is none');
    });
    await client.connect();
    await client.query(`listen ${changeChannel}; listen ${sessionChannel}`);
    this.tell(everything);
    this.tellSessions();
    await broken;
  }

  private async run(): Promise<void> {
    const { signal } = this.abort;
    let pause = firstPauseMilliseconds;
    while (!signal.aborted) {
      try {
        await this.listenOnce();
        pause = firstPauseMilliseconds;
      } catch (error) {
        this.log.warn({ err: error instanceof Error ? error.message : String(error) }, 'cannot listen for changes');
        pause = Math.min(longestPauseMilliseconds, pause * 2);
      }
      await this.client?.end().catch(() => undefined);
      await wait(pause, undefined, { signal }).catch(() => undefined);
    }
  }

  async close(): Promise<void> {
    this.abort.abort();
    await this.client?.end().catch(() => undefined);
    await this.running;
  }
}
