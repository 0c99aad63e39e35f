import { takesAway } from '@fairwatt/core';
import type { Connection } from './connection.ts';
import type { Answer, Post } from './delivery.ts';
import { nextToSend, outbox, type OutboxState } from './outbox.ts';
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

/** What the sender stands on, so that it can be tried with another clock and another server. */
export interface SenderParts {
  readonly state: () => OutboxState;
  readonly dispatch: (action: { readonly type: string }) => void;
  readonly post: Post;
  readonly now: () => number;
  /** Calls back after a time; the answer calls it off. */
  readonly later: (work: () => void, milliseconds: number) => () => void;
  readonly connection: (state: Connection) => void;
  /** A parcel is done; settled before it leaves the outbox, so that nobody sees the old state in between. */
  readonly delivered: (parcel: Parcel, answer: Extract<Answer, { kind: 'done' }>) => Promise<void>;
  /** The job as the server has it came with a refusal. */
  readonly learned: (parcel: Parcel, answer: Extract<Answer, { kind: 'problem' }>) => Promise<void>;
  /** How long to wait for a server that is away; one and a half seconds where it is not said. */
  readonly retryAfterMilliseconds?: number;
  /** Seals a draft as it is kept, and answers it; null when it is not kept. */
  readonly seal: (id: string) => Promise<Parcel | null>;
}

/** The version of what a parcel was about, once it is done. */
export const versionAfter = (parcel: Parcel, revision: number): number =>
  parcel.kind === 'act' && takesAway(parcel.act) ? 0 : revision;

const textOf = ({ problem }: Extract<Answer, { kind: 'problem' }>): string => {
  const details = (problem.errors ?? []).map((error) => `${error.path}: ${error.message}`).join('; ');
  return details === '' ? problem.title : `${problem.title} (${details})`;
};

function refusedBy(answer: Extract<Answer, { kind: 'problem' }>): Refused {
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
 * Sends sealed parcels one after the other, again and again until the server answers. What has been sent once is never
 * changed; what the server cannot take does not stop what stands behind it.
 */
export class Sender {
  private busy = false;
  private stopped = false;
  private planned: (() => void) | null = null;
  /** Parcels of people who are not signed in. */
  private readonly held = new Set<string>();
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
      const parcel = nextToSend(this.parts.state(), this.held);
      if (parcel === null) {
        if (this.parts.state().parcels.some((item) => item.state === 'draft')) this.wake(orphanMilliseconds);
        return;
      }
      this.parts.dispatch(outbox.sending(parcel.id));
      const answer = await this.parts.post(parcel);
      await this.settle(parcel, answer);
    } finally {
      this.busy = false;
    }
  }

  private async settle(parcel: Parcel, answer: Answer): Promise<void> {
    const { dispatch, connection } = this.parts;
    switch (answer.kind) {
      case 'done':
        connection('here');
        await this.parts.delivered(parcel, answer);
        dispatch(outbox.confirmed({ id: parcel.id, version: versionAfter(parcel, answer.revision) }));
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
        this.held.add(parcel.id);
        dispatch(outbox.sending(null));
        this.wake();
        break;
      case 'failed':
        dispatch(outbox.failed(parcel.id));
        dispatch(outbox.sending(null));
        if (parcel.failures + 1 >= mostFailures)
          dispatch(
            outbox.refused({
              id: parcel.id,
              refused: { kind: 'other', title: 'The server fails over this; everything else goes on' },
            }),
          );
        this.wake(retryMilliseconds);
        break;
      case 'problem':
        connection('here');
        await this.parts.learned(parcel, answer);
        dispatch(outbox.refused({ id: parcel.id, refused: refusedBy(answer) }));
        dispatch(outbox.sending(null));
        this.wake();
    }
  }
}
