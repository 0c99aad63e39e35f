import type { Request, Response } from 'express';
import type { SessionWatch } from './access/index.ts';
import { HttpProblem } from './problems.ts';

/** How many streams of events of one shop one address holds open, and all together. */
const mostPerAddress = 60;
const mostInAll = 400;
/** A reader that is this far behind is dropped; the browser opens a new line and looks at everything again. */
const mostUnreadBytes = 1 << 20;
const beatMilliseconds = 5000;

export interface Stream {
  readonly send: (event: unknown) => void;
  readonly closed: AbortSignal;
}

/** Streams that are open, by the shop whose sessions they belong to and the address. */
const openOf = new WeakMap<SessionWatch, Map<string, number>>();
const all = (open: ReadonlyMap<string, number>) => [...open.values()].reduce((sum, count) => sum + count, 0);

/**
 * Server-sent events. A comment every few seconds shows that the line is alive; it ends with the session that opened
 * it.
 * @throws HttpProblem 429 when too many are open
 */
export function stream(request: Request, response: Response, sessions: SessionWatch): Stream {
  const address = request.ip ?? '';
  const open = openOf.get(sessions) ?? new Map<string, number>();
  openOf.set(sessions, open);
  if ((open.get(address) ?? 0) >= mostPerAddress || all(open) >= mostInAll)
    throw new HttpProblem(429, 'too-many-streams', 'Too many screens follow the server already; close some');
  open.set(address, (open.get(address) ?? 0) + 1);
  const abort = new AbortController();
  response.set({
    'content-type': 'text/event-stream',
    'cache-control': 'no-store',
    connection: 'keep-alive',
    'x-accel-buffering': 'no',
  });
  response.flushHeaders();
  const write = (text: string) => {
    if (response.writableEnded || response.destroyed) return;
    response.write(text);
    if (response.writableLength > mostUnreadBytes) response.destroy();
  };
  const beat = setInterval(() => write(': here\n\n'), beatMilliseconds);
  response.on('close', () => {
    clearInterval(beat);
    const left = (open.get(address) ?? 1) - 1;
    if (left === 0) open.delete(address);
    else open.set(address, left);
    abort.abort();
  });
  sessions.endOf(request, abort.signal).addEventListener('abort', () => response.end());
  return { send: (event) => write(`data: ${JSON.stringify(event)}\n\n`), closed: abort.signal };
}
