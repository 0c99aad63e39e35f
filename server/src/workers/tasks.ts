import type { MessagePort } from 'node:worker_threads';
import type { LabelStock } from '@fairwatt/contract';
import type { Lesson } from '../record/store.ts';

/** A paper of a job: tags, the label of the supply that came, or the schedule of its cables. */
export type PaperOrder = { readonly code: string; readonly address: string } & (
  | { readonly kind: 'labels'; readonly stock: LabelStock; readonly skip: number }
  | { readonly kind: 'supply-label'; readonly stock: LabelStock; readonly skip: number }
  | { readonly kind: 'schedule' }
  | { readonly kind: 'schedule-csv' }
);

/** The paper, or why there is none. */
export type Paper =
  | { readonly kind: 'made'; readonly bytes: Uint8Array }
  | { readonly kind: 'no-job' }
  | { readonly kind: 'no-cables' }
  | { readonly kind: 'no-supply' };

/** What is known of a job that is about to be closed. */
export interface Closing {
  /** The job as it was counted. */
  readonly stamp: string;
  readonly unanswered: number;
  /** What it will teach once it is closed. */
  readonly lesson: Lesson | null;
}

/** What is worked out beside the server's own thread. */
export type Task =
  | { readonly kind: 'stations'; readonly jobId: number }
  | { readonly kind: 'index'; readonly jobIds: readonly number[] }
  | { readonly kind: 'closing'; readonly jobId: number }
  | { readonly kind: 'paper'; readonly order: PaperOrder };

/** A task with the shop that it is of. */
export interface Order {
  readonly databaseUrl: string;
  readonly task: Task;
}

/** The same as it comes to a thread, which tells when it begins. */
export interface OrderInThread extends Order {
  readonly begun: MessagePort;
}

/** What a worker is started with. */
export interface WorkerStart {
  readonly program: string;
}
