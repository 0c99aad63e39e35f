import { z } from 'zod';
import { cableFamilies, faceOfPlug, inletFace, plugKinds, type PinSignal, type WireEnd } from '@fairwatt/core';
import { figure, id, instant, line, text, uuid, version } from './primitives.ts';

const signals = ['12', '5', '3.3', 'G', 'SB', 'PG', 'ST', '-12', 'S', 'NC'] as const satisfies readonly PinSignal[];

/** What the sockets of a kind of supply give, pin by pin, and which of the shop's supplies have them. */
export const pinoutSchema = z.strictObject({
  id, version, name: line(60),
  sockets: z.array(z.strictObject({ family: z.enum(cableFamilies), pins: z.array(z.enum(signals).nullable()).min(1).max(30) })).max(5).refine((list) => new Set(list.map((socket) => socket.family)).size === list.length, 'a family is named twice'),
  supplies: z.array(id).max(500),
});
export type Pinout = z.infer<typeof pinoutSchema>;

const end = z.union([z.int().min(1).max(30), z.literal('none'), z.null()]) satisfies z.ZodType<WireEnd>;

/** A spare modular cable with its plugs and, as far as somebody looked, its wires. */
export const bagCableSchema = z.strictObject({
  id: uuid, version, label: line(20), place: text(40), family: z.enum(cableFamilies), cameWith: text(60), note: text(300),
  plugs: z.array(z.strictObject({ kind: z.enum(plugKinds), millimetres: figure(50, 2000), ends: z.array(end).max(24) }).superRefine((plug, context) => {
    const pins = inletFace[faceOfPlug[plug.kind]].rows.flat().length;
    if (plug.ends.length > pins) context.addIssue({ code: 'custom', path: ['ends'], message: `this plug has ${pins} pins` });
  })).min(1, 'a cable has at least one plug').max(6),
});
export type BagCable = z.infer<typeof bagCableSchema>;

export const cableProofSchema = z.strictObject({ cableId: uuid, modelId: id, by: id, at: instant, note: text(300) });
export type CableProof = z.infer<typeof cableProofSchema>;

export const cableBagsSchema = z.strictObject({ pinouts: z.array(pinoutSchema), cables: z.array(bagCableSchema), proofs: z.array(cableProofSchema) });
export type CableBags = z.infer<typeof cableBagsSchema>;
export const bagCableMessageSchema = z.strictObject({ by: id, basedOn: version, cable: bagCableSchema });
export const pinoutMessageSchema = z.strictObject({ by: id, basedOn: version, pinout: pinoutSchema });
export const proofMessageSchema = z.strictObject({ by: id, cableId: uuid, modelId: id, note: text(300), proved: z.boolean() });
export const cableBagsFileSchema = z.strictObject({ format: z.literal('fairwatt-cable-bags'), version: z.literal(1), pinouts: z.array(pinoutSchema).max(100), cables: z.array(bagCableSchema).max(2000) });
