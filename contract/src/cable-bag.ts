import { z } from 'zod';
import {
  adapterRefusal,
  adapterRefusalText,
  cableFamilies,
  faceOfPlug,
  inletFace,
  mayHaveTwoEnds,
  plugKinds,
  standardPlugKinds,
  standardInletKinds,
  type Adapter,
  type AdapterRefusal,
  type BagAdapter,
  type BagCable,
  type CableBags,
  type CableProof,
  socketSignals,
  type Pinout,
  type WireEnd,
} from '@fairwatt/core';
import { codedWattsSchema } from './supply.ts';
import { figure, id, instant, jobCode, line, text, uuid, seenVersion } from './primitives.ts';

/** What the sockets of a kind of supply give, pin by pin, and which of the shop's supplies have them. */
export const pinoutSchema = z.strictObject({
  id,
  version: seenVersion,
  name: line(60),
  sockets: z
    .array(
      z.strictObject({ family: z.enum(cableFamilies), pins: z.array(z.enum(socketSignals).nullable()).min(1).max(30) }),
    )
    .max(5)
    .refine((list) => new Set(list.map((socket) => socket.family)).size === list.length, 'a family is named twice'),
  supplies: z.array(id).max(500),
}) satisfies z.ZodType<Pinout>;
export type { BagAdapter, BagCable, CableBags, CableProof, Pinout };

const supplyPin = z.int().min(1).max(30);
const twoWires = z
  .tuple([supplyPin, supplyPin])
  .refine(([first, second]) => first !== second, 'two wires lead to two pins');
const end = z.union([supplyPin, twoWires, z.literal('none'), z.null()], {
  error: 'each is a pin of the supply end, two such as 13+14, - or ?',
}) satisfies z.ZodType<WireEnd>;

/** A spare modular cable with its plugs and, as far as somebody looked, its wires. */
export const bagCableSchema = z
  .strictObject({
    id: uuid,
    version: seenVersion,
    label: line(20),
    place: text(40),
    family: z.enum(cableFamilies),
    cameWith: text(60),
    note: text(300),
    gauge: z
      .union([z.literal(16), z.literal(18), z.literal(20), z.literal(22)])
      .nullable()
      .default(null),
    twoEnded: z.boolean().default(false),
    codedWatts: codedWattsSchema.nullable().default(null),
    plugs: z
      .array(
        z
          .strictObject({
            kind: z.enum(standardPlugKinds, 'a maker’s own plug is not kept as a spare'),
            millimetres: figure(50, 2000).nullable(),
            ends: z.array(end).max(24),
          })
          .superRefine((plug, context) => {
            const { rows, small = [] } = inletFace[faceOfPlug[plug.kind]];
            const pins = rows.flat().length + small.length;
            if (plug.ends.length > pins)
              context.addIssue({ code: 'custom', path: ['ends'], message: `this plug has ${pins} pins` });
          }),
      )
      .min(1, 'a cable has at least one plug')
      .max(6),
  })
  .refine((cable) => !cable.twoEnded || mayHaveTwoEnds(cable.family), {
    path: ['twoEnded'],
    message: 'only a main or 16-pin cable has two plugs at the supply',
  }) satisfies z.ZodType<BagCable>;

const adapterFields = {
  takes: z.enum(standardInletKinds),
  gives: z.enum(plugKinds),
  ownPlug: line(40).optional(),
  legs: z.int().min(1, 'at least one plug').max(4, 'at most 4 plugs'),
  moulded: z.boolean(),
  addsMillimetres: figure(0, 1000),
  watts: figure(1, 700).nullable(),
  count: z.int().min(0).max(99),
};
const refusalField: Partial<Record<AdapterRefusal, string>> = {
  'too-few-legs': 'legs',
  moulded: 'moulded',
  unnamed: 'ownPlug',
};
const allowedUse = (adapter: Parameters<typeof adapterRefusal>[0], context: z.RefinementCtx) => {
  const refusal = adapterRefusal(adapter);
  if (refusal !== null)
    context.addIssue({
      code: 'custom',
      path: [refusalField[refusal] ?? 'gives'],
      message: adapterRefusalText(refusal),
    });
};
/** An adapter or extension in a bag. Those that no rule allows are not taken in at all. */
export const bagAdapterSchema = z
  .strictObject({ id: uuid, version: seenVersion, label: line(20), place: text(40), ...adapterFields })
  .superRefine(allowedUse) satisfies z.ZodType<BagAdapter>;
/** An adapter as a plan needs it. */
export const adapterSchema = z
  .strictObject({ id, ...adapterFields })
  .superRefine(allowedUse) satisfies z.ZodType<Adapter>;

export const cableProofSchema = z.strictObject({
  cableId: uuid,
  modelId: id,
  by: id,
  at: instant,
  note: text(300),
}) satisfies z.ZodType<CableProof>;

export const cableBagsSchema = z.strictObject({
  pinouts: z.array(pinoutSchema),
  cables: z.array(bagCableSchema),
  proofs: z.array(cableProofSchema),
  adapters: z.array(bagAdapterSchema),
}) satisfies z.ZodType<CableBags>;
export const bagCableMessageSchema = z.strictObject({ by: id, basedOn: seenVersion, cable: bagCableSchema });
export const bagAdapterMessageSchema = z.strictObject({ by: id, basedOn: seenVersion, adapter: bagAdapterSchema });
export const pinoutMessageSchema = z.strictObject({ by: id, basedOn: seenVersion, pinout: pinoutSchema });
export const proofMessageSchema = z.strictObject({
  by: id,
  cableId: uuid,
  modelId: id,
  note: text(300),
  proved: z.boolean(),
  /** The probe walks that prove it, one for each of its plugs; none to take a proof back. */
  walks: z.array(z.strictObject({ job: jobCode, probeId: uuid })).max(20),
});
export const cableBagsFileSchema = z.strictObject({
  format: z.literal('fairwatt-cable-bags'),
  version: z.literal(1),
  pinouts: z.array(pinoutSchema).max(100),
  cables: z.array(bagCableSchema).max(2000),
  adapters: z.array(bagAdapterSchema).max(500).default([]),
});
