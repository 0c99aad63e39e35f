import { randomUUID } from 'node:crypto';
import type { Act, Job } from '@fairwatt/core';

const without = <T extends object, K extends keyof T>(item: T, ...keys: readonly K[]): Omit<T, K> =>
  Object.fromEntries(Object.entries(item).filter(([key]) => !keys.includes(key as K))) as Omit<T, K>;

/** The acts that make an empty job into one like this. Things keep their ids where others refer to them. */
export function actsFor(job: Job): Act[] {
  const anew = <T extends { readonly id: string }>(item: T): T => ({ ...item, id: randomUUID() });
  const maybe = <T>(item: T | null): readonly T[] => (item === null ? [] : [item]);
  const bare = ['version', 'by', 'at'] as const;
  return [
    { kind: 'edit-sheet', changes: without(job.sheet, 'fieldRevisions', 'version'), basedOn: 1 },
    ...job.parts.map((part): Act => ({ kind: 'put-part', part: without(part, 'version'), basedOn: 0 })),
    ...maybe(job.supply).map((supply): Act => ({
      kind: 'put-supply',
      supply: without(supply, 'version'),
      basedOn: 0,
    })),
    ...job.outcomes.map(({ checkId, outcomeId, instrumentId }): Act => ({
      kind: 'note-outcome',
      id: randomUUID(),
      checkId,
      outcomeId,
      instrumentId,
    })),
    ...job.readings.map((reading): Act => ({
      kind: 'take-reading',
      reading: { ...without(anew(reading), 'by', 'at', 'struckAt', 'fitting'), replaces: null },
    })),
    ...job.probes.map((probe): Act => ({ kind: 'put-probe', probe: without(anew(probe), ...bare), basedOn: 0 })),
    ...job.logs.map((log): Act => ({ kind: 'put-log', log: without(anew(log), ...bare), basedOn: 0 })),
    ...job.cables.map((cable): Act => ({ kind: 'put-cable', cable: without(cable, 'version'), basedOn: 0 })),
    ...maybe(job.finding).map((finding): Act => ({
      kind: 'set-finding',
      finding: without(finding, ...bare),
      basedOn: 0,
    })),
    ...maybe(job.choice).map((choice): Act => ({ kind: 'set-choice', choice: without(choice, ...bare), basedOn: 0 })),
    ...job.seats.map((seat): Act => ({
      kind: 'put-seat',
      seat: without(seat, ...bare, 'rechecked', 'inletKind'),
      basedOn: 0,
    })),
    ...(job.seats.length === 0
      ? []
      : [{ kind: 'recheck-seats' as const, inletIds: job.seats.map((seat) => seat.inletId) }]),
    ...job.pins.map((pin): Act => ({ kind: 'put-pin', pin: without(pin, ...bare), basedOn: 0 })),
    ...job.steps.map(({ stepId }): Act => ({ kind: 'tick-step', stepId })),
    ...job.proofs.map(({ item, holds, note }): Act => ({ kind: 'note-proof', item, holds, note, basedOn: 0 })),
    ...job.signOffs.map(({ point, reason }): Act => ({ kind: 'sign-off', id: randomUUID(), point, reason })),
  ];
}
