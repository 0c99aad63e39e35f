import { z } from 'zod';
import { jobCode, id, text, uuid, seenVersion } from './primitives.ts';

/** `spare`: known good and kept for swaps; `suspect`: not to be fitted. */
export const unitStates = ['new', 'proven', 'suspect', 'spare', 'used'] as const;
export type UnitState = (typeof unitStates)[number];

/** One supply on the shelf. `used` units are in a client's machine and stay for the record. */
export const unitSchema = z
  .strictObject({
    id: uuid,
    version: seenVersion,
    modelId: id,
    place: text(40),
    state: z.enum(unitStates),
    serial: text(60),
    bag: text(300),
    note: text(300),
    reservedFor: jobCode.nullable(),
    usedIn: jobCode.nullable(),
  })
  .superRefine((unit, context) => {
    if ((unit.state === 'used') !== (unit.usedIn !== null))
      context.addIssue({
        code: 'custom',
        path: ['usedIn'],
        message: unit.state === 'used' ? 'say in which job it was used' : 'only a used unit is in a job',
      });
    if (unit.reservedFor !== null && unit.state !== 'new' && unit.state !== 'proven')
      context.addIssue({ code: 'custom', path: ['reservedFor'], message: 'only a new or proven unit is reserved' });
  });
export type Unit = z.infer<typeof unitSchema>;
export const unitsSchema = z.array(unitSchema);
/** A unit as somebody wants it, based on the version that was seen; 0 for a new one. */
export const unitMessageSchema = z.strictObject({ by: id, basedOn: seenVersion, unit: unitSchema });
export interface UnitMessage {
  readonly by: string;
  readonly basedOn: number;
  readonly unit: Unit;
}

/** Every unit on a shelf, as one file. */
export const shelfFileSchema = z.strictObject({
  format: z.literal('fairwatt-shelf'),
  version: z.literal(1),
  units: z.array(unitSchema).max(5000),
});
