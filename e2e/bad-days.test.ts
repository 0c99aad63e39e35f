import { fileURLToPath } from 'node:url';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ElementHandle, Page } from 'puppeteer-core';
import { describe, expect, it } from 'vitest';
import type { Job } from '@fairwatt/core';
import { control, fill, goStation, goTo, isActs, press, saved, seeText, settled, visit } from './application.ts';
import { selectAll } from './pressing.ts';
import { openPage } from './browser.ts';
import { intercepted } from './intercepted.ts';
import { application, chromium } from './running.ts';

const open = async (path: string, options?: Parameters<typeof openPage>[1]): Promise<Page> => {
  const page = await openPage(chromium.browser, options);
  await visit(page, `${application.url}${path}`);
  return page;
};
const stored = async (code: string) => (await (await fetch(`${application.url}/api/jobs/${code}`)).json()) as Job;
const typeAtEnd = async (page: Page, name: string, text: string) => {
  const field = await control(page, name);
  await field.focus();
  await page.keyboard.press('End');
  await page.keyboard.type(text);
};

/** A page of a job whose sheet somebody else changes after this window fetched it, before its first change arrives. */
async function openWhile(code: string, changes: Record<string, string>): Promise<Page> {
  const before = await stored(code);
  const page = await openPage(chromium.browser);
  let done = false;
  await intercepted(page, (request) => {
    if (done || !isActs(request.url())) {
      void request.continue();
      return;
    }
    done = true;
    const body = JSON.stringify({
      id: crypto.randomUUID(),
      by: 'joss',
      act: { kind: 'edit-sheet', changes, basedOn: before.sheet.version },
    });
    void fetch(`${application.url}/api/jobs/${code}/acts`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body,
    }).then(() => request.continue());
  });
  await visit(page, `${application.url}/jobs/${code}/intake`);
  return page;
}

describe('the server goes away', () => {
  it('says so, keeps what is typed through a reload, and sends it when it is back', async () => {
    const page = await open('/jobs/LQ-0145/intake');
    await page.waitForFunction(async () => (await navigator.serviceWorker.ready).active?.state === 'activated');
    await page.reload({ waitUntil: 'domcontentloaded' });
    await settled(page);
    await application.stop();
    await typeAtEnd(page, 'Planned upgrade', 'A second drive');
    await seeText(page, 'Server away');
    await seeText(page, 'kept', '.job-head-saveState');
    await page.reload();
    await seeText(page, 'School library desktop', '.job-head-jobHead');
    expect(
      await (await control(page, 'Planned upgrade')).evaluate((element) => (element as HTMLInputElement).value),
    ).toBe('A second drive');
    await seeText(page, 'Server away');
    await application.start();
    await saved(page);
    expect((await stored('LQ-0145')).sheet.upgrade).toBe('A second drive');
    await page.waitForFunction(() => !document.body.innerText.includes('Server away'));
    await page.browserContext().close();
  });
});

describe('two windows', () => {
  it('change the same field: the later one is told, sees both texts, and decides', async () => {
    const page = await openWhile('LQ-0144', { client: 'Theirs' });
    await fill(page, 'Client', 'Mine');
    await seeText(page, 'Theirs: “Theirs”', '[data-conflict]');
    await seeText(page, 'Yours: “Mine”', '[data-conflict]');
    await seeText(page, 'Joss', '[data-conflict]');
    await press(page, 'Use mine');
    await saved(page);
    expect((await stored('LQ-0144')).sheet.client).toBe('Mine');
    await page.browserContext().close();
  });
  it('change the same field: the later one can keep what the other wrote', async () => {
    const page = await openWhile('LQ-0142', { client: 'Theirs' });
    await fill(page, 'Client', 'Mine');
    await seeText(page, 'Theirs: “Theirs”', '[data-conflict]');
    await seeText(page, 'Yours: “Mine”', '[data-conflict]');
    await seeText(page, 'Joss', '[data-conflict]');
    await press(page, 'Keep theirs');
    await page.waitForFunction(() => document.querySelector('[data-conflict]') === null);
    expect((await stored('LQ-0142')).sheet.client).toBe('Theirs');
    await page.browserContext().close();
  });
  it('change different fields: both are kept without a question', async () => {
    const page = await openWhile('LQ-0146', { client: 'Pier office' });
    await fill(page, 'Planned upgrade', 'None');
    await saved(page);
    expect((await stored('LQ-0146')).sheet).toMatchObject({ client: 'Pier office', upgrade: 'None' });
    expect(await page.$('[data-conflict]')).toBeNull();
    await page.browserContext().close();
  });
});

describe('bad addresses and files', () => {
  it('says that a job does not exist', async () => {
    const page = await open('/jobs/LQ-9999');
    await seeText(page, 'There is no job LQ-9999');
    await page.browserContext().close();
  });
  it('refuses a bad job file with its field, imports a good one with a script in it as text', async () => {
    const directory = await mkdtemp(join(tmpdir(), 'fairwatt-import-'));
    const page = await open('/jobs');
    const upload = async (name: string, text: string) => {
      const path = join(directory, name);
      await writeFile(path, text);
      await ((await page.$('input[type=file]')) as ElementHandle<HTMLInputElement>).uploadFile(path);
    };
    const good = await readFile(fileURLToPath(new URL('../demo/jobs/4-school-library.json', import.meta.url)), 'utf8');
    const file = JSON.parse(good) as { version: number; job: { sheet: { words: string; title: string } } };
    await upload('cut.json', good.slice(0, 500));
    await seeText(page, 'This is not JSON, or it is cut off');
    await upload('other.json', JSON.stringify({ ...file, version: 3 }));
    await seeText(page, 'This job file has version 3');
    await upload('large.json', 'x'.repeat(9 * 1024 * 1024));
    await seeText(page, 'at most 8 MB are read');
    await upload(
      'good.json',
      JSON.stringify({
        ...file,
        job: {
          ...file.job,
          sheet: {
            ...file.job.sheet,
            title: 'Imported machine',
            words: '<img src=x onerror="document.title=1"><script>document.title=2</script>',
          },
        },
      }),
    );
    await seeText(page, 'Import under a new code');
    await press(page, 'Import under a new code');
    await seeText(page, 'Imported machine', '.job-head-jobHead');
    await seeText(page, '<script>document.title=2</script>', '.job-head-jobHead');
    expect(await page.title()).toMatch(/^LQ-\d+/);
    await page.browserContext().close();
    await rm(directory, { recursive: true, force: true });
  });
  it('asks who works here before anything can be changed', async () => {
    const page = await open('/jobs/LQ-0145/intake', { technician: null });
    await seeText(page, 'Pick your name at the top right');
    expect(await (await control(page, 'Client')).evaluate((element) => (element as HTMLInputElement).disabled)).toBe(
      true,
    );
    await page.browserContext().close();
  });
});

describe('a piece of the application that does not come', () => {
  it('is asked for once more by itself, then told where it was wanted, and comes with the page', async () => {
    const page = await openPage(chromium.browser);
    let lost = 0;
    let isBack = false;
    await intercepted(page, (request) => {
      if (isBack || !/\/assets\/history-drawer-[^/]*\.js$/.test(request.url())) {
        void request.continue();
        return;
      }
      lost += 1;
      void request.abort();
    });
    await visit(page, `${application.url}/jobs/LQ-0143/intake`);
    // It is asked for once the screen is drawn, and again by the page that is loaded for it.
    await expect.poll(() => lost, { timeout: 30_000 }).toBe(2);
    await settled(page);
    await press(page, 'History');
    await seeText(page, 'This screen has failed');
    isBack = true;
    const again = page.waitForNavigation({ waitUntil: 'domcontentloaded' });
    await press(page, 'Load the page again');
    await again;
    await settled(page);
    await press(page, 'History');
    await seeText(page, 'History of LQ-0143', '.ant-drawer');
    await page.browserContext().close();
  });
});

describe('from one job to the next', () => {
  it('shows nothing of the one that is left while the other is still being fetched', async () => {
    const page = await openPage(chromium.browser);
    let fetches: () => void = () => undefined;
    const held = new Promise<void>((resolve) => {
      fetches = resolve;
    });
    let asked = false;
    await intercepted(page, (request) => {
      const isNext = request.url().endsWith('/api/jobs/LQ-0142');
      asked ||= isNext;
      void (isNext ? held : Promise.resolve()).then(() => request.continue());
    });
    await visit(page, `${application.url}/jobs/LQ-0143/intake`);
    await seeText(page, 'LQ-0143', '#main');
    const drawn = goTo(page, `${application.url}/jobs/LQ-0142/intake`);
    await expect.poll(() => asked).toBe(true);
    await seeText(page, 'Fetching LQ-0142', '#main');
    expect(await page.$eval('body', (body) => body.innerText)).not.toContain('LQ-0143');
    fetches();
    await drawn;
    await seeText(page, /LQ-0142(?! …)/, '#main');
    await page.browserContext().close();
  });
});

describe('sizes, dark variant and names', () => {
  const stations = ['intake', 'fault', 'measure', 'load', 'replacement', 'cables', 'hand-over'];
  it.each([
    [1280, 800],
    [1024, 768],
  ])('does not scroll sideways at %i x %i', async (width, height) => {
    const page = await open('/jobs', { width, height });
    for (const path of [
      '/jobs',
      '/supplies',
      '/instruments',
      ...stations.map((station) => `/jobs/LQ-0142/${station}`),
    ]) {
      await goTo(page, `${application.url}${path}`);
      const wide = await page.evaluate(() =>
        [...document.querySelectorAll<HTMLElement>('html, .shell-content, .page-work, .page-side, .page-page')]
          .filter((element) => element.scrollWidth > element.clientWidth + 1)
          .map((element) => `${element.className || element.tagName} ${element.scrollWidth} > ${element.clientWidth}`),
      );
      expect(wide, path).toEqual([]);
    }
    await page.browserContext().close();
  });
  it('gives every control a name, in light and dark, with contrast of at least 4.5', async () => {
    for (const theme of ['light', 'dark'] as const) {
      const page = await open('/jobs', { theme });
      for (const station of stations) {
        await goTo(page, `${application.url}/jobs/LQ-0142/${station}`);
        const nameless = await page.evaluate(() =>
          [...document.querySelectorAll<HTMLElement>('button, input:not([type=file]), select, textarea, a')]
            .filter((element) => {
              const labelled =
                element instanceof HTMLInputElement ||
                element instanceof HTMLSelectElement ||
                element instanceof HTMLTextAreaElement
                  ? (element.labels?.length ?? 0) > 0
                  : false;
              return !labelled && (element.getAttribute('aria-label') ?? element.textContent).trim() === '';
            })
            .map((element) => element.outerHTML.slice(0, 120)),
        );
        expect(nameless, station).toEqual([]);
        const faint = await page.evaluate(() => {
          const channel = (value: number) => {
            const share = value / 255;
            return share <= 0.03928 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
          };
          const parse = (colour: string) => (/rgba?\(([^)]+)\)/.exec(colour)?.[1] ?? '').split(/[ ,/]+/).map(Number);
          const luminance = (colour: number[]) =>
            0.2126 * channel(colour[0]!) + 0.7152 * channel(colour[1]!) + 0.0722 * channel(colour[2]!);
          const background = (element: Element | null): number[] => {
            for (let at = element; at !== null; at = at.parentElement) {
              const colour = parse(getComputedStyle(at).backgroundColor);
              if (colour.length === 3 || (colour[3] ?? 1) === 1) return colour;
            }
            return [255, 255, 255];
          };
          const out: string[] = [];
          for (const element of document.querySelectorAll<HTMLElement>(
            '.page-station *, .shell-bar *, .station-wire-wire *, .job-head-jobHead *',
          )) {
            if (
              element.closest('svg') !== null ||
              element.matches(':disabled, :disabled *') ||
              ![...element.childNodes].some((node) => node.nodeType === 3 && (node.textContent ?? '').trim() !== '') ||
              element.offsetParent === null
            )
              continue;
            const [a, b] = [luminance(parse(getComputedStyle(element).color)), luminance(background(element))];
            const contrast = (Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05);
            if (contrast < 4.5 && !element.classList.contains('text-visuallyHidden'))
              out.push(`${contrast.toFixed(2)} ${element.className} ${element.textContent.slice(0, 30)}`);
          }
          return [...new Set(out)].slice(0, 8);
        });
        expect(faint, `${theme} ${station}`).toEqual([]);
      }
      await page.browserContext().close();
    }
  });
  it('keeps what is picked and what is drawn readable in colours that the system sets', async () => {
    const page = await openPage(chromium.browser);
    const session = await page.createCDPSession();
    const features = [{ name: 'forced-colors', value: 'active' }];
    await session.send('Emulation.setEmulatedMedia', { features });
    for (const path of [
      '/jobs/LQ-0142/measure',
      '/jobs/LQ-0147/cables?way=plan',
      '/jobs/LQ-0142/replacement?way=trade',
    ]) {
      await visit(page, application.url + path);
      await page.waitForSelector('.ant-segmented-item-selected');
      await page.waitForSelector('main svg:not(.anticon svg), main canvas');
      const seen = await page.evaluate(() => {
        const of = (element: Element | null) => getComputedStyle(element!);
        const drawn = [...document.querySelectorAll('main svg:not(.anticon svg), main canvas')].map(of);
        const node = document.querySelector('.station-wire-wire [aria-current=page] .station-node-node');
        const inNode = node?.firstElementChild ?? node;
        return {
          picked: of(document.querySelector('.ant-segmented-item-selected')).backgroundColor,
          other: of(document.querySelector('.ant-segmented-item:not(.ant-segmented-item-selected)')).backgroundColor,
          mark: of(inNode).color,
          behindMark: of(node).backgroundColor,
          grounds: drawn.map(({ backgroundColor }) => backgroundColor),
          kept: drawn.map((style) => style.getPropertyValue('forced-color-adjust')),
        };
      });
      expect(seen.picked).not.toBe(seen.other);
      expect(seen.mark).not.toBe(seen.behindMark);
      expect(new Set(seen.kept)).toEqual(new Set(['none']));
      expect(seen.grounds).not.toContain('rgba(0, 0, 0, 0)');
    }
    await page.browserContext().close();
  });
  it('does nothing twice while a key is held: one answer, one connector, one step on', async () => {
    const hold = async (page: Page, key: Parameters<Page['keyboard']['down']>[0]) => {
      for (let count = 0; count < 12; count += 1) await page.keyboard.down(key);
      await page.keyboard.up(key);
    };
    const page = await open('/jobs/LQ-0146/fault');
    await page.waitForSelector('[data-check] [data-key="1"]');
    const before = (await stored('LQ-0146')).outcomes.length;
    await hold(page, '1');
    await saved(page);
    expect((await stored('LQ-0146')).outcomes.length).toBe(before + 1);
    const cables = await open('/jobs/LQ-0147/cables?way=plan');
    await cables.waitForSelector('[data-primary]');
    const seated = (await stored('LQ-0147')).seats.filter((seat) => seat.gap).length;
    await hold(cables, 'Enter');
    await saved(cables);
    expect((await stored('LQ-0147')).seats.filter((seat) => seat.gap).length).toBeLessThanOrEqual(seated + 1);
    expect(new URL(cables.url()).pathname).toBe('/jobs/LQ-0147/cables');
    // Text goes on being typed.
    const intake = await open('/jobs/LQ-0145/intake');
    await selectAll(await control(intake, 'Planned upgrade'));
    await hold(intake, 'a');
    expect(
      await (await control(intake, 'Planned upgrade')).evaluate((field) => (field as HTMLInputElement).value),
    ).toBe('a'.repeat(12));
    for (const one of [page, cables, intake]) await one.browserContext().close();
  });
  it('remembers what was pressed while one screen gives way to the next', async () => {
    const page = await open('/jobs/LQ-0142/intake');
    await page.keyboard.press('g');
    await page.waitForSelector('html[data-going]');
    await page.evaluate(() => document.querySelector<HTMLElement>('[data-station=measure]')?.click());
    await page.waitForFunction(() => location.pathname.endsWith('/measure'));
    await page.keyboard.press('5');
    await page.waitForFunction(() => location.pathname.endsWith('/replacement'));
    expect(await page.$('html[data-going]')).toBeNull();
    // Two Enters at once are one: the station that the first leads to does not take the second.
    await visit(page, `${application.url}/jobs/LQ-0142/measure`);
    await page.waitForSelector('[data-primary]');
    await page.evaluate(() => {
      const first = performance.now();
      // A key event says when it was pressed, however late a busy page hears of it.
      const enter = (after: number) => {
        const event = new KeyboardEvent('keydown', { key: 'Enter', bubbles: true });
        Object.defineProperty(event, 'timeStamp', { value: first + after });
        document.body.dispatchEvent(event);
      };
      const pressed: string[] = [];
      document.addEventListener('click', ({ target }) => {
        if (target instanceof Element && target.closest('[data-primary]') !== null) pressed.push(location.pathname);
      });
      Object.assign(globalThis, { pressed });
      enter(0);
      for (const after of [30, 200]) setTimeout(enter, after, after);
    });
    await new Promise((resolve) => {
      setTimeout(resolve, 500);
    });
    expect(await page.evaluate(() => (globalThis as unknown as { pressed: string[] }).pressed)).toHaveLength(1);
    await page.browserContext().close();
  });
  it('moves between stations by keyboard and shows the keys', async () => {
    const page = await open('/jobs/LQ-0142/intake');
    for (const digit of [2, 3, 4, 5, 6, 7, 1]) await goStation(page, digit);
    await page.keyboard.press('?');
    await seeText(page, 'go to a station', '[role=dialog]');
    await page.keyboard.press('Escape');
    await page.waitForFunction(() => document.querySelector('[role=dialog]') === null);
    // Who speaks the text or rests a hand on the keys switches those off that act alone; Enter is left.
    const switchKeys = async () => {
      await press(page, 'Show the keys');
      await press(page, 'Digits and letters act by themselves');
      await page.keyboard.press('Escape');
      await page.waitForFunction(() => document.querySelector('[role=dialog]') === null);
    };
    await switchKeys();
    await page.waitForSelector('html[data-single-keys=off]');
    for (const key of ['g', '3', '1', 'n', '?'] as const) await page.keyboard.press(key);
    await page.reload();
    await page.waitForSelector('html[data-single-keys=off] .page-station');
    expect(await page.$('[role=dialog]')).toBeNull();
    expect(new URL(page.url()).pathname).toBe('/jobs/LQ-0142/intake');
    const main = await page.waitForSelector('[data-primary]');
    await page.keyboard.press('Enter');
    await page.waitForFunction((was) => was?.isConnected !== true, {}, main);
    await switchKeys();
    await page.waitForSelector('html[data-single-keys=on]');
    await goStation(page, 3);
    await page.browserContext().close();
  });
});
