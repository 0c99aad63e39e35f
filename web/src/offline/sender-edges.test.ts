import { describe, expect, it } from 'vitest';
import type { Act } from '@fairwatt/core';
import type { Connection } from './connection.ts';
import type { Answer } from './delivery.ts';
import { edit, FakeClock, settled, startingJob } from './offline.test-help.ts';
import { emptyOutbox, outbox, outboxReducer, type OutboxState } from './outbox.ts';
import type { ActParcel, Parcel } from './parcel.ts';
import { heldMilliseconds, mostFailures, orphanMilliseconds, retryMilliseconds, Sender } from './sender.ts';

const start = '2026-01-01T00:00:00.000Z';
const note = (id: string): Act => ({ kind: 'note-outcome', id, checkId: 'look-dust', outcomeId: 'clean' });
const parcel = (id: string, more: Partial<ActParcel> = {}): ActParcel => ({
  kind: 'act',
  id,
  code: 'LQ-0001',
  by: 'mara',
  at: start,
  tab: 'here',
  order: Number(id.slice(1)),
  act: note(id),
  base: { at: 'seen', version: 0 },
  state: 'waiting',
  refused: null,
  failures: 0,
  ...more,
});

/** A sender over a server that answers as it is told; nothing wakes it but itself and the test. */
class Bench {
  state: OutboxState;
  readonly clock = new FakeClock();
  readonly sent: string[][] = [];
  readonly connections: Connection[] = [];
  readonly waits: number[] = [];
  held = 0;
  learned = 0;
  /** What was left in the outbox by the time that screens could be drawn, after each answer that came through. */
  readonly leftWhenDrawn: string[][] = [];
  /** What the server answers next; done by itself where nothing is said. */
  readonly answers: (Answer | null)[] = [];
  /** What a draft is kept as; itself where nothing is said. */
  kept: (found: Parcel) => Parcel | null = (found) => found;
  readonly sender: Sender;

  constructor(parcels: readonly Parcel[], retryAfterMilliseconds?: number) {
    this.state = { ...emptyOutbox, parcels };
    this.clock.now = Date.parse(start);
    this.sender = new Sender({
      state: () => this.state,
      dispatch: (action) => {
        this.state = outboxReducer(this.state, action);
      },
      post: (together) => {
        this.sent.push(together.map(({ id }) => id));
        const revisions = together.map(() => 7);
        return Promise.resolve(
          this.answers.shift() ?? { kind: 'done', job: startingJob(), revisions, body: null, stop: null },
        );
      },
      now: () => this.clock.now,
      later: (work, milliseconds) => {
        this.waits.push(milliseconds);
        return this.clock.later(work, milliseconds);
      },
      connection: (state) => this.connections.push(state),
      held: () => {
        this.held += 1;
      },
      delivered: () => {
        queueMicrotask(() => this.leftWhenDrawn.push(this.state.parcels.map(({ id }) => id)));
      },
      learned: () => {
        this.learned += 1;
      },
      ...(retryAfterMilliseconds !== undefined && { retryAfterMilliseconds }),
      seal: (id) => Promise.resolve(this.kept(this.state.parcels.find((one) => one.id === id)!)),
    });
  }
  async goOn(milliseconds = 0): Promise<void> {
    this.sender.wake();
    await this.clock.pass(milliseconds);
    await settled();
  }
  get lengths(): number[] {
    return this.sent.map((ids) => ids.length);
  }
  get parcels(): ActParcel[] {
    return this.state.parcels as ActParcel[];
  }
}

type Problem = Extract<Answer, { kind: 'problem' }>;
const problem = (more: Partial<Problem> = {}): Problem => ({
  kind: 'problem',
  problem: { type: '/problems/invalid', title: 'It is not valid', status: 422 },
  refusal: null,
  current: null,
  ...more,
});
const stale = { code: 'stale' as const, current: 4 };

describe('what the server has done', () => {
  it('leaves the outbox before any screen can be drawn with the answer and the act both', async () => {
    const bench = new Bench([parcel('p1'), parcel('p2', { by: 'joss' }), parcel('p3', { by: 'mara' })]);
    await bench.goOn();
    expect(bench.leftWhenDrawn).toEqual([['p2', 'p3'], ['p3'], []]);
  });
});

describe('what the server will not take', () => {
  it('is told with each field that it names', async () => {
    const errors = [
      { path: 'act.words', message: 'too long' },
      { path: 'by', message: 'nobody' },
    ];
    const bench = new Bench([parcel('p1'), parcel('p2', { by: 'joss' })]);
    bench.answers.push(
      problem({ problem: { type: '/problems/invalid', title: 'It is not valid', status: 422, errors } }),
      problem(),
    );
    await bench.goOn();
    expect(bench.parcels.map(({ refused }) => refused)).toEqual([
      { kind: 'other', title: 'It is not valid (act.words: too long; by: nobody)' },
      { kind: 'other', title: 'It is not valid' },
    ]);
    expect([bench.learned, bench.state.sending, bench.connections]).toEqual([2, null, ['here', 'here']]);
  });
  it('is a question only where it was typed over something older, and what stands now came along', async () => {
    const job = startingJob();
    const changed = { by: 'joss', at: start };
    const bench = new Bench(['p1', 'p2', 'p3', 'p4'].map((id) => parcel(id, { by: id })));
    bench.answers.push(
      problem({ refusal: stale as never, current: job }),
      problem({
        refusal: stale as never,
        current: job,
        problem: { type: '/problems/stale', title: 'Changed', status: 409, changed },
      }),
      problem({ refusal: stale as never }),
      problem({ refusal: { code: 'closed' } as never, current: job }),
    );
    await bench.goOn();
    expect(bench.parcels.map(({ refused }) => refused)).toEqual([
      { kind: 'conflict', title: 'It is not valid', current: 4, theirs: job, changed: null },
      { kind: 'conflict', title: 'Changed', current: 4, theirs: job, changed },
      { kind: 'other', title: 'It is not valid' },
      { kind: 'other', title: 'It is not valid' },
    ]);
  });
  it('is looked for one by one where it came with others', async () => {
    const bench = new Bench([parcel('p1'), parcel('p2'), parcel('p3')]);
    bench.answers.push(problem(), null, problem());
    await bench.goOn();
    expect(bench.sent).toEqual([['p1', 'p2', 'p3'], ['p1'], ['p2'], ['p3']]);
    expect(bench.parcels).toMatchObject([{ id: 'p2', state: 'refused' }]);
    // As many as came together went alone; what comes then goes together again.
    for (const id of ['p4', 'p5']) bench.state = outboxReducer(bench.state, outbox.put(parcel(id)));
    await bench.goOn();
    expect(bench.sent.at(-1)).toEqual(['p4', 'p5']);
  });
  it('by a failure waits a little, three times, and is then for somebody to decide', async () => {
    const bench = new Bench([parcel('p1')]);
    bench.answers.push(...Array.from({ length: mostFailures }, (): Answer => ({ kind: 'failed' })));
    await bench.goOn(retryMilliseconds);
    expect([bench.lengths.length, bench.parcels[0]!.state, bench.parcels[0]!.failures]).toEqual([2, 'waiting', 2]);
    await bench.clock.pass(retryMilliseconds);
    expect(bench.parcels[0]).toMatchObject({
      state: 'refused',
      refused: { kind: 'other', title: 'The server fails over this; everything else goes on' },
    });
    await bench.clock.pass(10 * retryMilliseconds);
    expect([bench.lengths.length, bench.state.sending]).toEqual([mostFailures, null]);
  });
});

describe('a server that is away', () => {
  it('is asked again after its time, and what goes alone still goes alone then', async () => {
    const bench = new Bench([parcel('p1'), parcel('p2')], 400);
    bench.answers.push({ kind: 'failed' }, { kind: 'away' }, { kind: 'away' });
    await bench.goOn();
    expect([bench.lengths, bench.connections, bench.state.sending]).toEqual([[2, 1], ['away'], null]);
    await bench.clock.pass(399);
    expect(bench.lengths).toEqual([2, 1]);
    await bench.clock.pass(401);
    expect([bench.lengths, bench.state.parcels]).toEqual([[2, 1, 1, 1, 1], []]);
    expect(bench.connections).toEqual(['away', 'away', 'here', 'here']);
  });
  it('because its disk is full says that', async () => {
    const bench = new Bench([parcel('p1')]);
    bench.answers.push({ kind: 'away', full: true });
    await bench.goOn();
    expect([bench.connections, bench.waits.at(-1)]).toEqual([['full'], retryMilliseconds]);
  });
});

describe('what waits for its person', () => {
  it('waits once for all of it, and the server is here', async () => {
    const bench = new Bench([parcel('p1'), parcel('p2', { by: 'joss' })]);
    bench.answers.push({ kind: 'held' }, { kind: 'held' });
    await bench.goOn();
    expect([bench.held, bench.connections, bench.state.sending]).toEqual([2, ['here', 'here'], null]);
    expect(bench.waits.filter((wait) => wait === heldMilliseconds)).toHaveLength(1);
    await bench.clock.pass(heldMilliseconds);
    expect(bench.state.parcels).toEqual([]);
  });
  it('is nothing where nothing waits: nobody is woken', () => {
    const bench = new Bench([]);
    bench.sender.release();
    expect(bench.waits).toEqual([]);
  });
});

describe('drafts', () => {
  const draft = (id: string, at = start) => parcel(id, { state: 'draft', at, act: edit({ words: id }) });
  it('of tabs that are gone are sealed as they are kept', async () => {
    const bench = new Bench([draft('p1')]);
    bench.kept = (found) => ({ ...found, state: 'waiting', act: edit({ words: 'as kept' }) }) as Parcel;
    bench.answers.push({ kind: 'away' });
    await bench.goOn(2 * orphanMilliseconds);
    expect([bench.sent, bench.parcels[0]!.act]).toEqual([[['p1']], edit({ words: 'as kept' })]);
    await bench.clock.pass(retryMilliseconds);
    expect([bench.lengths, bench.state.parcels]).toEqual([[1, 1], []]);
  });
  it('that are kept nowhere are sealed where they are', async () => {
    const bench = new Bench([draft('p1')]);
    bench.kept = () => null;
    await bench.goOn(2 * orphanMilliseconds);
    expect([bench.sent, bench.state.parcels]).toEqual([[['p1']], []]);
  });
  it('are looked at again later; where none is, nothing is planned', async () => {
    const fresh = new Bench([draft('p1')]);
    await fresh.goOn();
    expect(fresh.waits).toEqual([0, orphanMilliseconds]);
    const refused = new Bench([parcel('p1', { state: 'refused' })]);
    await refused.goOn();
    expect(refused.waits).toEqual([0]);
    // One that grows and others that are refused: the one is enough.
    const both = new Bench([parcel('p1', { state: 'refused' }), draft('p2')]);
    await both.goOn();
    expect(both.waits).toEqual([0, orphanMilliseconds]);
  });
});

describe('stopping', () => {
  it('sends nothing more, whatever was planned', async () => {
    const bench = new Bench([parcel('p1')]);
    bench.sender.wake(100);
    bench.sender.stop();
    await bench.clock.pass(1000);
    await bench.sender.work();
    expect(bench.sent).toEqual([]);
    new Bench([]).sender.stop();
  });
  it('calls an earlier plan off for a later one', async () => {
    const bench = new Bench([parcel('p1')]);
    bench.sender.wake(100);
    bench.sender.wake(500);
    await bench.clock.pass(400);
    expect(bench.sent).toEqual([]);
    await bench.clock.pass(100);
    expect(bench.sent).toEqual([['p1']]);
  });
});
