import { withBase, type Job, type Refusal } from '@fairwatt/core';
import { revisionHeader, type ActsDone, type Problem } from '@fairwatt/contract';
import type { ActParcel, Parcel } from './parcel.ts';
import { within } from './patience.ts';

/** The server would not take a parcel. */
export interface Problematic {
  readonly kind: 'problem';
  readonly problem: Problem;
  readonly refusal: Refusal | null;
  readonly current: Job | null;
}

/** What became of parcels that were sent once. */
export type Answer =
  | {
      readonly kind: 'done';
      readonly job: Job | null;
      /** What each made of the job, for as many as are done. */
      readonly revisions: readonly number[];
      readonly body: unknown;
      /** Why the first that is not done was refused; nothing is known of those behind it. */
      readonly stop: Problematic | null;
    }
  /** Nobody answered, or somebody who cannot just now: it is sent again. */
  | { readonly kind: 'away'; readonly full?: boolean }
  /** Made by somebody who is not signed in now: it waits for that person. */
  | { readonly kind: 'held' }
  /** The server failed over this very parcel. */
  | { readonly kind: 'failed' }
  | Problematic;

/** Parcels that go in one message: one of any kind, or acts of one person on one job. */
export type Together = readonly [Parcel, ...Parcel[]];
export type Post = (parcels: Together) => Promise<Answer>;

const patienceMilliseconds = 15_000;

interface Sending {
  readonly path: string;
  readonly init: RequestInit;
}

const posted = (path: string, body: unknown): Sending => ({
  path,
  init: { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) },
});

const messageOf = ({ id, by, act, base }: ActParcel) => ({
  id,
  by,
  act: withBase(act, base.at === 'seen' ? base.version : 0),
});

function requestOf([parcel, ...others]: Together): Sending {
  if (parcel.kind === 'request')
    return {
      path: parcel.path,
      init: {
        method: parcel.method,
        ...(parcel.body === null ? {} : { body: parcel.body, headers: { 'content-type': parcel.contentType } }),
      },
    };
  const acts = [parcel, ...others.filter((other) => other.kind === 'act')];
  const path = `/jobs/${encodeURIComponent(parcel.code)}/acts`;
  return acts.length === 1
    ? posted(path, messageOf(parcel))
    : posted(`${path}/together`, { messages: acts.map(messageOf) });
}

const problematic = (problem: Problem, job: Job | null = null): Problematic => ({
  kind: 'problem',
  problem,
  refusal: (problem.refusal as Refusal | undefined) ?? null,
  current: job ?? (problem.current as Job | undefined) ?? null,
});

const doneTogether = ({ job, revisions, problem }: ActsDone): Answer => ({
  kind: 'done',
  job: job,
  revisions,
  body: null,
  stop: problem === null ? null : problematic(problem, job),
});

async function answerOf(parcels: Together, response: Response): Promise<Answer> {
  if (response.status === 500) return { kind: 'failed' };
  if (response.status === 507) return { kind: 'away', full: true };
  if (response.status > 500 || response.status === 408 || response.status === 429) return { kind: 'away' };
  const text = await response.text();
  const body = text === '' ? null : (JSON.parse(text) as unknown);
  const [parcel, ...others] = parcels;
  if (response.ok && others.length > 0) return doneTogether(body as ActsDone);
  // Something that was to go and is not there has gone.
  const goneAlready = response.status === 404 && parcel.kind === 'request' && parcel.method === 'DELETE';
  if (response.ok || goneAlready)
    return {
      kind: 'done',
      job: parcel.kind === 'act' ? (body as Job) : null,
      revisions: [Number(response.headers.get(revisionHeader) ?? 0)],
      body,
      stop: null,
    };
  const problem = body as Problem;
  if (response.status === 401 || problem.type === '/problems/not-you') return { kind: 'held' };
  return problematic(problem);
}

/** Sends parcels once to a server. Never throws: whatever is no answer of this server means that it is away. */
export const postTo =
  (base: string): Post =>
  async (parcels) => {
    const { path, init } = requestOf(parcels);
    try {
      return await within(patienceMilliseconds, `${base}${path}`, init, (response) => answerOf(parcels, response));
    } catch {
      // No answer at all, an answer cut short, or one that is not ours: it is kept and sent again.
      return { kind: 'away' };
    }
  };
