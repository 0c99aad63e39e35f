import { takesAway } from '@fairwatt/core';
import { mostActsTogether } from '@fairwatt/contract';
import type { Connection } from './connection.ts';
import type { Answer, Post, Problematic, Together } from './delivery.ts';
import { nextTogether, outbox, type DoneParcel, type OutboxState } from './outbox.ts';
import type { Parcel, Refused } from './parcel.ts';

/** Typing pauses this long before it is sealed. */
export const settleMilliseconds = 350;
/** A draft whose tab was closed in the middle is sealed by the sender after this time. */
export const orphanMilliseconds = 5000;
export const retryMilliseconds = 1500;
/** What waits for its person is tried again after this time: the person may have signed in at another tab. */
export const heldMilliseconds = 30_000;
/** After so many failures over the same parcel, somebody has to decide about it. */
export const mostFailures = 3;

type Done = Extract<Answer, { kind: 'done' }>;

/** What the sender stands on, so that it can be tried with another clock and another server. */
export interface SenderParts {
  readonly state: () => OutboxState;
  readonly dispatch: (action: { readonly type: string }) => void;
  readonly post: Post;
  readonly now: () => number;
  /** Calls back after a time; the answer calls it off. */
  readonly later: (work: () => void, milliseconds: number) => () => void;
  readonly connection: (state: Connection) => void;
  /** Nobody is signed in, or somebody else than whoever made it: it is kept until its person is in. */
  readonly held: () => void;
  /**
   * Parcels are done; they leave the outbox right after, so that nobody sees the old state in between, and each screen
   * is drawn once.
   */
  readonly delivered: (parcels: readonly Parcel[], done: readonly DoneParcel[], answer: Done) => void;
  /** The job as the server has it came with a refusal. */
  readonly learned: (answer: Problematic) => void;
  /** How long to wait for a server that is away; one and a half seconds where it is not said. */
  readonly retryAfterMilliseconds?: number;
  /** Seals a draft as it is kept, and answers it; null when it is not kept. */
  readonly seal: (id: string) => Promise<Parcel | null>;
}

/** The version of what a parcel was about, once it is done. */
const versionAfter = (parcel: Parcel, revision: number): number =>
  parcel.kind === 'act' && takesAway(parcel.act) ? 0 : revision;

const textOf = ({ problem }: Problematic): string => {
  const details = (problem.errors ?? []).map((error) => `${error.path}: ${error.message}`).join('; ');
  return details === '' ? problem.title : `${problem.title} (${details})`;
};

function refusedBy(answer: Problematic): Refused {
  const { refusal, current, problem } = answer;
  return refusal?.code === 'stale' && current !== null
    ? {
        kind: 'conflict',
        title: problem.title,
        current: refusal.current,
        theirs: current,
        changed: problem.changed ?? null,
      }
    : { kind: 'other', title: textOf(answer) };
}

/**
 * Sends sealed parcels in their order, acts of one person on one job together, again and again until the server
 * answers.
 * What has been sent once is never changed; what the server cannot take does not stop what stands behind it.
 */
export class Sender {
  private busy = false;
  private stopped = false;
  private planned: (() => void) | null = null;
  /** Parcels of people who are not signed in. */
  private readonly held = new Set<string>();
  /** So many are sent alone: one of them, nobody knows which, is not taken together with the others. */
  private alone = 0;
  private readonly parts: SenderParts;

  constructor(parts: SenderParts) {
    this.parts = parts;
  }

  /** Looks for work after a time; an earlier plan is called off. */
  wake(milliseconds = 0): void {
    this.planned?.();
    this.planned = this.parts.later(() => {
      this.planned = null;
      void this.work();
    }, milliseconds);
  }

  /** Somebody signed in: what waited for a person is tried again. */
  release(): void {
    if (this.held.size === 0) return;
    this.held.clear();
    this.wake();
  }

  stop(): void {
    this.stopped = true;
    this.planned?.();
  }

  /** Drafts of tabs that are gone. */
  private async sealOrphans(): Promise<void> {
    const old = this.parts.now() - orphanMilliseconds;
    for (const parcel of this.parts.state().parcels)
      if (parcel.state === 'draft' && Date.parse(parcel.at) < old) {
        const sealed = await this.parts.seal(parcel.id);
        // One that a tab without storage told of is nowhere but here.
        this.parts.dispatch(sealed === null ? outbox.seal(parcel.id) : outbox.put(sealed));
      }
  }

  /** Sends the next parcel, and plans to go on. */
  async work(): Promise<void> {
    if (this.busy || this.stopped) return;
    this.busy = true;
    try {
      await this.sealOrphans();
      const parcels = nextTogether(this.parts.state(), this.held, this.alone > 0 ? 1 : mostActsTogether);
      if (parcels === null) {
        if (this.parts.state().parcels.some((item) => item.state === 'draft')) this.wake(orphanMilliseconds);
        return;
      }
      this.parts.dispatch(outbox.sending(parcels[0].id));
      const answer = await this.parts.post(parcels);
      this.settle(parcels, answer);
    } finally {
      this.busy = false;
    }
  }

  private settle(parcels: Together, answer: Answer): void {
    const { dispatch, connection } = this.parts;
    if (answer.kind !== 'away') this.alone = parcels.length > 1 ? 0 : Math.max(0, this.alone - 1);
    switch (answer.kind) {
      case 'done':
        connection('here');
        this.done(parcels, answer);
        this.wake();
        break;
      case 'away':
        connection(answer.full === true ? 'full' : 'away');
        dispatch(outbox.sending(null));
        this.wake(this.parts.retryAfterMilliseconds ?? retryMilliseconds);
        break;
      case 'held':
        connection('here');
        if (this.held.size === 0) this.parts.later(() => this.release(), heldMilliseconds);
        for (const parcel of parcels) this.held.add(parcel.id);
        this.parts.held();
        dispatch(outbox.sending(null));
        this.wake();
        break;
      case 'failed':
        dispatch(outbox.sending(null));
        if (parcels.length > 1) this.oneByOne(parcels);
        else this.failed(parcels[0]);
        break;
      case 'problem':
        connection('here');
        dispatch(outbox.sending(null));
        if (parcels.length > 1) {
          this.oneByOne(parcels);
          break;
        }
        this.refused(parcels[0], answer);
        this.wake();
    }
  }

  private done(parcels: Together, answer: Done): void {
    const through = parcels.slice(0, answer.revisions.length);
    const done = through.map((parcel, index) => ({
      id: parcel.id,
      version: versionAfter(parcel, answer.revisions[index] ?? 0),
    }));
    this.parts.delivered(through, done, answer);
    this.parts.dispatch(outbox.confirmed(done));
    this.parts.dispatch(outbox.sending(null));
    const next = parcels[through.length];
    if (answer.stop !== null && next !== undefined) this.refused(next, answer.stop);
  }

  private oneByOne(parcels: Together): void {
    this.alone = parcels.length;
    this.wake();
  }

  private failed(parcel: Parcel): void {
    const { dispatch } = this.parts;
    dispatch(outbox.failed(parcel.id));
    if (parcel.failures + 1 >= mostFailures)
      dispatch(
        outbox.refused({
          id: parcel.id,
          refused: { kind: 'other', title: 'The server fails over this; everything else goes on' },
        }),
      );
    this.wake(retryMilliseconds);
  }

  private refused(parcel: Parcel, answer: Problematic): void {
    this.parts.learned(answer);
    this.parts.dispatch(outbox.refused({ id: parcel.id, refused: refusedBy(answer) }));
  }
}
