import { withBase, type Job, type Refusal } from '@fairwatt/core';
import { revisionHeader, type Problem } from '@fairwatt/contract';
import type { Parcel } from './parcel.ts';
import { within } from './patience.ts';

/** What became of a parcel that was sent once. */
export type Answer =
  | { readonly kind: 'done'; readonly job: Job | null; readonly revision: number; readonly body: unknown }
  /** Nobody answered, or somebody who cannot just now: it is sent again. */
  | { readonly kind: 'away'; readonly full?: boolean }
  /** Made by somebody who is not signed in now: it waits for that person. */
  | { readonly kind: 'held' }
  /** The server failed over this very parcel. */
  | { readonly kind: 'failed' }
  | {
      readonly kind: 'problem';
      readonly problem: Problem;
      readonly refusal: Refusal | null;
      readonly current: Job | null;
    };

export type Post = (parcel: Parcel) => Promise<Answer>;

const patienceMilliseconds = 15_000;

function requestOf(parcel: Parcel): { readonly path: string; readonly init: RequestInit } {
  if (parcel.kind === 'request')
    return {
      path: parcel.path,
      init: {
        method: parcel.method,
        ...(parcel.body === null ? {} : { body: parcel.body, headers: { 'content-type': parcel.contentType } }),
      },
    };
  const act = withBase(parcel.act, parcel.base.at === 'seen' ? parcel.base.version : 0);
  return {
    path: `/jobs/${encodeURIComponent(parcel.code)}/acts`,
    init: {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ id: parcel.id, by: parcel.by, act }),
    },
  };
}

async function answerOf(parcel: Parcel, response: Response): Promise<Answer> {
  if (response.status === 500) return { kind: 'failed' };
  if (response.status === 507) return { kind: 'away', full: true };
  if (response.status > 500 || response.status === 408 || response.status === 429) return { kind: 'away' };
  const text = await response.text();
  const body = text === '' ? null : (JSON.parse(text) as unknown);
  // Something that was to go and is not there has gone.
  const goneAlready = response.status === 404 && parcel.kind === 'request' && parcel.method === 'DELETE';
  if (response.ok || goneAlready)
    return {
      kind: 'done',
      job: parcel.kind === 'act' ? (body as Job) : null,
      revision: Number(response.headers.get(revisionHeader) ?? 0),
      body,
    };
  const problem = body as Problem;
  if (response.status === 401 || problem.type === '/problems/not-you') return { kind: 'held' };
  return {
    kind: 'problem',
    problem,
    refusal: (problem.refusal as Refusal | undefined) ?? null,
    current: (problem.current as Job | undefined) ?? null,
  };
}

/** Sends a parcel once to a server. Never throws: whatever is no answer of this server means that it is away. */
export const postTo =
  (base: string): Post =>
  async (parcel) => {
    const { path, init } = requestOf(parcel);
    try {
      return await within(patienceMilliseconds, `${base}${path}`, init, (response) => answerOf(parcel, response));
    } catch {
      // No answer at all, an answer cut short, or one that is not ours: it is kept and sent again.
      return { kind: 'away' };
    }
  };
