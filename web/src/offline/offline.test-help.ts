import { applyAct, newJob, subjectOf, withBase, type Act, type ActContext, type Job } from '@fairwatt/core';
import type { Connection } from './connection.ts';
import type { Answer, Post, Problematic } from './delivery.ts';
import { emptyOutbox, outbox, outboxReducer, type OutboxState } from './outbox.ts';
import { nextOrder, thisTab, type ActParcel, type Parcel } from './parcel.ts';
import { Sender, settleMilliseconds } from './sender.ts';

export const knows: ActContext['knows'] = {
  instrument: () => true,
  supply: () => true,
  fault: () => true,
  outcome: () => true,
};
export const startingJob = (): Job =>
  newJob('LQ-0001', 'Machine', 'Client', 'Words', 'peaks-covered', '2026-01-01T00:00:00.000Z');
export const edit = (changes: Extract<Act, { kind: 'edit-sheet' }>['changes']): Act => ({
  kind: 'edit-sheet',
  changes,
  basedOn: 0,
});

/** A clock that stands still until it is told to go on. */
export class FakeClock {
  now = 0;
  private timers: { at: number; work: () => void }[] = [];
  later = (work: () => void, milliseconds: number): (() => void) => {
    const timer = { at: this.now + milliseconds, work };
    this.timers.push(timer);
    return () => {
      this.timers = this.timers.filter((other) => other !== timer);
    };
  };
  async pass(milliseconds: number): Promise<void> {
    const until = this.now + milliseconds;
    for (;;) {
      await settled();
      const [next] = this.timers.filter((timer) => timer.at <= until).sort((a, b) => a.at - b.at);
      if (next === undefined) break;
      this.timers = this.timers.filter((timer) => timer !== next);
      this.now = next.at;
      next.work();
    }
    this.now = until;
    await settled();
  }
}
export const settled = async () => {
  for (let turn = 0; turn < 20; turn += 1) await Promise.resolve();
};

/** The server's side, by the rules of the real one: each id once, with the content it came with. */
export class FakeServer {
  job = startingJob();
  /** `lost`: done, but the answer never comes. */
  mood: 'well' | 'away' | 'lost' | 'failing' = 'well';
  readonly failOn = new Set<string>();
  /** Who is signed in; null where nobody has to be. */
  person: string | null = null;
  readonly done = new Map<string, { content: string; revision: number }>();
  readonly arrived: string[] = [];
  private serial = 0;

  /** Somebody else changes something. */
  other(act: Act): void {
    const result = applyAct(this.job, withBase(act, this.versionOf(act)), this.context('joss'));
    if (!result.ok) throw new Error(JSON.stringify(result.refusal));
    this.job = result.job;
  }
  private versionOf(act: Act): number {
    return subjectOf(act) === 'sheet' ? this.job.sheet.version : 0;
  }
  private context(by: string): ActContext {
    this.serial += 1;
    return {
      by,
      at: new Date(Date.UTC(2026, 0, 1, 0, 0, this.serial)).toISOString(),
      knows,
      unansweredPoints: () => 0,
    };
  }

  post: Post = (parcels) => Promise.resolve(parcels.length === 1 ? this.answer(parcels[0]) : this.together(parcels));

  /** Acts that came together: in their order, up to the first that is refused; all or none where the server fails. */
  private together(parcels: readonly Parcel[]): Answer {
    if (this.mood === 'away') return { kind: 'away' };
    if (this.mood === 'failing' || parcels.some(({ id }) => this.failOn.has(id))) return { kind: 'failed' };
    if (this.person !== null && parcels.some(({ by }) => by !== this.person)) return { kind: 'held' };
    if (new Set(parcels.map(({ by, code }) => `${by} ${code}`)).size > 1) throw new Error('not of one person and job');
    const revisions: number[] = [];
    let stop: Problematic | null = null;
    for (const parcel of parcels) {
      const answer = this.one(parcel);
      if (answer.kind === 'problem') stop = answer;
      if (answer.kind !== 'done') break;
      revisions.push(...answer.revisions);
    }
    if (this.mood === 'lost') return { kind: 'away' };
    return { kind: 'done', job: this.job, revisions, body: null, stop };
  }

  private answer(parcel: Parcel): Answer {
    if (this.mood === 'away') return { kind: 'away' };
    if (this.mood === 'failing' || this.failOn.has(parcel.id)) return { kind: 'failed' };
    if (this.person !== null && parcel.by !== this.person) return { kind: 'held' };
    const answer = this.one(parcel);
    return this.mood === 'lost' && answer.kind === 'done' && parcel.kind === 'act' ? { kind: 'away' } : answer;
  }

  private one(parcel: Parcel): Answer {
    this.arrived.push(parcel.id);
    if (parcel.kind !== 'act') return { kind: 'done', job: null, revisions: [0], body: null, stop: null };
    const act = withBase(parcel.act, parcel.base.at === 'seen' ? parcel.base.version : -1);
    const content = JSON.stringify([parcel.by, act]);
    const earlier = this.done.get(parcel.id);
    if (earlier !== undefined && earlier.content !== content)
      return this.problem({ type: '/problems/id-taken', title: 'id taken', status: 409 });
    if (earlier === undefined) {
      const result = applyAct(this.job, act, this.context(parcel.by));
      if (!result.ok)
        return {
          kind: 'problem',
          problem: { type: `/problems/${result.refusal.code}`, title: 'refused', status: 409 },
          refusal: result.refusal,
          current: this.job,
        };
      this.job = result.job;
      this.done.set(parcel.id, { content, revision: this.job.revision });
    }
    const revisions = [this.done.get(parcel.id)?.revision ?? 0];
    return { kind: 'done', job: this.job, revisions, body: null, stop: null };
  }
  private problem(problem: { type: string; title: string; status: number }): Answer {
    return { kind: 'problem', problem, refusal: null, current: null };
  }
}

/** One tab on a fake clock and a fake server. */
export class FakeTab {
  state: OutboxState = emptyOutbox;
  connection: Connection = 'here';
  /** So often it was told that something waits for its person. */
  askedWhoIsIn = 0;
  /** The job as this tab last heard of it. */
  seen = startingJob();
  readonly clock: FakeClock;
  readonly server: FakeServer;
  readonly sender: Sender;
  private serial = 0;

  constructor(server = new FakeServer(), clock = new FakeClock()) {
    this.server = server;
    this.clock = clock;
    this.sender = new Sender({
      state: () => this.state,
      dispatch: (action) => this.dispatch(action),
      post: (parcels) => server.post(parcels),
      now: () => clock.now,
      later: clock.later,
      connection: (state) => {
        this.connection = state;
      },
      held: () => {
        this.askedWhoIsIn += 1;
      },
      delivered: (_parcels, _done, { job }) => {
        if (job !== null && job.revision >= this.seen.revision) this.seen = job;
      },
      learned: ({ current }) => {
        if (current !== null) this.seen = current;
      },
      seal: (id) => {
        this.dispatch(outbox.seal(id));
        return Promise.resolve(this.state.parcels.find((parcel) => parcel.id === id) ?? null);
      },
    });
  }

  dispatch(action: { readonly type: string }): void {
    this.state = outboxReducer(this.state, action);
    if (this.state.parcels.some((parcel) => parcel.state === 'waiting') && this.state.sending === null)
      this.sender.wake(this.connection === 'away' ? 1500 : 0);
  }

  newId(): string {
    this.serial += 1;
    return `00000000-0000-4000-8000-${String(this.serial).padStart(12, '0')}`;
  }

  do(act: Act, by = 'mara'): this {
    const at = new Date(this.clock.now).toISOString();
    const ids = [this.newId(), this.newId()] as const;
    this.dispatch(
      outbox.did({
        ids,
        code: 'LQ-0001',
        by,
        at,
        tab: thisTab,
        order: nextOrder(this.clock.now),
        act,
        seen: this.seen,
      }),
    );
    return this;
  }

  /** A pause in the typing. */
  async pause(): Promise<void> {
    await this.clock.pass(settleMilliseconds);
    for (const parcel of this.state.parcels) if (parcel.state === 'draft') this.dispatch(outbox.seal(parcel.id));
    await this.clock.pass(0);
  }

  get acts(): ActParcel[] {
    return this.state.parcels.filter((parcel): parcel is ActParcel => parcel.kind === 'act');
  }
}
