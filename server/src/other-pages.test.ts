import { request as ask, type IncomingHttpHeaders } from 'node:http';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startServer, type RunningServer } from '../../tests/running-server.ts';

let server: RunningServer;
let port: string;
beforeAll(async () => {
  server = await startServer();
  ({ port } = new URL(server.base));
});
afterAll(async () => {
  await server.end();
});

/** A request with exactly these headers, as a browser would send it. */
const send = (headers: Record<string, string>, method = 'GET', path = '/api/jobs/LQ-0142', body = '') =>
  new Promise<{ status: number; headers: IncomingHttpHeaders; text: string }>((resolve, reject) => {
    const request = ask(`http://127.0.0.1:${port}${path}`, { method, headers }, (response) => {
      let text = '';
      response.on('data', (chunk: Buffer) => (text += chunk.toString()));
      response.on('end', () => resolve({ status: response.statusCode ?? 0, headers: response.headers, text }));
    });
    request.on('error', reject);
    request.end(body);
  });
const message = (id: string) =>
  JSON.stringify({ id, by: 'mara', act: { kind: 'note-outcome', id, checkId: 'look-dust', outcomeId: 'clean' } });
const write = (headers: Record<string, string>, id: string) =>
  send({ 'content-type': 'application/json', ...headers }, 'POST', '/api/jobs/LQ-0142/acts', message(id));
const uuid = (figure: number) => `00000000-0000-4000-8000-${String(figure).padStart(12, '0')}`;

describe('another web page in the same browser', () => {
  it.each(['127.0.0.1', 'localhost', '192.168.1.20', '[::1]'])('is not taken for it under %s', async (host) => {
    expect((await send({ host: `${host}:${port}` })).status).toBe(200);
  });
  it.each(['evil.example', 'localhost.evil.example', '127.0.0.1.evil.example', 'xn--lcalhost-fza'])(
    'whose name leads here gets nothing: “%s”',
    async (host) => {
      const answer = await send({ host: `${host}:${port}` });
      expect(answer.status).toBe(421);
      expect(answer.text).not.toContain('Radio playout');
    },
  );
  it('gets not even the screen under its own name', async () => {
    expect((await send({ host: `evil.example:${port}` }, 'GET', '/')).status).toBe(421);
  });
  it.each<[string, Record<string, string>]>([
    ['says that it is another site', { 'sec-fetch-site': 'cross-site', origin: 'http://evil.example' }],
    ['is of the same machine, from another port', { 'sec-fetch-site': 'same-site', origin: 'http://127.0.0.1:9999' }],
    ['says its origin only', { origin: 'http://evil.example' }],
    ['has no origin that can be named', { origin: 'null' }],
  ])('changes nothing when it %s', async (_what, headers) => {
    const answer = await write(headers, uuid(1));
    expect(answer.status).toBe(403);
    expect(answer.headers['content-type']).toContain('application/problem+json');
    expect((await send({})).text).not.toContain(uuid(1));
  });
  it.each([
    'application/x-www-form-urlencoded',
    'multipart/form-data; boundary=x',
    'text/plain',
    'Text/Plain; charset=UTF-8',
  ])('is not read as a form: %s', async (type) => {
    const picture = `/api/jobs/LQ-0142/photos?id=${uuid(9)}&by=mara&caption=`;
    for (const answer of [
      await send({ 'content-type': type }, 'POST', '/api/jobs/LQ-0142/acts', message(uuid(4))),
      await send({ 'content-type': type }, 'POST', picture, 'picture'),
    ])
      expect([answer.status, answer.text.includes('/problems/a-form')]).toEqual([415, true]);
    expect((await send({})).text).not.toContain(uuid(4));
  });
  it.each<[string, Record<string, string>]>([
    ['the screen itself', { 'sec-fetch-site': 'same-origin' }],
    ['a program without a browser', {}],
  ])('is not %s', async (what, headers) => {
    const own = what === 'the screen itself' ? { ...headers, origin: `http://127.0.0.1:${port}` } : headers;
    const id = uuid(what === 'the screen itself' ? 2 : 3);
    expect((await write(own, id)).status).toBe(200);
    expect((await send({})).text).toContain(id);
  });
});
