import { randomBytes } from 'node:crypto';
import { existsSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { join } from 'node:path';
import express, { Router, type RequestHandler, type Response } from 'express';

/** Stands in the built page wherever the nonce of an answer belongs. */
const placeholder = /STYLE-NONCE/g;

/** Each answer has a nonce of its own, by which the browser knows the styles that the page's own script makes. */
export const giveNonce: RequestHandler = (_request, response, next) => {
  response.locals['styleNonce'] = randomBytes(16).toString('base64');
  next();
};

const nonceOf = (response: Response): string => String(response.locals['styleNonce']);

/** The nonce as a source of a content policy. */
export const nonceSource = (_request: IncomingMessage, response: ServerResponse): string =>
  `'nonce-${nonceOf(response as Response)}'`;

/**
 * The built screens: their files, which never change under one name, and the one page for every other address.
 * @param directory where they were built; without a page in it nothing is served
 */
export function screenRoutes(directory: string): Router {
  const router = Router();
  const file = join(directory, 'index.html');
  if (!existsSync(file)) return router;
  const page: RequestHandler = async (_request, response) => {
    // Read anew, since an upgrade builds them anew. Its nonce differs, so that no browser takes it for unchanged.
    const html = await readFile(file, 'utf8');
    response
      .set('cache-control', 'no-cache')
      .type('html')
      .send(html.replace(placeholder, nonceOf(response)));
  };
  router.use(
    '/assets',
    express.static(join(directory, 'assets'), { immutable: true, maxAge: '1y', fallthrough: false }),
  );
  router.get('/index.html', page);
  router.use(
    express.static(directory, {
      index: false,
      setHeaders: (response) => {
        response.setHeader('cache-control', 'no-cache');
      },
    }),
  );
  router.get('/{*path}', page);
  return router;
}
