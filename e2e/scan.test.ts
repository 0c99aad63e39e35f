import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import bwip from 'bwip-js/node';
import type { ElementHandle } from 'puppeteer-core';
import { afterAll, describe, expect, it } from 'vitest';
import type { Unit } from '@fairwatt/contract';
import { press, seeText, visit } from './application.ts';
import { openBrowser, openPage } from './browser.ts';
import { page } from './one-page.ts';
import { application } from './running.ts';

const folder = mkdtempSync(join(tmpdir(), 'fairwatt-scan-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** The modules of a two-dimensional code, row by row. */
interface Matrix {
  readonly pixs: readonly number[];
  readonly pixx: number;
  readonly pixy: number;
}

/** A picture of a code as it lies on a bench: white around it, turned. @returns its file */
async function picture(kind: 'qrcode' | 'code128', text: string, turned: 'N' | 'R' = 'N'): Promise<string> {
  const file = join(folder, `${kind}-${text.length}-${turned}.png`);
  const drawn = { bcid: kind, text, scale: 3, padding: 10, backgroundcolor: 'FFFFFF', rotate: turned } as const;
  writeFileSync(file, await bwip.toBuffer({ ...drawn, ...(kind === 'code128' ? { height: 12 } : {}) }));
  return file;
}
/** A film of one still picture: a QR code in the middle of a grey bench. @returns its file */
function film(text: string): string {
  const [width, height, scale] = [640, 480, 8];
  const [{ pixs, pixx, pixy }] = bwip.raw({ bcid: 'qrcode', text }) as unknown as [Matrix];
  const light = Buffer.alloc(width * height, 210);
  const [left, top] = [(width - pixx * scale) / 2, (height - pixy * scale) / 2];
  for (let y = 0; y < pixy * scale; y += 1)
    for (let x = 0; x < pixx * scale; x += 1)
      if (pixs[Math.floor(y / scale) * pixx + Math.floor(x / scale)] === 1)
        light[(Math.floor(top) + y) * width + Math.floor(left) + x] = 25;
  const colour = Buffer.alloc((width * height) / 2, 128);
  const frame = Buffer.concat([Buffer.from('FRAME\n'), light, colour]);
  const file = join(folder, 'bench.y4m');
  writeFileSync(
    file,
    Buffer.concat([Buffer.from(`YUV4MPEG2 W${width} H${height} F10:1 Ip A1:1 C420\n`), frame, frame]),
  );
  return file;
}
/** Opens the scanner and gives it a picture. */
async function scan(file: string): Promise<void> {
  if ((await page.$('[data-scan]')) === null) await press(page, 'Scan a code');
  // This machine has no camera: a picture is asked for.
  await page.waitForSelector('[data-scan=none]');
  const input = (await page.$('[data-scan] input[type=file][multiple]')) as ElementHandle<HTMLInputElement>;
  await input.uploadFile(file);
}
const at = (path: string) =>
  page.waitForFunction((wanted: string) => `${location.pathname}${location.search}` === wanted, {}, path);

describe('a code that is scanned', () => {
  it('leads to the cable of its tag, whatever address the shop had when it was printed', async () => {
    await visit(page, `${application.url}/jobs`);
    await scan(await picture('qrcode', 'https://192.0.2.7:4871/tags/LQ-0144/C02', 'R'));
    await at('/jobs/LQ-0144/cables?way=plan&cable=C02');
    await page.waitForFunction(() => document.querySelector('[data-scan]') === null);
  });
  it('leads to the unit with that serial number, which stands first on the shelf', async () => {
    const units = (await (await fetch(`${application.url}/api/supplies/units`)).json()) as Unit[];
    const { id, serial } = units.findLast((unit) => unit.state === 'new' && unit.serial !== '')!;
    await scan(await picture('code128', serial));
    await at(`/supplies?way=shelf&unit=${id}`);
    await page.waitForFunction(
      (unit: string) => document.querySelector('[data-unit]')?.getAttribute('data-unit') === unit,
      {},
      id,
    );
    expect(await page.$('[data-unit][data-found=true]')).not.toBeNull();
  });
  it('of nothing here is told, and so is a picture without one; the dialog stays', async () => {
    await scan(await picture('qrcode', 'https://elsewhere.example/login'));
    await seeText(page, 'of nothing in this shop: https://elsewhere.example/login', '[data-scan]');
    await scan(new URL('../docs/screenshots/jobs.png', import.meta.url).pathname);
    await seeText(page, 'No code was found on this picture', '[data-scan]');
    await page.keyboard.press('Escape');
    await page.waitForFunction(() => document.querySelector('[data-scan]') === null);
  });
  it('is taken from a scanner that types its address into the search', async () => {
    await visit(page, `${application.url}/jobs`);
    await page.keyboard.press('/');
    await page.keyboard.type('http://192.0.2.7/tags/LQ-0144/C01');
    await page.keyboard.press('Enter');
    await at('/jobs/LQ-0144/cables?way=plan&cable=C01');
  });
  it('is read by the camera, which is let go once it was', async () => {
    const other = await openBrowser(film('https://192.0.2.7:4871/tags/LQ-0144/C02'));
    try {
      const seen = await openPage(other.browser);
      await visit(seen, `${application.url}/jobs`);
      await press(seen, 'Scan a code');
      await seen.waitForFunction(
        () => `${location.pathname}${location.search}` === '/jobs/LQ-0144/cables?way=plan&cable=C02',
      );
      expect(await seen.$('video')).toBeNull();
    } finally {
      await other.close();
    }
  });
});
