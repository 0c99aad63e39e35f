import type { JobFile, NamedPerson, Signing } from '@fairwatt/contract';
import { maybeOne, type Queryable } from '../database/query.ts';
import { text } from '../database/read.ts';
import { nextTechnicianId } from '../shop/store.ts';

/** How many letters of a name are left where a shop's note is put behind it. */
const mostName = 44;
const elsewhere = (name: string) => `${name.slice(0, mostName)} (another shop)`;

const idNamed = (db: Queryable, name: string, role: 'any' | 'none'): Promise<string | null> =>
  maybeOne(
    db,
    `select id from technician where name = $1 and ($2 = 'any' or role = 'none') order by id limit 1`,
    [name, role],
    (row) => text(row, 'id'),
  );

async function nameOnly(db: Queryable, name: string): Promise<string> {
  const there = await idNamed(db, name, 'none');
  if (there !== null) return there;
  const id = await nextTechnicianId(db, name);
  await db.query("insert into technician (id, name, role) values ($1, $2, 'none')", [id, name]);
  return id;
}

/**
 * Whom an author of a file is here. Where people sign with secrets a file proves nobody's hand: each author is a name
 * of another shop, also where somebody here is called so. Where names are picked, the same name is the same person.
 */
async function authorHere(db: Queryable, { id, name }: NamedPerson, signing: Signing): Promise<string> {
  if (signing === 'secret') return nameOnly(db, elsewhere(name));
  const here = await maybeOne(db, 'select name from technician where id = $1', [id], (row) => text(row, 'name'));
  if (here === name) return id;
  if (here !== null) return nameOnly(db, elsewhere(name));
  await db.query("insert into technician (id, name, role) values ($1, $2, 'none')", [id, name]);
  return id;
}

/** Fields of a job and its pictures that name a person. */
const naming = new Set(['by', 'inCharge', 'updatedBy']);

/** The same, with each person's id as it is here. */
function renamed<T>(value: T, ids: ReadonlyMap<string, string>): T {
  if (Array.isArray(value)) return value.map((item: unknown) => renamed(item, ids)) as T;
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value).map(([key, item]: [string, unknown]) => [
      key,
      naming.has(key) && typeof item === 'string' ? (ids.get(item) ?? item) : renamed(item, ids),
    ]),
  ) as T;
}

/** A job file whose people are people of this shop, or names only. Nobody comes in as an account. */
export async function withAuthorsHere(db: Queryable, file: JobFile, signing: Signing): Promise<JobFile> {
  const ids = new Map<string, string>();
  for (const person of file.technicians) ids.set(person.id, await authorHere(db, person, signing));
  if ([...ids].every(([was, is]) => was === is)) return file;
  const job = renamed(file.job, ids);
  return {
    ...file,
    technicians: file.technicians.map((person) => ({ ...person, id: ids.get(person.id) ?? person.id })),
    // What is in somebody's hand elsewhere is in nobody's here.
    job: signing === 'secret' ? { ...job, sheet: { ...job.sheet, inCharge: null } } : job,
    photos: renamed(file.photos, ids),
  };
}
