import {
  emptyLabel,
  newParts,
  partClass,
  shapesOfLayout,
  usualShape,
  withFigures,
  withRating,
  type PartSource,
} from '../../machine/index.ts';
import { bareReading, type Act, type Job } from '../../job/index.ts';
import { boardSensorId } from '../../measure/index.ts';
import type { ListedMachine } from './merge.ts';
import type { ListedPart } from './parts-listed.ts';

/** A part that is taken in, with the class that somebody left or picked. */
export interface PickedPart {
  readonly part: ListedPart;
  readonly classId: string;
}

/** Whether the machine that was entered has something of the kind already, so that the listing's may be the same. */
export function isThereAlready({ classIds }: ListedPart, job: Job): boolean {
  return job.parts.some(({ classId, change }) => change !== 'added' && classIds.includes(classId));
}

function sourceOf({ part, classId }: PickedPart): PartSource {
  const source = partClass(classId);
  if (source === undefined) throw new Error(`no class ${classId}`);
  const figures =
    part.watts === null || part.watts === source.figures.likelyWatts
      ? source.figures
      : withFigures(source.figures, { likelyWatts: part.watts, source: 'manual' });
  return { classId, name: part.name, inlets: source.inlets, figures };
}

/**
 * What has to be done to a job so that it holds the parts that were picked from listings; nothing is done here. The
 * case is set where the listing knows it; a supply's rating where none was entered. The voltages that its board's
 * sensor told become readings of that sensor, once for each rail.
 * @param makeId identifiers for new parts
 * @param makeReadingId identifiers for readings, each a UUID
 */
export function takeListed(
  picked: readonly PickedPart[],
  machine: ListedMachine,
  job: Job,
  makeId: () => string,
  makeReadingId: () => string,
): readonly Act[] {
  const acts: Act[] = [];
  const { sheet } = job;
  const layout = machine.layout ?? sheet.layout;
  if (layout !== sheet.layout) {
    const shapes = shapesOfLayout(sheet, layout, null);
    acts.push({ kind: 'edit-sheet', changes: { layout, shapes }, basedOn: sheet.version });
  }
  if (machine.supplyWatts !== null && job.supply === null)
    acts.push({
      kind: 'put-supply',
      supply: {
        name: '',
        label: withRating({ ...emptyLabel, ratingWatts: 0, shape: usualShape[layout] }, machine.supplyWatts),
      },
      basedOn: 0,
    });
  const wanted = picked.map((one) => ({
    source: sourceOf(one),
    quantity: one.part.quantity,
    change: 'stays' as const,
  }));
  for (const part of newParts(wanted, job.parts, makeId)) acts.push({ kind: 'put-part', part, basedOn: 0 });
  acts.push(...sensedVolts(machine, job, makeReadingId));
  return acts;
}

/** A listing is made by a machine that runs and does little else. */
const sensedVolts = (machine: ListedMachine, job: Job, makeId: () => string): Act[] =>
  machine.volts
    .filter(({ rail }) => !job.readings.some((one) => one.instrumentId === boardSensorId && one.subject === rail))
    .map(({ rail, volts }) => ({
      kind: 'take-reading',
      reading: {
        ...bareReading,
        id: makeId(),
        phase: 'before',
        subject: rail,
        condition: 'idle',
        value: { kind: 'figure', figure: volts },
        instrumentId: boardSensorId,
      },
    }));
