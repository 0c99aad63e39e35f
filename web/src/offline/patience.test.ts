import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { within } from './patience.ts';

let server: Server;
let base: string;
beforeAll(async () => {
  server = createServer((request, response) => {
    if (request.url === '/silent') return;
    response.write('begun');
    if (request.url !== '/stalls') response.end();
  });
  await new Promise<void>((resolve) => {
    server.listen(0, '127.0.0.1', () => resolve());
  });
  base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(() => {
  server.closeAllConnections();
  server.close();
});
const text = (response: Response) => response.text();

describe('a request with an end', () => {
  it('gives what was read', async () => {
    expect(await within(5000, `${base}/`, {}, text)).toBe('begun');
  });
  it.each(['/silent', '/stalls'])('is given up where the server is %s', async (path) => {
    await expect(within(80, `${base}${path}`, {}, text)).rejects.toThrow(/80 ms|abort/);
  });
  it('rejects at once where nobody is there', async () => {
    await expect(within(5000, 'http://127.0.0.1:9', {}, text)).rejects.toThrow();
  });
});
