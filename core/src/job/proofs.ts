import { partClass, partsAt, type PartClass } from '../machine/index.ts';
import { fittingOf } from './fitting.ts';
import type { Job, Proof, ProofItem } from './job.ts';

/** What has to be shown at the finished machine, in the order in which it shows. */
export const proofItems = [
  'started',
  'picture',
  'fans',
  'drives',
  'card',
  'complaint',
] as const satisfies readonly ProofItem[];

const groupOf: Partial<Record<ProofItem, PartClass['group']>> = { drives: 'drive', card: 'card' };

const partsOf = (job: Pick<Job, 'parts'>, item: ProofItem) =>
  partsAt(job.parts, 'planned').filter((part) => partClass(part.classId)?.group === groupOf[item]);

/**
 * What a proof is given for: the supply that is fitted, and for drives and cards those that are in the machine then.
 * What was shown with one supply, or before another drive went in, shows nothing of what stands there now.
 */
export function proofSubject(job: Pick<Job, 'parts' | 'choice'>, item: ProofItem): string {
  const fitting = fittingOf(job.choice);
  if (groupOf[item] === undefined) return fitting;
  const inside = partsOf(job, item).map(({ id }) => id);
  return [fitting, ...inside.sort()].join(' ');
}

/** Whether something was fitted, so that the machine has to be shown to work with it. */
const anythingFitted = (job: Pick<Job, 'parts' | 'choice'>): boolean =>
  job.choice?.kind === 'replace' || (job.choice !== null && job.parts.some((part) => part.change !== 'stays'));

/** What has to be shown at this machine; nothing where nothing was fitted. */
export function proofsAsked(job: Pick<Job, 'parts' | 'choice'>): readonly ProofItem[] {
  if (!anythingFitted(job)) return [];
  return proofItems.filter((item) => groupOf[item] === undefined || partsOf(job, item).length > 0);
}

/** What was said of it for the machine as it stands now; null where nobody has said anything of this one. */
export function standingProof(job: Pick<Job, 'parts' | 'choice' | 'proofs'>, item: ProofItem): Proof | null {
  const subject = proofSubject(job, item);
  return job.proofs.find((proof) => proof.item === item && proof.subject === subject) ?? null;
}
