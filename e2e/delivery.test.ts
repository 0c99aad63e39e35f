import { Buffer } from 'node:buffer';
import { existsSync } from 'node:fs';
import { mkdtemp, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ElementHandle, Page } from 'puppeteer-core';
import { describe, expect, it } from 'vitest';
import type { Act, Job } from '@fairwatt/core';
import { control, fill, isActs, press, saved, seeText, settled, visit } from './application.ts';
import { openPage } from './browser.ts';
import { intercepted } from './intercepted.ts';
import { patience } from './patience.ts';
import { selectAll } from './pressing.ts';
import { application, chromium } from './running.ts';

const open = async (path: string, options?: Parameters<typeof openPage>[1]): Promise<Page> => {
  const page = await openPage(chromium.browser, options);
  await visit(page, `${application.url}${path}`);
  return page;
};
/** Another tab of the same browser. */
const secondTab = async (page: Page, path: string): Promise<Page> => {
  const other = await page.browserContext().newPage();
  await other.setViewport({ width: 1280, height: 800 });
  await visit(other, `${application.url}${path}`);
  return other;
};
const stored = async (code: string) => (await (await fetch(`${application.url}/api/jobs/${code}`)).json()) as Job;
const somebody = async (code: string, act: Act, by = 'joss') =>
  fetch(`${application.url}/api/jobs/${code}/acts`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ id: crypto.randomUUID(), by, act }),
  });
/** Asked again and again until it is so; tells what there was when it never is. */
const eventually = <T>(read: () => T | Promise<T>) => expect.poll(read, { timeout: patience, interval: 100 });
const valueOf = async (page: Page, name: string) =>
  (await control(page, name)).evaluate((element) => (element as HTMLInputElement).value);

describe('a screen that nobody touches', () => {
  it.each(['/jobs', '/jobs/LQ-0144/cables', '/settings'])('asks the server for nothing: %s', async (path) => {
    const page = await open(path);
    let last = Date.now();
    page.on('request', (request) => {
      if (request.url().includes('/api/') && !request.url().endsWith('/presence')) last = Date.now();
    });
    // What was made anew in the background is fetched once more; then there is rest.
    await eventually(() => Date.now() - last).toBeGreaterThan(2500);
    await page.browserContext().close();
  });
});

describe('an act', () => {
  it('costs one request: what stands now comes with its answer', async () => {
    const page = await open('/jobs/LQ-0144/intake');
    await saved(page);
    const asked: string[] = [];
    page.on('request', (request) => {
      const { pathname } = new URL(request.url());
      if (pathname.startsWith('/api/jobs/LQ-0144')) asked.push(`${request.method()} ${pathname}`);
    });
    for (const words of ['Found', 'Found dusty']) {
      await fill(page, 'Surroundings', words);
      await saved(page);
    }
    await eventually(async () => (await stored('LQ-0144')).sheet.surroundings).toBe('Found dusty');
    await new Promise((resolve) => {
      setTimeout(resolve, 1000);
    });
    expect(asked).toEqual(['POST /api/jobs/LQ-0144/acts', 'POST /api/jobs/LQ-0144/acts']);
    await page.browserContext().close();
  });
});

describe('an answer that is lost', () => {
  it('while the typing goes on: the later text is there in the end, and nothing twice', async () => {
    const page = await openPage(chromium.browser);
    let lost = 0;
    await intercepted(page, (request) => {
      if (lost > 0 || !isActs(request.url())) {
        void request.continue();
        return;
      }
      lost += 1;
      // The server gets it and does it; the browser never hears of that.
      void request
        .fetchPostData()
        .then((body) =>
          fetch(request.url(), {
            method: 'POST',
            headers: { 'content-type': 'application/json' },
            body: body ?? '',
          }),
        )
        .then(() => request.abort());
    });
    await visit(page, `${application.url}/jobs/LQ-0145/intake`);
    await fill(page, 'Client', 'First');
    await eventually(async () => (await stored('LQ-0145')).sheet.client).toBe('First');
    const field = await control(page, 'Client');
    await field.type(' and more');
    await saved(page);
    expect([lost, (await stored('LQ-0145')).sheet.client]).toEqual([1, 'First and more']);
    await page.browserContext().close();
  });
});

describe('two tabs of one browser', () => {
  it('see what the other has unsent, keep it apart while the server is away, and all of it arrives', async () => {
    const one = await open('/jobs/LQ-0144/intake');
    const two = await secondTab(one, '/jobs/LQ-0144/intake');
    await application.stop();
    await one.bringToFront();
    await fill(one, 'Client', 'From the one');
    await two.bringToFront();
    await fill(two, 'Planned upgrade', 'From the two');
    await eventually(() => valueOf(two, 'Client')).toBe('From the one');
    await one.bringToFront();
    await eventually(() => valueOf(one, 'Planned upgrade')).toBe('From the two');
    await one.close();
    await application.start();
    await two.bringToFront();
    await saved(two);
    expect((await stored('LQ-0144')).sheet).toMatchObject({ client: 'From the one', upgrade: 'From the two' });
    await two.browserContext().close();
  });
  it('one that types on where the other has sent its words', async () => {
    const one = await open('/jobs/LQ-0143/intake');
    const two = await secondTab(one, '/jobs/LQ-0143/intake');
    await fill(two, 'Client', 'Written in the second');
    await saved(two);
    await one.bringToFront();
    await eventually(() => valueOf(one, 'Client')).toBe('Written in the second');
    await (await control(one, 'Client')).type(', and on in the first');
    await saved(one);
    expect((await stored('LQ-0143')).sheet.client).toBe('Written in the second, and on in the first');
    expect(await one.$('[data-conflict]')).toBeNull();
    await one.browserContext().close();
  });
});

describe('somebody else', () => {
  it('changes something, and it appears by itself, in the list and in the job', async () => {
    const page = await open('/jobs/LQ-0146/intake');
    const list = await secondTab(page, '/jobs');
    const { sheet } = await stored('LQ-0146');
    await somebody('LQ-0146', { kind: 'edit-sheet', changes: { client: 'Pier office' }, basedOn: sheet.version });
    await seeText(list, 'Pier office');
    await page.bringToFront();
    await seeText(page, 'Pier office', '.job-head-jobHead');
    await page.browserContext().close();
  });
  it('has the same job open, and is named there', async () => {
    const page = await open('/jobs/LQ-0146/intake');
    const other = await open('/jobs/LQ-0146/measure', { technician: 'joss' });
    await page.bringToFront();
    await seeText(page, 'Also at this job');
    await seeText(page, 'Joss P.', '.presence-present');
    await other.browserContext().close();
    await page.browserContext().close();
  });
  it('changes another field while something is typed: what is being typed does not move', async () => {
    const page = await open('/jobs/LQ-0142/intake');
    const field = await control(page, 'Planned upgrade');
    await selectAll(field);
    await field.type('Half a w');
    const { sheet } = await stored('LQ-0142');
    await somebody('LQ-0142', { kind: 'edit-sheet', changes: { surroundings: 'By the sea' }, basedOn: sheet.version });
    await eventually(() => valueOf(page, 'Surroundings')).toBe('By the sea');
    await field.type('ord');
    expect(await valueOf(page, 'Planned upgrade')).toBe('Half a word');
    await saved(page);
    expect((await stored('LQ-0142')).sheet).toMatchObject({ surroundings: 'By the sea', upgrade: 'Half a word' });
    await page.browserContext().close();
  });
  it('changed the same part: both states stand side by side, and each field can be picked', async () => {
    const page = await openPage(chromium.browser);
    // What is typed here is held on its way until somebody else was quicker.
    let once: Promise<unknown> | null = null;
    // Not before it is typed here, or it would be typed over what the other wrote.
    const theirs = () =>
      (once ??= stored('LQ-0142').then(({ sheet }) =>
        somebody('LQ-0142', {
          kind: 'edit-sheet',
          changes: { client: 'Theirs', upgrade: 'Theirs too' },
          basedOn: sheet.version,
        }),
      ));
    let typed: () => void = () => undefined;
    const both = new Promise<void>((resolve) => {
      typed = resolve;
    });
    await intercepted(page, (request) => {
      if (isActs(request.url())) void both.then(theirs).then(() => request.continue());
      else if (!request.url().endsWith('/events')) void request.continue();
    });
    await visit(page, `${application.url}/jobs/LQ-0142/intake`);
    // Both at once, as a browser does that fills in a form by itself.
    await control(page, 'Planned upgrade');
    await page.evaluate(() => {
      const write = (name: string, text: string) => {
        const label = [...document.querySelectorAll<HTMLElement>('label.entry-field')].find((one) =>
          one.textContent.startsWith(name),
        );
        const field = label?.querySelector('input, textarea');
        if (field == null) throw new Error(`no field ${name}`);
        Object.getOwnPropertyDescriptor(field.constructor.prototype, 'value')?.set?.call(field, text);
        field.dispatchEvent(new Event('input', { bubbles: true }));
      };
      write('Client', 'Mine');
      write('Planned upgrade', 'Mine too');
    });
    typed();
    await seeText(page, 'Theirs: “Theirs”', '[data-conflict]');
    await press(page, 'Client: theirs');
    await press(page, 'Keep as picked');
    await saved(page);
    expect((await stored('LQ-0142')).sheet).toMatchObject({ client: 'Theirs', upgrade: 'Mine too' });
    await page.browserContext().close();
  });
});

describe('while the server is away', () => {
  it('what was confirmed last stays on the screen, also when the page is loaded anew', async () => {
    const page = await open('/jobs/LQ-0146/intake');
    await page.waitForFunction(() => navigator.serviceWorker.controller !== null);
    await page.reload();
    await settled(page);
    const earlier = await valueOf(page, 'Client');
    await fill(page, 'Client', 'Confirmed before it went');
    await saved(page);
    await application.stop();
    await page.evaluate(() => window.dispatchEvent(new Event('focus')));
    await page.reload();
    await eventually(() => valueOf(page, 'Client')).toBe('Confirmed before it went');
    // An older answer is kept: a page that has the later one does not take it.
    await page.evaluate(async (client: string) => {
      const cache = await caches.open('fairwatt-answers');
      const kept = await cache.match('/api/jobs/LQ-0146');
      const job = (await kept?.json()) as Job;
      const older = { ...job, sheet: { ...job.sheet, client } };
      await cache.put('/api/jobs/LQ-0146', new Response(JSON.stringify(older)));
      const asked = performance.getEntriesByType('resource').length;
      window.dispatchEvent(new Event('focus'));
      while (performance.getEntriesByType('resource').length === asked) await new Promise(requestAnimationFrame);
    }, earlier);
    expect(await valueOf(page, 'Client')).toBe('Confirmed before it went');
    await application.start();
    await page.browserContext().close();
  });
  it('the page stays, also where it goes while a piece of the page is on its way', async () => {
    const page = await openPage(chromium.browser);
    let goes: () => void = () => undefined;
    const gone = new Promise<void>((resolve) => {
      goes = resolve;
    });
    let lost = 0;
    await intercepted(page, (request) => {
      if (!request.url().includes('/assets/conflict-cards-')) {
        void request.continue();
        return;
      }
      lost += 1;
      void gone.then(() => request.abort('connectionrefused'));
    });
    await visit(page, `${application.url}/jobs/LQ-0143/intake`);
    await eventually(() => lost).toBeGreaterThan(0);
    await application.stop();
    goes();
    await seeText(page, 'Server away');
    await fill(page, 'Surroundings', 'Typed while it is away');
    await seeText(page, '1 change is kept in this browser');
    await application.start();
    await saved(page);
    expect((await stored('LQ-0143')).sheet.surroundings).toBe('Typed while it is away');
    await page.browserContext().close();
  });
  it('a new job and a picture are kept, and sent in order when it is back', async () => {
    const page = await open('/jobs/LQ-0143/cables?way=was');
    const before = ((await (await fetch(`${application.url}/api/jobs?state=all`)).json()) as { total: number }).total;
    const directory = await mkdtemp(join(tmpdir(), 'fairwatt-away-'));
    const picture = join(directory, 'harness.png');
    await writeFile(picture, Buffer.from(await page.screenshot({ type: 'png' })));
    await application.stop();
    const input = (await page.waitForSelector(
      'input[aria-label="Choose pictures"]',
    )) as ElementHandle<HTMLInputElement>;
    await input.uploadFile(picture);
    await seeText(page, 'the picture is kept here');
    await page.keyboard.press('n');
    await fill(page, 'Machine', 'Made while away');
    await press(page, 'Make the job');
    await seeText(page, 'The job is kept in this browser');
    await page.keyboard.press('Escape');
    await seeText(page, '2 changes are kept in this browser');
    await application.start();
    await eventually(async () => {
      const list = (await (await fetch(`${application.url}/api/jobs?state=all`)).json()) as { total: number };
      const photos = (await (await fetch(`${application.url}/api/jobs/LQ-0143/photos`)).json()) as unknown[];
      return [list.total, photos.length];
    }).toEqual([before + 1, 1]);
    await page.browserContext().close();
  });
});

describe('a browser that keeps nothing', () => {
  it('works, says so, and hands out what is unsent as a file that can be read back in', async () => {
    const page = await openPage(chromium.browser);
    await page.evaluateOnNewDocument(() => {
      const denied = () => {
        throw new DOMException('denied', 'SecurityError');
      };
      Object.defineProperty(window, 'indexedDB', { get: denied });
    });
    await visit(page, `${application.url}/jobs/LQ-0145/intake`);
    await seeText(page, 'This browser keeps nothing');
    await fill(page, 'Surroundings', 'Dust');
    await saved(page);
    expect((await stored('LQ-0145')).sheet.surroundings).toBe('Dust');
    const directory = await mkdtemp(join(tmpdir(), 'fairwatt-unsent-'));
    const session = await page.createCDPSession();
    await session.send('Browser.setDownloadBehavior', {
      behavior: 'allow',
      downloadPath: directory,
      browserContextId: page.browserContext().id ?? '',
    });
    await application.stop();
    await fill(page, 'Surroundings', 'Metal dust');
    await seeText(page, 'kept', '.job-head-saveState');
    await press(page, 'Save what is unsent');
    const path = join(directory, 'fairwatt-unsent.json');
    await eventually(() => existsSync(path)).toBe(true);
    await application.start();
    await page.browserContext().close();
    const fresh = await openPage(chromium.browser);
    await fresh.evaluateOnNewDocument(() => {
      Object.defineProperty(window, 'indexedDB', { get: () => undefined });
    });
    await visit(fresh, `${application.url}/jobs/LQ-0145/intake`);
    await ((await fresh.$('input[aria-label="File of unsent changes"]')) as ElementHandle<HTMLInputElement>).uploadFile(
      path,
    );
    // One or two: what was typed after the first attempt to send it is a change of its own.
    await seeText(fresh, /changes? read in/);
    await eventually(async () => (await stored('LQ-0145')).sheet.surroundings).toBe('Metal dust');
    await fresh.browserContext().close();
  });
  it('and no small storage either is no blank page', async () => {
    const page = await chromium.browser.newPage();
    await page.evaluateOnNewDocument(() => {
      const denied = () => {
        throw new DOMException('denied', 'SecurityError');
      };
      Object.defineProperty(window, 'indexedDB', { get: denied });
      Object.defineProperty(window, 'localStorage', { get: denied });
    });
    await visit(page, `${application.url}/jobs`);
    await settled(page);
    await seeText(page, 'Who works here?');
    await page.close();
  });
});
