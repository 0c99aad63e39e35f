import { z } from 'zod';
import { figureSources, inletKinds, partClass, partClasses } from '@fairwatt/core';
import { figuresSchema } from './job.ts';
import { id, line } from './primitives.ts';

/** A part the shop knows with its own figures, to be picked at Intake like a class. */
export const ownPartSchema = z.strictObject({
  id,
  name: line(80),
  classId: z
    .string()
    .refine(
      (value) => partClass(value) !== undefined,
      `is no class; known: ${partClasses.map((item) => item.id).join(', ')}`,
    ),
  figures: figuresSchema,
  inlets: z.array(z.strictObject({ kind: z.enum(inletKinds), label: line(40), optional: z.boolean() })).max(8),
});
export type OwnPart = z.infer<typeof ownPartSchema>;
export const ownPartMessageSchema = z.strictObject({ by: id, part: ownPartSchema });

/** Columns of the parts CSV, in order. */
export const partColumns = [
  'id',
  'name',
  'class',
  'low_w',
  'likely_w',
  'high_w',
  'idle_w',
  'short_w',
  'spin_up_a',
  'spin_up_5_a',
  'share_12',
  'share_5',
  'share_33',
  'excursion',
  'standby_w',
  'slot_w',
  'source',
  'inlets',
] as const;
type Cells = Readonly<Record<string, string | undefined>>;

/** A part's row. Inlets: `kind/label` or `kind/label/optional`, joined by semicolons. */
export function partToCells(part: OwnPart): Record<(typeof partColumns)[number], string> {
  const { figures } = part;
  return {
    id: part.id,
    name: part.name,
    class: part.classId,
    low_w: String(figures.lowWatts),
    likely_w: String(figures.likelyWatts),
    high_w: String(figures.highWatts),
    idle_w: String(figures.idleWatts),
    short_w: String(figures.shortWatts),
    spin_up_a: String(figures.spinUpAmps),
    spin_up_5_a: String(figures.spinUpAmps5),
    slot_w: figures.slotWatts === null ? '' : String(figures.slotWatts),
    share_12: String(figures.share12),
    share_5: String(figures.share5),
    share_33: String(figures.share33),
    excursion: figures.excursion,
    standby_w: String(figures.standbyWatts),
    source: figures.source,
    inlets: part.inlets.map((inlet) => `${inlet.kind}/${inlet.label}${inlet.optional ? '/optional' : ''}`).join('; '),
  };
}

/** What a row says, still to be checked by `ownPartSchema`. What is left out is taken from the class. */
export function partFromCells(cells: Cells): unknown {
  const cell = (name: string) => cells[name]?.trim() ?? '';
  const classId = cell('class');
  const shipped = partClass(classId);
  const number = (name: string, otherwise: number | undefined): unknown =>
    cell(name) === ''
      ? otherwise
      : Number.isFinite(Number(cell(name).replace(',', '.')))
        ? Number(cell(name).replace(',', '.'))
        : cell(name);
  const likely = number('likely_w', shipped?.figures.likelyWatts);
  const around = (share: number) =>
    typeof likely === 'number' ? (cell('likely_w') === '' ? undefined : likely * share) : undefined;
  return {
    id:
      cell('id') ||
      cell('name')
        .toLowerCase()
        .normalize('NFKD')
        .replace(/[^a-z0-9]+/g, '-')
        .replace(/^-+|-+$/g, '')
        .slice(0, 60),
    name: cell('name'),
    classId,
    figures: {
      likelyWatts: likely,
      lowWatts: number('low_w', around(0.8) ?? shipped?.figures.lowWatts),
      highWatts: number('high_w', around(1.2) ?? shipped?.figures.highWatts),
      idleWatts: number('idle_w', around(0.3) ?? shipped?.figures.idleWatts),
      shortWatts: number('short_w', around(1) ?? shipped?.figures.shortWatts),
      spinUpAmps: number('spin_up_a', shipped?.figures.spinUpAmps),
      spinUpAmps5: number('spin_up_5_a', shipped?.figures.spinUpAmps5 ?? 0),
      slotWatts: cell('slot_w') === '' ? (shipped?.figures.slotWatts ?? null) : number('slot_w', undefined),
      share12: number('share_12', shipped?.figures.share12),
      share5: number('share_5', shipped?.figures.share5),
      share33: number('share_33', shipped?.figures.share33),
      excursion: cell('excursion') || shipped?.figures.excursion,
      standbyWatts: number('standby_w', shipped?.figures.standbyWatts),
      source: cell('source') || (figureSources[1] satisfies string),
    },
    inlets:
      cells['inlets'] === undefined
        ? (shipped?.inlets ?? [])
        : cell('inlets')
            .split(';')
            .map((item) => item.trim())
            .filter((item) => item !== '')
            .map((item) => {
              const [kind = '', label = '', optional] = item.split('/').map((piece) => piece.trim());
              return { kind, label, optional: optional === 'optional' };
            }),
  };
}
