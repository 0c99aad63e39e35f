import Papa from 'papaparse';
import type { z } from 'zod';
import { fieldErrors, type ImportReport, type ImportRow } from '@fairwatt/contract';

/** One entry of a file: what it says, or why it cannot even be read. */
export interface Entry {
  readonly row: number;
  readonly name: string;
  readonly value: unknown;
  readonly broken: string | null;
}

/** A file that is not what it says. */
export class UnreadableFile extends Error {}

/** Rows of a CSV with a head. Separator and line ends are found by themselves; columns that are missing are named. */
export function csvEntries(
  text: string,
  needed: readonly string[],
  valueOf: (cells: Readonly<Record<string, string | undefined>>) => unknown,
): Entry[] {
  if (text.includes('\u0000')) throw new UnreadableFile('This is no text file.');
  const parsed = Papa.parse<Record<string, string | undefined>>(text.replace(/^\uFEFF/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (head) => head.trim().toLowerCase(),
    // Our own export puts a quote before what a spreadsheet would take for a formula.
    transform: (cell) => cell.replace(/^'(?=[=+\-@\t\r])/, ''),
  });
  const fields = parsed.meta.fields ?? [];
  const missing = needed.filter((column) => !fields.includes(column));
  if (missing.length > 0) throw new UnreadableFile(`The first line names the columns; missing: ${missing.join(', ')}.`);
  const broken = new Map(
    parsed.errors.flatMap(({ row, message }) => (row === undefined ? [] : [[row, message] as const])),
  );
  return parsed.data.map((cells, index) => ({
    row: index + 1,
    name: cells['name'] ?? cells['id'] ?? '',
    value: valueOf(cells),
    broken: broken.get(index) ?? null,
  }));
}

/** Entries of a JSON file of this shop's own format. */
export function jsonEntries(text: string, format: string, list: string): Entry[] {
  let file: unknown;
  try {
    file = JSON.parse(text);
  } catch {
    throw new UnreadableFile('This is not JSON, or it is cut off.');
  }
  const fields = typeof file === 'object' && file !== null ? (file as Record<string, unknown>) : {};
  if (fields['format'] !== format || fields['version'] !== 1 || !Array.isArray(fields[list]))
    throw new UnreadableFile(`This is no ${format} file of version 1.`);
  return (fields[list] as unknown[]).map((value, index) => ({
    row: index + 1,
    name: nameOf(value),
    value,
    broken: null,
  }));
}

function nameOf(value: unknown): string {
  const fields = typeof value === 'object' && value !== null ? (value as Record<string, unknown>) : {};
  return [fields['name'], fields['id']].find((item): item is string => typeof item === 'string') ?? '';
}

export interface CheckedEntries<T> {
  readonly good: { readonly row: number; readonly name: string; readonly item: T }[];
  readonly refused: ImportRow[];
}

/** After so many rows others get their turn. */
const rowsInOneGo = 250;

/** Checks a long file without keeping others waiting, and tells how far it is. */
export async function checkLongFile<T extends { readonly id: string }>(
  entries: readonly Entry[],
  schema: z.ZodType<T>,
  progress: (rows: number) => void,
): Promise<CheckedEntries<T>> {
  const good: CheckedEntries<T>['good'] = [];
  const refused: ImportRow[] = [];
  const seen = new Set<string>();
  for (let start = 0; start < entries.length; start += rowsInOneGo) {
    const part = checkEntries(entries.slice(start, start + rowsInOneGo), schema, seen);
    good.push(...part.good);
    refused.push(...part.refused);
    progress(Math.min(entries.length, start + rowsInOneGo));
    await new Promise((resolve) => {
      setImmediate(resolve);
    });
  }
  return { good, refused };
}

/**
 * Sorts entries into those that can be taken and those that are refused, each whole; a second entry of the same id is
 * refused.
 * @param seen ids of earlier parts of the same file
 */
export function checkEntries<T extends { readonly id: string }>(
  entries: readonly Entry[],
  schema: z.ZodType<T>,
  seen = new Set<string>(),
): CheckedEntries<T> {
  const good: { row: number; name: string; item: T }[] = [];
  const refused: ImportRow[] = [];
  for (const { row, name, value, broken } of entries) {
    const errors = broken === null ? [] : [{ path: '', message: broken }];
    const result = broken === null ? schema.safeParse(value) : null;
    if (result?.success === false) errors.push(...fieldErrors(result.error).slice(0, 8));
    if (result?.success === true && seen.has(result.data.id))
      errors.push({ path: 'id', message: 'another row of this file has this id' });
    if (errors.length > 0) refused.push({ row, name: name.slice(0, 80), result: 'refused', errors });
    else if (result?.success === true) {
      seen.add(result.data.id);
      good.push({ row, name, item: result.data });
    }
  }
  return { good, refused };
}

const named = 200;

/** The report of an import: counts of all, the refused ones named first. */
export function reportOf(rows: readonly ImportRow[], dryRun: boolean): ImportReport {
  const count = (result: ImportRow['result']) => rows.reduce((sum, row) => sum + (row.result === result ? 1 : 0), 0);
  const sorted = [...rows].sort(
    (a, b) => Number(b.result === 'refused') - Number(a.result === 'refused') || a.row - b.row,
  );
  return {
    dryRun,
    rows: rows.length,
    added: count('added'),
    updated: count('updated'),
    same: count('same'),
    known: count('known'),
    refused: count('refused'),
    named: sorted.slice(0, named),
  };
}
