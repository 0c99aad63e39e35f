import { randomUUID } from 'node:crypto';
import type { Act, Job } from '@fairwatt/core';
import { postTo } from '../../../web/src/offline/delivery.ts';
import { emptyOutbox, nextTogether, outbox, outboxReducer, type OutboxState } from '../../../web/src/offline/outbox.ts';
import { nextOrder, thisTab } from '../../../web/src/offline/parcel.ts';
import { Sender, settleMilliseconds } from '../../../web/src/offline/sender.ts';
import { within } from '../../../web/src/offline/patience.ts';
import { wait } from '../../command.ts';

/** So many acts go into one job before the next is made. */
const actsInJob = 150;
const mostUnsent = 12;

/** What one person did, as he remembers it. */
export interface Done {
  readonly code: string;
  readonly notes: string[];
  readonly confirmed: Set<string>;
  words: string;
}

/** A person at a screen: the screen's own outbox and sender, over a rough line to a server that dies. */
export class Writer {
  readonly jobs: Done[] = [];
  refused = 0;
  private state: OutboxState = emptyOutbox;
  private seen: Job | null = null;
  private stopped = false;
  private readonly sender: Sender;
  private readonly base: string;
  private readonly by: string;
  private readonly random: () => number;

  constructor(base: string, by: string, random: () => number) {
    this.base = base;
    this.by = by;
    this.random = random;
    this.sender = new Sender({
      state: () => this.state,
      dispatch: (action) => this.dispatch(action),
      post: postTo(base),
      now: () => Date.now(),
      later: (work, milliseconds) => {
        const timer = setTimeout(work, milliseconds);
        return () => clearTimeout(timer);
      },
      connection: () => undefined,
      held: () => undefined,
      retryAfterMilliseconds: 150,
      delivered: (parcels, _done, { job }) => {
        if (job !== null && (this.seen === null || job.code !== this.seen.code || job.revision > this.seen.revision))
          if (job.code === this.seen?.code) this.seen = job;
        for (const parcel of parcels)
          if (parcel.kind === 'act' && parcel.act.kind === 'note-outcome')
            this.jobs.find((one) => one.code === parcel.code)?.confirmed.add(parcel.act.id);
      },
      learned: ({ current }) => {
        this.refused += 1;
        if (current !== null && current.code === this.seen?.code) this.seen = current;
      },
      seal: (id) => {
        this.dispatch(outbox.seal(id));
        return Promise.resolve(this.state.parcels.find((parcel) => parcel.id === id) ?? null);
      },
    });
  }

  get unsent(): number {
    return this.state.parcels.length;
  }

  private dispatch(action: { readonly type: string }): void {
    this.state = outboxReducer(this.state, action);
    if (this.state.sending === null && this.state.parcels.some((parcel) => parcel.state === 'waiting'))
      this.sender.wake(20);
  }

  /** A new job, asked for with one id until it is there. */
  private async newJob(): Promise<void> {
    const message = { id: randomUUID(), by: this.by, title: `Drill of ${this.by}`, client: '', words: '' };
    for (;;) {
      const answer = await within(
        10_000,
        `${this.base}/jobs`,
        { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(message) },
        async (response) => (response.ok ? ((await response.json()) as Job) : null),
      ).catch(() => null);
      if (answer !== null) {
        this.seen = answer;
        this.jobs.push({ code: answer.code, notes: [], confirmed: new Set(), words: '' });
        return;
      }
      await wait(300);
    }
  }

  private do(act: Act): void {
    const now = Date.now();
    if (this.seen === null) throw new Error('no job yet');
    this.dispatch(
      outbox.did({
        ids: [randomUUID(), randomUUID()],
        code: this.seen.code,
        by: this.by,
        at: new Date(now).toISOString(),
        tab: thisTab,
        order: nextOrder(now),
        act,
        seen: this.seen,
      }),
    );
  }

  private seal(): void {
    for (const parcel of this.state.parcels) if (parcel.state === 'draft') this.dispatch(outbox.seal(parcel.id));
  }

  /** Works until told to stop, never far ahead of what is confirmed. */
  async work(): Promise<void> {
    while (!this.stopped) {
      const job = this.jobs.at(-1);
      if (job === undefined || job.notes.length >= actsInJob) {
        await this.drained();
        await this.newJob();
        continue;
      }
      if (this.unsent >= mostUnsent) {
        await wait(50);
        continue;
      }
      if (this.random() < 0.3) {
        job.words = `${this.by} ${job.notes.length} ${Math.floor(this.random() * 1e6)}`;
        this.do({ kind: 'edit-sheet', changes: { words: job.words }, basedOn: 0 });
        if (this.random() < 0.6) await wait(settleMilliseconds);
        if (this.random() < 0.8) this.seal();
      } else {
        const id = randomUUID();
        job.notes.push(id);
        this.do({ kind: 'note-outcome', id, checkId: `told-button`, outcomeId: 'nothing' });
      }
      await wait(this.random() * 60);
    }
  }

  stop(): void {
    this.stopped = true;
  }

  /** Waits until everything is confirmed or refused, or waits behind what is refused. */
  async drained(): Promise<void> {
    for (;;) {
      this.seal();
      if (this.state.sending === null && nextTogether(this.state) === null) return;
      this.sender.wake();
      await wait(200);
    }
  }
}
