import type { Request, Response } from 'express';
import type pg from 'pg';
import { readShelf, shelfStamp, type Shelf } from './shelf.ts';

const texts = new WeakMap<object, string>();

/**
 * Answers with a part of the shelf, marked by the shelf's stamp: a browser that has it already hears 304 and nothing is
 * read, and what is sent is put into words once for a shelf.
 * @param parse holds the part to the schema of the answer
 */
export async function sendFromShelf<T extends object>(
  request: Request,
  response: Response,
  pool: pg.Pool,
  part: (shelf: Shelf) => T,
  parse: (part: T) => unknown,
): Promise<void> {
  const stamp = await shelfStamp(pool);
  response.set('cache-control', 'private, no-cache').set('etag', `"${stamp}"`);
  if (request.fresh) {
    response.status(304).end();
    return;
  }
  const wanted = part(await readShelf(pool, stamp));
  const text = texts.get(wanted) ?? JSON.stringify(parse(wanted));
  texts.set(wanted, text);
  response.type('application/json').send(text);
}
