import { createHash } from 'node:crypto';
import type { Request, Response } from 'express';
import type pg from 'pg';
import { readShelf, shelfStamp, type Shelf } from './shelf.ts';

interface Answer {
  readonly text: string;
  readonly etag: string;
}

const answers = new WeakMap<object, Answer>();

/** A part of the shelf in words and their mark, both made once. */
function answerOf<T extends object>(part: T, parse: (part: T) => unknown): Answer {
  const known = answers.get(part);
  if (known !== undefined) return known;
  const text = JSON.stringify(parse(part));
  const answer = { text, etag: `"${createHash('sha256').update(text).digest('base64url')}"` };
  answers.set(part, answer);
  return answer;
}

/**
 * Answers with a part of the shelf, marked by what it says: a browser that has it already hears 304, whatever else on
 * the shelf has changed. What is sent is put into words once for a shelf.
 * @param part the same object for the same shelf
 * @param parse holds the part to the schema of the answer
 */
export async function sendFromShelf<T extends object>(
  request: Request,
  response: Response,
  pool: pg.Pool,
  part: (shelf: Shelf) => T,
  parse: (part: T) => unknown,
): Promise<void> {
  const { text, etag } = answerOf(part(await readShelf(pool, await shelfStamp(pool))), parse);
  response.set('cache-control', 'private, no-cache').set('etag', etag);
  if (request.fresh) response.status(304).end();
  else response.type('application/json').send(text);
}
