import { z } from 'zod';
import { cableFamilies, grades, plugKinds, railNames, shapes, socketKinds, type CableKit, type SupplyLabel, type SupplyModel } from '@fairwatt/core';
import { figure, id, line } from './primitives.ts';

const rail = z.strictObject({ label: line(20), rail: z.enum(railNames), amps: figure(0, 1000) });
const combined = z.strictObject({ labels: z.array(line(20)).min(1).max(12), watts: figure(0, 10_000) });

export const supplyLabelSchema = z.strictObject({
  ratingWatts: figure(1, 5000),
  rails: z.array(rail).max(12),
  combined: z.array(combined).max(12),
  shape: z.enum(shapes),
  guide: z.enum(['2.x', '3.x']),
  grade: z.enum(grades),
  modular: z.enum(['fixed', 'semi', 'full']),
  has16Pin: z.boolean(),
}) satisfies z.ZodType<SupplyLabel>;

const kitCable = z.strictObject({
  id, family: z.enum(cableFamilies), fixed: z.boolean(), count: z.int().min(1).max(12),
  gauge: z.union([z.literal(16), z.literal(18), z.literal(20), z.literal(22)]),
  plugs: z.array(z.strictObject({ kind: z.enum(plugKinds), millimetres: figure(50, 2000) })).min(1, 'a cable has at least one plug').max(8),
});

export const cableKitSchema = z.strictObject({
  sockets: z.array(z.strictObject({ label: line(20), kind: z.enum(socketKinds) })).max(24),
  cables: z.array(kitCable).min(1).max(24),
}).superRefine((kit, context) => {
  const mains = kit.cables.filter((cable) => cable.family === 'main').reduce((sum, cable) => sum + cable.count, 0);
  if (mains !== 1) context.addIssue({ code: 'custom', path: ['cables'], message: mains === 0 ? 'the kit has no main cable' : 'the kit has more than one main cable' });
  const labels = kit.sockets.map((socket) => socket.label);
  labels.forEach((label, index) => { if (labels.indexOf(label) !== index) context.addIssue({ code: 'custom', path: ['sockets', index, 'label'], message: 'another socket has this label' }); });
}) satisfies z.ZodType<CableKit>;

export const supplyModelSchema = z.strictObject({
  id, name: line(60), label: supplyLabelSchema,
  depthMillimetres: figure(50, 400), mainsLowVolts: figure(80, 300), mainsHighVolts: figure(80, 300),
  price: z.strictObject({ minor: z.int().min(0).max(100_000_00), currency: z.string().regex(/^[A-Z]{3}$/, 'three capital letters') }),
  onShelf: z.int().min(0).max(999), noiseDecibels: figure(0, 80).nullable(), warrantyYears: figure(0, 20),
  kit: cableKitSchema,
}) satisfies z.ZodType<SupplyModel>;

/** How many supplies of a file were new, and how many were here already and stay as they are. */
export const supplyImportSchema = z.strictObject({ added: z.int(), known: z.int() });

export const supplyFileSchema = z.strictObject({ format: z.literal('fairwatt-supplies'), version: z.literal(1), supplies: z.array(supplyModelSchema).max(5000) }).superRefine((file, context) => {
  const seen = new Set<string>();
  file.supplies.forEach((supply, index) => {
    if (seen.has(supply.id)) context.addIssue({ code: 'custom', path: ['supplies', index, 'id'], message: 'another supply of this file has this id' });
    seen.add(supply.id);
  });
});
