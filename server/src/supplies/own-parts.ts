import type { OwnPart } from '@fairwatt/contract';
import { insertRows, many, type Queryable } from '../database/query.ts';
import { boolean, member, number, text } from '../database/read.ts';

const columns = [
  'id',
  'name',
  'class_id',
  'low_watts',
  'likely_watts',
  'high_watts',
  'idle_watts',
  'short_watts',
  'spin_up_amps',
  'share_12',
  'share_5',
  'share_33',
  'excursion',
  'standby_watts',
  'source',
] as const;

/** The shop's own parts by name. */
export async function readOwnParts(db: Queryable): Promise<OwnPart[]> {
  const inlets = await many(db, 'select * from own_part_inlet order by part_id, position', [], (row) => ({
    partId: text(row, 'part_id'),
    inlet: {
      kind: member<OwnPart['inlets'][number]['kind']>(row, 'kind'),
      label: text(row, 'label'),
      optional: boolean(row, 'optional'),
    },
  }));
  return many(db, 'select * from own_part order by name, id', [], (row): OwnPart => ({
    id: text(row, 'id'),
    name: text(row, 'name'),
    classId: text(row, 'class_id'),
    figures: {
      lowWatts: number(row, 'low_watts'),
      likelyWatts: number(row, 'likely_watts'),
      highWatts: number(row, 'high_watts'),
      idleWatts: number(row, 'idle_watts'),
      shortWatts: number(row, 'short_watts'),
      spinUpAmps: number(row, 'spin_up_amps'),
      share12: number(row, 'share_12'),
      share5: number(row, 'share_5'),
      share33: number(row, 'share_33'),
      excursion: member(row, 'excursion'),
      standbyWatts: number(row, 'standby_watts'),
      source: member(row, 'source'),
    },
    inlets: inlets.filter((item) => item.partId === row['id']).map((item) => item.inlet),
  }));
}

/** Writes parts, over those with the same id. */
export async function writeOwnParts(db: Queryable, parts: readonly OwnPart[]): Promise<void> {
  await db.query('delete from own_part where id = any($1)', [parts.map((part) => part.id)]);
  await insertRows(
    db,
    'own_part',
    columns,
    parts.map(({ figures, ...part }) => [
      part.id,
      part.name,
      part.classId,
      figures.lowWatts,
      figures.likelyWatts,
      figures.highWatts,
      figures.idleWatts,
      figures.shortWatts,
      figures.spinUpAmps,
      figures.share12,
      figures.share5,
      figures.share33,
      figures.excursion,
      figures.standbyWatts,
      figures.source,
    ]),
  );
  await insertRows(
    db,
    'own_part_inlet',
    ['part_id', 'position', 'kind', 'label', 'optional'],
    parts.flatMap((part) =>
      part.inlets.map((inlet, position) => [part.id, position, inlet.kind, inlet.label, inlet.optional]),
    ),
  );
}
