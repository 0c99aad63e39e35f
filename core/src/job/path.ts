import { partsAt } from '../machine/index.ts';
import type { Cabling } from './cabling.ts';
import { fittingOf } from './fitting.ts';
import type { Job } from './job.ts';
import type { OpenPoint } from './open-points.ts';
import { stepsOf } from './steps.ts';

/** Stages of a change of supply or of parts, in the order of the work; connectors are seated within the last. */
export const pathStages = ['record', 'take-out', 'refit'] as const;
export type PathStage = (typeof pathStages)[number];

/** What is left to do at a stage: inlets without a cable that somebody looked at, or steps that nobody ticked. */
export interface StageLeft {
  readonly stage: PathStage;
  readonly left: number;
}

/**
 * What is left at each stage of a change of supply or of parts. Where the supply stays its cables are not asked for as
 * they were, and without an upgrade nothing is. A connector that is not seated is counted by itself, not here.
 */
export function pathOf(job: Job, cabling: Cabling): StageLeft[] {
  if (job.choice === null) return [];
  if (job.choice.kind === 'keep' && job.parts.every(({ change }) => change === 'stays')) return [];
  const looked = job.cables.filter(({ likely }) => likely !== true);
  const recorded = new Set(looked.flatMap(({ plugs }) => plugs.map(({ inletId }) => inletId)));
  const inlets = partsAt(job.parts, 'present').flatMap((part) => part.inlets);
  const undone = (phase: 'take-out' | 'refit') =>
    stepsOf(job, cabling, phase).filter(({ derived, done }) => !derived && done === null).length;
  const notRecorded = inlets.filter(({ id }) => !recorded.has(id)).length;
  return [
    ...(job.choice.kind === 'replace' ? [{ stage: 'record' as const, left: notRecorded }] : []),
    { stage: 'take-out', left: undone('take-out') },
    { stage: 'refit', left: undone('refit') },
  ];
}

const codeOf = { record: 'not-recorded', 'take-out': 'take-out-open', refit: 'refit-open' } as const;

/**
 * The open point that a stage is while something is left of it. What is ticked of a refit belongs to one supply, and so
 * does what is said of it.
 */
export const stagePoint = (
  stage: PathStage,
  job: Pick<Job, 'choice'>,
): { code: (typeof codeOf)[PathStage]; id: string } => ({
  code: codeOf[stage],
  id: stage === 'refit' ? fittingOf(job.choice) : '',
});

/** The open point of a stage, signed off where somebody said why it was passed; null where nothing is left of it. */
export const pointOfStage = (stage: PathStage, points: readonly OpenPoint[]): OpenPoint | null =>
  points.find(({ code }) => code === codeOf[stage]) ?? null;

/**
 * The stage that comes next: the first of which something is left and of which nobody said why it was passed. Once a
 * connector of the new supply is seated, what went before is no longer led to: it can only be said.
 */
export function nextStage(job: Job, points: readonly OpenPoint[]): PathStage | null {
  const open = pathStages.filter((stage) => {
    const point = pointOfStage(stage, points);
    return point !== null && point.signOff === null;
  });
  const fits = job.seats.length > 0;
  return open.find((stage) => !fits || stage === 'refit') ?? null;
}
