import { describe, expect, it } from 'vitest';
import type { ChangeMessage } from '@fairwatt/contract';
import { followServer, retryMilliseconds } from './live-updates.ts';

/** A server that takes a line while somebody is in, and the screen's own idea of who that is. */
function bench() {
  const asked: string[] = [];
  const lines: { readyState: number; onopen: unknown; onerror: unknown; onmessage: unknown }[] = [];
  const waiting = new Map<object, { work: () => void; milliseconds: number }>();
  const shown = { nobodyIn: false };
  const here = { revision: 4 };
  /** What waits for an answer that is on its way; null where none is. */
  let underWay: (() => void)[] | null = null;
  const call = (handler: unknown, message?: unknown) => (handler as (event: unknown) => void)(message);
  const reopen = followServer({
    changed: (tags, code) => asked.push(...tags, ...(code === null ? [] : [code])),
    known: () => here.revision,
    whenAnswered: (_code, then) => {
      if (underWay === null) then();
      else underWay.push(then);
    },
    nobodyIn: () => shown.nobodyIn,
    line: () => {
      const line = { readyState: 0, onopen: null, onerror: null, onmessage: null };
      lines.push(line);
      return line;
    },
    later: (work, milliseconds) => {
      const key = {};
      waiting.set(key, { work, milliseconds });
      return () => waiting.delete(key);
    },
  });
  const last = () => lines.at(-1)!;
  return {
    shown,
    sends: () => {
      underWay = [];
    },
    answered: (revision: number) => {
      here.revision = revision;
      for (const then of underWay ?? []) then();
      underWay = null;
    },
    reopen,
    lines: () => lines.length,
    waiting: () => [...waiting.values()].map(({ milliseconds }) => milliseconds),
    asked: () => asked.splice(0),
    taken: () => call(last().onopen),
    refused: () => {
      last().readyState = 2;
      call(last().onerror);
    },
    broken: () => {
      last().readyState = 0;
      call(last().onerror);
    },
    retry: () => {
      const [key, { work }] = [...waiting][0]!;
      waiting.delete(key);
      work();
    },
    says: (message: Partial<ChangeMessage>) =>
      call(last().onmessage, { data: JSON.stringify({ code: null, revision: null, ...message }) }),
  };
}

describe('following the server', () => {
  it('looks who is in when the line is refused, and tries again', () => {
    const one = bench();
    one.refused();
    expect([one.asked(), one.waiting()]).toEqual([['access'], [retryMilliseconds]]);
  });
  it('does not look again while the screen shows that nobody is in', () => {
    const one = bench();
    one.refused();
    one.shown.nobodyIn = true;
    one.asked();
    one.retry();
    one.refused();
    expect([one.asked(), one.waiting()]).toEqual([[], [retryMilliseconds]]);
  });
  it('sees that somebody came in and was signed out again between two tries', () => {
    const one = bench();
    one.refused();
    one.shown.nobodyIn = true;
    one.asked();
    one.shown.nobodyIn = false;
    one.retry();
    one.refused();
    expect(one.asked()).toEqual(['access']);
  });
  it('opens a refused line at once when somebody signs in, and only that', () => {
    const one = bench();
    one.reopen();
    expect(one.lines()).toBe(1);
    one.refused();
    one.reopen();
    expect([one.lines(), one.waiting()]).toEqual([2, []]);
    one.taken();
    one.reopen();
    expect(one.lines()).toBe(2);
  });
  it('leaves a line that merely broke to the browser, and looks at everything when it stands again', () => {
    const one = bench();
    one.taken();
    expect(one.asked()).toEqual([]);
    one.broken();
    expect([one.asked(), one.waiting(), one.lines()]).toEqual([[], [], 1]);
    one.taken();
    expect(one.asked()).toEqual(expect.arrayContaining(['job', 'jobs', 'supplies', 'access', 'record']));
  });
  it('fetches what changed, but not the job whose answer is here', () => {
    const one = bench();
    one.taken();
    one.says({ topic: 'supplies' });
    expect(one.asked()).toEqual(['supplies', 'units', 'parts']);
    one.says({ topic: 'job', code: 'FS-1', revision: 4 });
    expect(one.asked()).toEqual(['jobs']);
    one.says({ topic: 'job', code: 'FS-1', revision: 5 });
    expect(one.asked()).toEqual(['jobs', 'FS-1']);
  });
  it('waits for the answer to an own act, which is often told of before it is here', () => {
    const one = bench();
    one.taken();
    one.sends();
    one.says({ topic: 'job', code: 'FS-1', revision: 5 });
    expect(one.asked()).toEqual([]);
    one.answered(5);
    expect(one.asked()).toEqual(['jobs']);
    one.sends();
    one.says({ topic: 'job', code: 'FS-1', revision: 7 });
    one.answered(6);
    expect(one.asked()).toEqual(['jobs', 'FS-1']);
  });
});
