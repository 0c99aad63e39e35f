import type { Request, Response } from 'express';
import Papa from 'papaparse';
import type pg from 'pg';
import type { z } from 'zod';
import { importMessageSchema, importReportSchema, type ImportReport, type ImportRow } from '@fairwatt/contract';
import { signedInput } from '../access/index.ts';
import { transaction } from '../database/query.ts';
import { HttpProblem } from '../problems.ts';
import { checkLongFile, reportOf, UnreadableFile, type Entry } from './import.ts';

/** A row of a file that is as it should be. */
export interface GoodRow<T> {
  readonly row: number;
  readonly name: string;
  readonly item: T;
}

/** How the things of one kind are taken out of a file. */
interface Taking<T> {
  readonly schema: z.ZodType<T>;
  /** The rows of the file; throws an `UnreadableFile` where it is none. */
  readonly entriesOf: (format: 'csv' | 'json', text: string) => Entry[];
  /** What is here already, of those that the file names at least. */
  readonly here: (db: pg.PoolClient, ids: readonly string[]) => Promise<readonly T[]>;
  readonly same: (was: T, item: T) => boolean;
  readonly write: (db: pg.PoolClient, added: readonly T[], updated: readonly T[]) => Promise<void>;
}

/** A file that cannot be read is told at its text. */
export const unreadable = (error: unknown): never => {
  if (error instanceof UnreadableFile)
    throw new HttpProblem(422, 'unreadable-file', error.message, {
      errors: [{ path: 'text', message: error.message }],
    });
  throw error;
};

/**
 * Somebody's file, checked row by row and taken in one transaction: what is new is added, what is here already is
 * written over where that was asked for.
 * @param progress told now and then how many rows of how many are checked
 */
export async function takeFile<T extends { readonly id: string }>(
  pool: pg.Pool,
  request: Request,
  { schema, entriesOf, here, same, write }: Taking<T>,
  progress: (rows: number, of: number) => void,
): Promise<ImportReport> {
  const message = await signedInput(pool, request, importMessageSchema, request.body, 'The file');
  const { format, text, update, dryRun } = message;
  let entries: Entry[];
  try {
    entries = entriesOf(format, text);
  } catch (error) {
    return unreadable(error);
  }
  const { good, refused } = await checkLongFile(entries, schema, (rows) => progress(rows, entries.length));
  return transaction(pool, async (db) => {
    const ids = good.map(({ item }) => item.id);
    const known = new Map((await here(db, ids)).map((item) => [item.id, item]));
    const resultOf = ({ item }: GoodRow<T>): ImportRow['result'] => {
      const was = known.get(item.id);
      if (was === undefined) return 'added';
      if (same(was, item)) return 'same';
      return update ? 'updated' : 'known';
    };
    const sorted = good.map((row) => ({ ...row, result: resultOf(row) }));
    const those = (result: ImportRow['result']) =>
      sorted.filter((row) => row.result === result).map(({ item }) => item);
    if (!dryRun) await write(db, those('added'), those('updated'));
    const taken = sorted.map(({ row, name, result }): ImportRow => ({ row, name, result, errors: [] }));
    return importReportSchema.parse(reportOf([...refused, ...taken], dryRun));
  });
}

/** Sends rows as a file of comma-separated values; what a spreadsheet would take for a formula is quoted. */
export function sendCsv(
  response: Response,
  name: string,
  columns: readonly string[],
  rows: readonly Readonly<Record<string, string>>[],
): void {
  response
    .set('content-disposition', `attachment; filename="${name}"`)
    .type('text/csv')
    .send(Papa.unparse([...rows], { columns: [...columns], newline: '\n', escapeFormulae: true }) + '\n');
}
