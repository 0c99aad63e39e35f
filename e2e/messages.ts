import { readFile } from 'node:fs/promises';
import { newParts, partClass, type Act, type Job, type JobPart, type SupplyModel } from '@fairwatt/core';
import { application } from './running.ts';

async function posted<T>(path: string, body: unknown): Promise<T> {
  const answer = await fetch(`${application.url}/api${path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });
  const told: unknown = await answer.json();
  if (!answer.ok) throw new Error(`${path} was refused: ${JSON.stringify(told)}`);
  return told as T;
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

/** The acts of taking a machine in, part by part; those that are only planned are another call. */
export function machine(classIds: readonly string[], change: JobPart['change'] = 'stays'): Act[] {
  const wanted = classIds.map((classId) => {
    const { name, figures, inlets } = partClass(classId)!;
    return { source: { classId, name, figures, inlets }, quantity: 1, change };
  });
  let made = 0;
  const parts = newParts(wanted, [], () => `${change}-${(made += 1)}`);
  return parts.map((part) => ({ kind: 'put-part', part, basedOn: 0 }));
}

const shopFile = new URL('../demo/supplies.json', import.meta.url);
export async function supplyCalled(name: string): Promise<SupplyModel> {
  const { supplies } = JSON.parse(await readFile(shopFile, 'utf8')) as { supplies: SupplyModel[] };
  return supplies.find((model) => model.name === name)!;
}
