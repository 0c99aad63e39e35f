import type { Act, Job } from '@fairwatt/core';
import { application } from './running.ts';

async function posted<T>(path: string, body: unknown): Promise<T> {
  const answer = await fetch(`${application.url}/api${path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });
  return (await answer.json()) as T;
}

/** A job of which nothing is known yet. @returns its code */
export const newJob = async (title: string): Promise<string> =>
  (await posted<Job>('/jobs', { by: 'mara', id: crypto.randomUUID(), title, client: '', words: '' })).code;

/** Does acts as somebody at another window does them. */
export async function doActs(code: string, ...acts: readonly Act[]): Promise<void> {
  for (const act of acts) await posted(`/jobs/${code}/acts`, { by: 'mara', id: crypto.randomUUID(), act });
}

export const noted = (checkId: string, outcomeId: string): Act => ({
  kind: 'note-outcome',
  id: crypto.randomUUID(),
  checkId,
  outcomeId,
  instrumentId: null,
});

export const jobOf = async (code: string): Promise<Job> =>
  (await (await fetch(`${application.url}/api/jobs/${code}`)).json()) as Job;
