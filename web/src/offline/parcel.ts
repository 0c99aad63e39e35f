import type { Act, Job } from '@fairwatt/core';

/**
 * What an act was typed over: the version of its subject as the server had it, or an earlier parcel of the same subject
 * that is still on its way.
 */
export type Base =
  { readonly at: 'seen'; readonly version: number } | { readonly at: 'after'; readonly parcel: string };

/** Why the server would not take a parcel. A conflict keeps what the other person made of it. */
export type Refused =
  | {
      readonly kind: 'conflict';
      readonly title: string;
      /** Version of the subject as it stands now. */
      readonly current: number;
      readonly theirs: Job;
      readonly changed: { readonly by: string; readonly at: string } | null;
    }
  | { readonly kind: 'other'; readonly title: string };

interface Shared {
  readonly id: string;
  /** The job it belongs to; null for what belongs to the shop. */
  readonly code: string | null;
  readonly by: string;
  readonly at: string;
  /** The tab in which it was made; only that one lets it grow. */
  readonly tab: string;
  /** Where it stands in the order of sending. */
  readonly order: number;
  /**
   * `draft`: still being typed, may grow. `waiting`: sealed, never changed again, sent until the server answers.
   * `refused`: waits for somebody's decision.
   */
  readonly state: 'draft' | 'waiting' | 'refused';
  readonly refused: Refused | null;
  /** How often the server failed over it though it answers otherwise. */
  readonly failures: number;
}

/** An act on a job. */
export interface ActParcel extends Shared {
  readonly kind: 'act';
  readonly code: string;
  readonly act: Act;
  readonly base: Base;
}

/** Any other change: a picture, a log's file, a new job, something of the shelf or the settings. */
export interface RequestParcel extends Shared {
  readonly kind: 'request';
  /** In words, such as "Picture of LQ-0142". */
  readonly title: string;
  readonly method: 'POST' | 'PUT' | 'DELETE';
  readonly path: string;
  readonly body: string | Blob | null;
  readonly contentType: string;
  /** What has to be fetched anew once it is done. */
  readonly tags: readonly string[];
}

export type Parcel = ActParcel | RequestParcel;

/** This tab, as long as it is open. */
export const thisTab: string = globalThis.crypto.randomUUID();

let last = 0;
/** A place after everything that was made in this tab, and after what other tabs made before now. */
export function nextOrder(now: number): number {
  last = Math.max(last + 1, now * 1000);
  return last;
}

/**
 * An act of its own that only adds is sealed at once; one that writes something as a whole may grow while it is typed.
 */
export function mayGrow(act: Act): boolean {
  switch (act.kind) {
    case 'edit-sheet':
    case 'put-part':
    case 'put-supply':
    case 'put-cable':
    case 'put-seat':
    case 'put-pin':
    case 'order-steps':
    case 'lay-cable':
    case 'put-lead':
    case 'put-note':
    case 'note-proof':
      return true;
    default:
      return false;
  }
}
