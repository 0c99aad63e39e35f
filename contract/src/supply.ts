import { z } from 'zod';
import {
  guides,
  modularities,
  boundToBe,
  cableFamilies,
  codedWatts,
  mayHaveTwoEnds,
  corrections,
  fanSides,
  grades,
  mainsInlets,
  plugKinds,
  protectionNames,
  railNames,
  shapes,
  socketKinds,
  socketTakes,
  type CableKit,
  type DayProfile,
  type SupplyLabel,
  type SupplyModel,
  type Wants,
} from '@fairwatt/core';
import { figure, id, line } from './primitives.ts';

const rail = z.strictObject({
  label: line(20),
  rail: z.enum(railNames),
  amps: figure(0, 1000),
  feeds: z.array(z.enum(cableFamilies)).max(5).optional(),
  usual: z.boolean().optional(),
});
const combined = z.strictObject({
  labels: z.array(line(20)).min(1).max(12),
  watts: figure(0, 10_000),
  usual: z.boolean().optional(),
});

export const supplyLabelSchema = z.strictObject({
  ratingWatts: figure(1, 5000),
  rails: z.array(rail).max(12),
  combined: z.array(combined).max(12),
  shape: z.enum(shapes),
  guide: z.enum(guides),
  grade: z.enum(grades),
  modular: z.enum(modularities),
  has16Pin: z.boolean(),
}) satisfies z.ZodType<SupplyLabel>;

export const codedWattsSchema = z.literal([...codedWatts], '150, 300, 450 or 600 W');
const kitCable = z.strictObject({
  id,
  family: z.enum(cableFamilies),
  fixed: z.boolean(),
  count: z.int().min(1).max(12),
  gauge: z.union([z.literal(16), z.literal(18), z.literal(20), z.literal(22)]),
  codedWatts: codedWattsSchema.optional(),
  plugs: z
    .array(z.strictObject({ kind: z.enum(plugKinds), millimetres: figure(50, 2000) }))
    .min(1, 'a cable has at least one plug')
    .max(8),
  ownPlug: line(40).optional(),
  twoEnded: z.literal(true, 'true, or left out').optional(),
  onlySocket: line(20).optional(),
  output: line(20).optional(),
});

/** What is wrong with the one socket that a cable is said to go into; null where nothing is, or it goes into any. */
function onlySocketRefusal({ sockets, cables }: CableKit, index: number): string | null {
  const { onlySocket, fixed, twoEnded, count, family } = boundToBe(cables[index], 'cable');
  if (onlySocket === undefined) return null;
  if (fixed || twoEnded === true) return 'only a modular cable with one plug at the supply has a socket of its own';
  if (count !== 1) return 'a cable with a socket of its own is one piece';
  const socket = sockets.find(({ label }) => label === onlySocket);
  if (socket === undefined) return 'no socket has this label';
  if (!socketTakes(socket.kind, family)) return 'this socket does not take such a cable';
  return cables.findIndex((other) => other.onlySocket === onlySocket) < index
    ? 'another cable has this socket for its own'
    : null;
}

export const cableKitSchema = z
  .strictObject({
    sockets: z
      .array(z.strictObject({ label: line(20), kind: z.enum(socketKinds), output: line(20).optional() }))
      .max(24),
    cables: z.array(kitCable).min(1).max(24),
  })
  .superRefine((kit, context) => {
    // A 6-pin auxiliary cable may stand beside the main one, and a maker's own may stand in its place.
    const countOf = (isMain: (kind: string) => boolean) =>
      kit.cables
        .filter((cable) => cable.family === 'main' && cable.plugs.some((plug) => isMain(plug.kind)))
        .reduce((sum, cable) => sum + cable.count, 0);
    const mains = countOf((kind) => kind.startsWith('main-') && kind !== 'main-own');
    if (mains > 1 || mains + countOf((kind) => kind === 'main-own') === 0)
      context.addIssue({
        code: 'custom',
        path: ['cables'],
        message: mains === 0 ? 'the kit has no main cable' : 'the kit has more than one main cable',
      });
    kit.cables.forEach((cable, index) => {
      const own = cable.plugs.some((plug) => plug.kind === 'main-own');
      if (own !== (cable.ownPlug !== undefined))
        context.addIssue({
          code: 'custom',
          path: ['cables', index, 'ownPlug'],
          message: own ? 'name the inlet that this maker’s own plug fits' : 'only a maker’s own plug has a name',
        });
      if (cable.twoEnded === true && (cable.fixed || !mayHaveTwoEnds(cable.family)))
        context.addIssue({
          code: 'custom',
          path: ['cables', index, 'twoEnded'],
          message: 'only a modular main or 16-pin cable has two plugs at the supply',
        });
      const socketTold = onlySocketRefusal(kit, index);
      if (socketTold !== null)
        context.addIssue({ code: 'custom', path: ['cables', index, 'onlySocket'], message: socketTold });
      if (cable.codedWatts !== undefined && cable.family !== 'card-16')
        context.addIssue({
          code: 'custom',
          path: ['cables', index, 'codedWatts'],
          message: 'only a 16-pin cable is coded for watts',
        });
    });
    const labels = kit.sockets.map((socket) => socket.label);
    labels.forEach((label, index) => {
      if (labels.indexOf(label) !== index)
        context.addIssue({
          code: 'custom',
          path: ['sockets', index, 'label'],
          message: 'another socket has this label',
        });
    });
  }) satisfies z.ZodType<CableKit>;

export const wantsSchema = z.strictObject({
  noisiestDecibels: figure(0, 80).nullable(),
  leastWarrantyYears: figure(0, 20).nullable(),
  protections: z.array(z.enum(protectionNames)).max(6),
  activeCorrection: z.boolean(),
}) satisfies z.ZodType<Wants>;

export const dayProfileSchema = z
  .strictObject({
    idleHours: figure(0, 24),
    typicalHours: figure(0, 24),
    fullHours: figure(0, 24),
    typicalShare: figure(0, 1),
  })
  .refine((day) => day.idleHours + day.typicalHours + day.fullHours <= 24, {
    path: ['fullHours'],
    message: 'a day has 24 hours',
  }) satisfies z.ZodType<DayProfile>;

const currency = z.string().regex(/^[A-Z]{3}$/, 'three capital letters');
export const priceSchema = z.strictObject({
  minor: z.int('whole cents').min(0, 'at least 0').max(100_000_00, 'at most 100000'),
  currency,
  asOf: z.iso.date('a day such as 2026-11-20').nullable().default(null),
});

/** All of a supply but its kit. */
const summaryFields = {
  id,
  name: line(60),
  label: supplyLabelSchema,
  depthMillimetres: figure(50, 400),
  mainsLowVolts: figure(80, 300),
  mainsHighVolts: figure(80, 300),
  inlet: z.enum(mainsInlets).default('C14'),
  correction: z.enum(corrections).default('active'),
  protections: z.array(z.enum(protectionNames)).max(6).default([]),
  fan: z.enum(fanSides).default('large-face'),
  ownHoles: z.boolean().default(false),
  price: priceSchema,
  onShelf: z.int().min(0).max(999),
  noiseDecibels: figure(0, 80).nullable(),
  warrantyYears: figure(0, 20),
  designYear: z.int().min(1990).max(2100).nullable().default(null),
};

export const supplyModelSchema = z
  .strictObject({ ...summaryFields, kit: cableKitSchema })
  .superRefine((model, context) => {
    if (model.mainsHighVolts < model.mainsLowVolts)
      context.addIssue({ code: 'custom', path: ['mainsHighVolts'], message: 'not below the lowest voltage' });
    for (const list of ['rails', 'combined'] as const)
      model.label[list].forEach(({ usual }, index) => {
        if (usual === true)
          context.addIssue({ code: 'custom', path: ['label', list, index], message: 'read it from the label' });
      });
    const outputs = new Set(model.label.rails.map((item) => item.label));
    const unknown = (output: string | undefined, path: PropertyKey[]) => {
      if (output !== undefined && !outputs.has(output))
        context.addIssue({ code: 'custom', path, message: `${output} is not among the outputs` });
    };
    model.kit.sockets.forEach((socket, index) => unknown(socket.output, ['kit', 'sockets', index, 'output']));
    model.kit.cables.forEach((cable, index) => unknown(cable.output, ['kit', 'cables', index, 'output']));
    if (outputs.size !== model.label.rails.length)
      context.addIssue({ code: 'custom', path: ['label', 'rails'], message: 'two outputs have one name' });
  }) satisfies z.ZodType<SupplyModel>;

/** A kit's name says what is in it: alike kits have one, whichever supplies they come with. */
export const kitNameSchema = z.string().regex(/^[\w-]{22}$/, 'a name of 22 letters and digits');

/**
 * A supply as it travels among all others: whole but for its kit, which goes by its name. Its kit is among those of the
 * shop ({@link supplyKitsSchema}), or comes with the supply itself when that is opened.
 */
export const supplySummarySchema = z.strictObject({ ...summaryFields, kit: kitNameSchema });
export interface SupplySummary extends Omit<SupplyModel, 'kit'> {
  readonly kit: string;
}

/** The kits of a shop's supplies by their names. */
export const supplyKitsSchema = z.record(kitNameSchema, cableKitSchema);
export type SupplyKits = Readonly<Record<string, CableKit>>;

/** A supply as somebody wants it; `was` is how it stood on the screen, null for a new one. */
export const supplyMessageSchema = z.strictObject({
  by: id,
  was: supplyModelSchema.nullable(),
  model: supplyModelSchema,
});
export interface SupplyMessage {
  readonly by: string;
  readonly was: SupplyModel | null;
  readonly model: SupplyModel;
}

export const importFormats = ['csv', 'json'] as const;
/**
 * A file of supplies, parts or prices. `dryRun` only says what would happen. `update` overwrites what is here already.
 */
export const importMessageSchema = z.strictObject({
  by: id,
  format: z.enum(importFormats),
  text: z.string().max(8_000_000),
  update: z.boolean().default(false),
  dryRun: z.boolean().default(false),
});
export type ImportMessage = z.input<typeof importMessageSchema>;

/** What became of one row; the first row below a head, or the first entry, is 1. */
export const importRowSchema = z.strictObject({
  row: z.int(),
  name: z.string(),
  result: z.enum(['added', 'updated', 'same', 'known', 'refused']),
  errors: z.array(z.strictObject({ path: z.string(), message: z.string() })),
});
export type ImportRow = z.infer<typeof importRowSchema>;
/** Row by row what was taken and what was refused and why; at most 200 rows are named, refused ones first. */
export const importReportSchema = z.strictObject({
  dryRun: z.boolean(),
  rows: z.int(),
  added: z.int(),
  updated: z.int(),
  same: z.int(),
  known: z.int(),
  refused: z.int(),
  named: z.array(importRowSchema).max(200),
});
export type ImportReport = z.infer<typeof importReportSchema>;

export const supplyFileSchema = z
  .strictObject({
    format: z.literal('fairwatt-supplies'),
    version: z.literal(1),
    supplies: z.array(supplyModelSchema).max(5000),
  })
  .superRefine((file, context) => {
    const seen = new Set<string>();
    file.supplies.forEach((supply, index) => {
      if (seen.has(supply.id))
        context.addIssue({
          code: 'custom',
          path: ['supplies', index, 'id'],
          message: 'another supply of this file has this id',
        });
      seen.add(supply.id);
    });
  });

/** The type of an answer that tells how far an import is: JSON, one object a line. */
export const progressType = 'application/x-ndjson';
/** One line of it: rows looked at of how many, then the report or why it was not taken. */
export type ImportLine =
  | { readonly rows: number; readonly of: number }
  | { readonly report: z.infer<typeof importReportSchema> }
  | { readonly problem: { readonly type: string; readonly title: string; readonly status: number } };
