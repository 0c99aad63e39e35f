import type { Job } from './job.ts';

/** Lists of a job that grow by acts. */
export type JobList = {
  [K in keyof Job]: Job[K] extends readonly unknown[] ? K : never;
}[keyof Job];

/** How much of each kind one job holds: far more than any bench has, and few enough to be read in one go. */
export const jobLimits = {
  parts: 100,
  outcomes: 2000,
  readings: 5000,
  probes: 100,
  logs: 20,
  cables: 60,
  pins: 100,
  seats: 200,
  steps: 500,
  stepOrders: 2,
  laidAside: 20,
  laidWays: 300,
  leads: 80,
  notes: 100,
  proofs: 100,
  signOffs: 200,
} as const satisfies Readonly<Record<JobList, number>>;

const lists = Object.keys(jobLimits) as JobList[];

/** The first list that grew beyond its limit from one state of a job to the next; null when none did. */
export function overfull(before: Job, after: Job): JobList | null {
  return lists.find((list) => after[list].length > jobLimits[list] && after[list].length > before[list].length) ?? null;
}

/** How many more of a kind a job takes. */
export const roomFor = (job: Job, list: JobList): number => Math.max(0, jobLimits[list] - job[list].length);
