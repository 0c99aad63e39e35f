import { mkdir, mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startServer, type RunningServer } from '../../tests/running-server.ts';

let server: RunningServer;
let folder: string;
const page = (words: string) =>
  `<!doctype html><meta property="csp-nonce" nonce="STYLE-NONCE"><script nonce="STYLE-NONCE"></script>${words}`;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'fairwatt-screens-'));
  await mkdir(join(folder, 'assets'));
  await writeFile(join(folder, 'index.html'), page('first'));
  await writeFile(join(folder, 'assets/main-1.js'), 'let it = "STYLE-NONCE";');
  server = await startServer({ webDirectory: folder });
});
afterAll(async () => {
  await server.end();
  await rm(folder, { recursive: true, force: true });
});
async function get(path: string, headers: Record<string, string> = {}) {
  const answer = await fetch(new URL(path, server.base), { headers });
  const policy = answer.headers.get('content-security-policy') ?? '';
  return { answer, text: await answer.text(), styles: /style-src ([^;]*)/.exec(policy)?.[1] ?? '' };
}

describe('the screens', () => {
  it.each(['/', '/index.html', '/jobs/LQ-0142/measure'])(
    'come with a nonce for their styles, and no other style is let in: %s',
    async (path) => {
      const { answer, text, styles } = await get(path);
      expect(answer.status).toBe(200);
      const nonces = [...text.matchAll(/nonce="([^"]*)"/g)].map(([, nonce]) => nonce);
      expect(nonces).toHaveLength(2);
      expect(styles).toBe(`'self' 'nonce-${nonces[0]}'`);
      expect([new Set(nonces).size, text.includes('STYLE-NONCE')]).toEqual([1, false]);
      expect(nonces[0]!.length).toBeGreaterThanOrEqual(20);
    },
  );
  it('have another nonce each time, so that no kept page is taken for an unchanged one', async () => {
    const first = await get('/');
    const second = await get('/', { 'if-none-match': first.answer.headers.get('etag') ?? '*' });
    expect(second.answer.status).toBe(200);
    expect(second.styles).not.toBe(first.styles);
  });
  it('are the newest that were built, without a start', async () => {
    await writeFile(join(folder, 'index.html'), page('second'));
    expect((await get('/')).text).toContain('second');
  });
  it('are made of files that never change under one name', async () => {
    const { answer, text } = await get('/assets/main-1.js');
    expect(text).toBe('let it = "STYLE-NONCE";');
    expect(answer.headers.get('cache-control')).toContain('immutable');
    expect((await get('/assets/gone-1.js')).answer.status).toBe(404);
  });
});
