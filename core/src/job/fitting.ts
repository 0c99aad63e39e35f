import { partsAt } from '../machine/index.ts';
import { boardSensorId } from '../measure/index.ts';
import type { Choice, Job, PinnedPlug, Reading, Seat, StepTick } from './job.ts';

/**
 * What work on the cables is done for: one supply of the shop's list, or the one that stays; `none` before a choice.
 */
export function fittingOf(choice: Pick<Choice, 'kind' | 'modelId'> | null): string {
  return choice === null ? 'none' : `${choice.kind}:${choice.modelId ?? ''}`;
}

/** Steps of taking out belong to the supply that came, and stand whatever is chosen. */
const belongsToOld = (step: StepTick) => step.stepId.startsWith('take-out:');

/** Ticks, pins and steps that belong to a fitting. */
interface Work {
  readonly seats: readonly Seat[];
  readonly pins: readonly PinnedPlug[];
  readonly steps: readonly StepTick[];
}
const nothingDone: Work = { seats: [], pins: [], steps: [] };

/**
 * What another choice does to the work: what was ticked and pinned for one supply is laid aside, never taken over by
 * another; what was done for the supply that is chosen now comes back. Inlets that are gone meanwhile stay away.
 */
export function laidAsideFor(job: Job, next: Pick<Choice, 'kind' | 'modelId'> | null): Partial<Job> {
  const from = fittingOf(job.choice);
  const to = fittingOf(next);
  if (from === to) return {};
  const inlets = new Set(job.parts.flatMap((part) => part.inlets.map((inlet) => inlet.id)));
  const ofOld = job.steps.filter(belongsToOld);
  const done: Work = { seats: job.seats, pins: job.pins, steps: job.steps.filter((step) => !belongsToOld(step)) };
  const back = job.laidAside.find((work) => work.fitting === to) ?? nothingDone;
  const others = job.laidAside.filter((work) => work.fitting !== to && work.fitting !== from);
  const anything = done.seats.length + done.pins.length + done.steps.length > 0;
  return {
    seats: back.seats.filter((seat) => inlets.has(seat.inletId)),
    pins: back.pins.filter((pin) => inlets.has(pin.inletId)),
    steps: [...ofOld, ...back.steps],
    laidAside: anything ? [...others, { fitting: from, ...done }] : others,
  };
}

/**
 * Was a reading taken of the supply that is in the machine at this phase? One after the work belongs to what was chosen
 * then.
 */
export function isOfFitting(reading: Pick<Reading, 'phase' | 'fitting'>, choice: Job['choice']): boolean {
  return reading.phase === 'before' || reading.fitting === null || reading.fitting === fittingOf(choice);
}

const stands = (job: Pick<Job, 'choice'>, phase: Reading['phase']) => (reading: Reading) =>
  reading.phase === phase && reading.struckAt === null && isOfFitting(reading, job.choice);

/**
 * The readings of a phase that were not struck, of the supply that was in the machine then. What the board's own sensor
 * told is not among them: nothing is judged by it.
 */
export function readingsOf(job: Pick<Job, 'readings' | 'choice'>, phase: Reading['phase']): Reading[] {
  return job.readings.filter(({ instrumentId }) => instrumentId !== boardSensorId).filter(stands(job, phase));
}

/** What the board's own sensor told, rail by rail, of rails that no instrument has read yet in this phase. */
export function roughReadingsOf(job: Pick<Job, 'readings' | 'choice'>, phase: Reading['phase']): Reading[] {
  const read = new Set(readingsOf(job, phase).map(({ subject }) => subject));
  return job.readings
    .filter(({ instrumentId, subject }) => instrumentId === boardSensorId && !read.has(subject))
    .filter(stands(job, phase));
}

/** The kind that an inlet of the machine has now; null for one that is not there. */
export function inletKindOf(job: Pick<Job, 'parts'>, inletId: string): Seat['inletKind'] {
  for (const part of partsAt(job.parts, 'planned'))
    for (const inlet of part.inlets) if (inlet.id === inletId) return inlet.kind;
  return null;
}
