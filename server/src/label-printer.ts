import { printedSchema } from '@fairwatt/contract';
import { maybeOne, type Queryable } from './database/query.ts';
import { deadline } from './deadline.ts';
import { text } from './database/read.ts';

/** Where labels are printed; null where nobody entered a printer. */
export const readLabelPrinter = (db: Queryable): Promise<string | null> =>
  maybeOne(db, 'select url from label_printer', [], (row) => text(row, 'url'));

export async function writeLabelPrinter(db: Queryable, url: string): Promise<void> {
  await db.query('insert into label_printer (url) values ($1) on conflict (only_row) do update set url = $1', [url]);
}

/** What went wrong with a print job. */
export class PrinterFailure extends Error {}

/** Sends a PDF to the printer. @throws PrinterFailure when it is silent, refuses or does not say what it printed */
export async function printPdf(
  url: string,
  document: Buffer,
  timeoutMilliseconds = 8000,
): Promise<{ readonly job: string; readonly labels: number }> {
  const { signal, met } = deadline(timeoutMilliseconds);
  let response: Response;
  let body: string;
  try {
    response = await fetch(url, {
      method: 'POST',
      redirect: 'error',
      signal,
      headers: { 'content-type': 'application/pdf' },
      body: new Uint8Array(document),
    });
    body = (await response.text()).slice(0, 2000);
  } catch {
    throw new PrinterFailure(
      signal.aborted
        ? `the printer did not answer within ${timeoutMilliseconds / 1000} s; look whether it printed`
        : 'the printer cannot be reached, or broke off',
    );
  } finally {
    met();
  }
  if (response.status === 503) throw new PrinterFailure('the printer is out of labels');
  const read = response.status === 201 ? printedSchema.safeParse(jsonOf(body)) : null;
  if (read?.success !== true)
    throw new PrinterFailure(`the printer answered ${response.status} and does not say what it printed`);
  return read.data;
}

function jsonOf(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    // No JSON is no answer; the schema says so.
    return null;
  }
}
