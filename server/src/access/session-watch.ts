import type { Request } from 'express';
import type pg from 'pg';
import type { Logger } from 'pino';
import type { ChangeFeed } from '../changes/feed.ts';
import { many } from '../database/query.ts';
import { text } from '../database/read.ts';
import { sessionOf } from './sessions.ts';

/** Sessions on whose end something waits: what a browser follows ends with its session, however that ends. */
export class SessionWatch {
  private readonly watched = new Map<AbortController, string>();
  private readonly pool: pg.Pool;
  private readonly log: Logger;

  constructor(pool: pg.Pool, feed: ChangeFeed, log: Logger) {
    this.pool = pool;
    this.log = log;
    feed.listenToSessions(() => this.look());
  }

  /**
   * Aborts when the session with which a request came ends: by its owner's hand, by another's, or by its time. Where
   * names are picked there is none, and it never does. Nothing is watched any more once the request is `closed`.
   */
  endOf(request: Request, closed: AbortSignal): AbortSignal {
    const end = new AbortController();
    const { person, cookie } = sessionOf(request);
    if (person === undefined || cookie === undefined || closed.aborted) return end.signal;
    const over = setTimeout(() => end.abort(), cookie.maxAge ?? 0);
    this.watched.set(end, request.sessionID);
    closed.addEventListener('abort', () => {
      clearTimeout(over);
      this.watched.delete(end);
    });
    // It may have ended while the request was on its way to here.
    this.look();
    return end.signal;
  }

  /** Ends what has no session any more. A database that is away is asked again when the line to it stands. */
  private look(): void {
    if (this.watched.size === 0) return;
    void this.endLost().catch((error: unknown) =>
      this.log.warn({ err: error }, 'cannot look which sessions have ended'),
    );
  }

  private async endLost(): Promise<void> {
    const asked = [...this.watched];
    const standing = new Set(
      await many(
        this.pool,
        'select sid from web_session where sid = any($1) and expire > now()',
        [[...new Set(asked.map(([, sid]) => sid))]],
        (row) => text(row, 'sid'),
      ),
    );
    for (const [end, sid] of asked) if (!standing.has(sid)) end.abort();
  }
}
