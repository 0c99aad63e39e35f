import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import type { ElementHandle, Page } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { CableBags, Job } from '@fairwatt/core';
import { choose, fill, goStation, goTo, mainAct, press, pressKey, pressTab, saved, seeText } from './application.ts';
import { openPage } from './browser.ts';
import { doActs, machine, newJob } from './messages.ts';
import { patience } from './patience.ts';
import { application, chromium } from './running.ts';

let page: Page;
let folder: string;
const errors: string[] = [];
beforeAll(async () => {
  page = await openPage(chromium.browser);
  page.on('pageerror', (error) => errors.push(String(error)));
  folder = await mkdtemp(join(tmpdir(), 'fairwatt-cables-'));
});
afterAll(async () => {
  await rm(folder, { recursive: true, force: true });
});
const code = 'LQ-0145';
const primary = () => page.$eval('[data-primary]', (element) => element.textContent);
const blur = () =>
  page.evaluate(() => {
    (document.activeElement as HTMLElement | null)?.blur();
  });
const job = async (of = code) => (await (await fetch(`${application.url}/api/jobs/${of}`)).json()) as Job;
/** Presses Enter on the next step until it no longer begins so. */
async function enterWhile(pattern: RegExp, most = 40): Promise<number> {
  for (let count = 0; ; count += 1) {
    const was = await page.$eval('.page-side', (element) => (element as HTMLElement).innerText);
    if (!pattern.test(await primary()) || count > most) return count;
    await mainAct(page);
    await page.waitForFunction(
      (before: string) => document.querySelector<HTMLElement>('.page-side')?.innerText !== before,
      { timeout: patience },
      was,
    );
  }
}
const choosePhoto = async (name: string, content: Uint8Array | string) => {
  const path = join(folder, name);
  await writeFile(path, content);
  await ((await page.waitForSelector('input[type=file]')) as ElementHandle<HTMLInputElement>).uploadFile(path);
};

describe('the record before', () => {
  it('starts from a likely harness, is corrected, and keeps what stands in the way', async () => {
    await goTo(page, `${application.url}/jobs/${code}/cables`);
    await press(page, 'Start from a likely harness');
    await page.waitForFunction(
      () => document.querySelectorAll('table[aria-label="Recorded cables"] tbody tr').length === 3,
    );
    await seeText(page, '3 cables stand as such cables usually run', '.page-work');
    await press(page, 'Cable A is so');
    await seeText(page, '2 cables stand as such cables usually run', '.page-work');
    await fill(page, 'Way of cable C', 'cage hook, front clip');
    await fill(page, 'Ties to cut on cable C', '2');
    await fill(page, 'Socket of cable A', 'MAIN');
    await fill(page, 'Socket of cable B', 'MAIN');
    await seeText(page, 'another cable is in it too', '.page-work');
    await fill(page, 'Socket of cable B', 'CPU 1');
    await press(page, 'supply on a tray or sled');
    await saved(page);
    // What was changed was looked at.
    expect((await job()).cables.some(({ likely }) => likely === true)).toBe(false);
    expect((await job()).cables.map((cable) => [cable.label, cable.plugs.length, cable.way])).toEqual([
      ['A', 1, ''],
      ['B', 1, ''],
      ['C', 2, 'cage hook, front clip'],
    ]);
    expect((await job()).sheet.hindrances).toEqual(['tray']);
  });
  it('keeps a picture, scaled down here, and says what is none', async () => {
    const large = await page.evaluate(async () => {
      const canvas = new OffscreenCanvas(3200, 2000);
      const pen = canvas.getContext('2d')!;
      pen.fillStyle = '#355';
      pen.fillRect(0, 0, 3200, 2000);
      pen.fillStyle = '#eb8';
      pen.fillRect(200, 200, 1400, 600);
      return [...new Uint8Array(await (await canvas.convertToBlob({ type: 'image/png' })).arrayBuffer())];
    });
    await fill(page, 'What it shows', 'Back of the tray');
    await choosePhoto('back.png', Uint8Array.from(large));
    await page.waitForSelector('.photos-photos img');
    const [photo] = (await (await fetch(`${application.url}/api/jobs/${code}/photos`)).json()) as {
      widthPixels: number;
      heightPixels: number;
      caption: string;
    }[];
    expect(photo).toMatchObject({ widthPixels: 1600, heightPixels: 1000, caption: 'Back of the tray' });
    await choosePhoto('no.jpg', 'this is no picture');
    await seeText(page, /no\.jpg is no picture that this browser can read/);
    await choosePhoto('huge.jpg', Buffer.alloc(60 * 1024 * 1024));
    await seeText(page, /huge\.jpg has 60 MB; pictures up to 40 MB are taken/);
    // Several at once: one that is none does not stop the others.
    const several = (await page.waitForSelector(
      'input[aria-label="Choose pictures"]',
    )) as ElementHandle<HTMLInputElement>;
    await several.uploadFile(...['back.png', 'no.jpg', 'back.png'].map((name) => join(folder, name)));
    await page.waitForFunction(() => document.querySelectorAll('.photos-photos img').length === 3);
    await seeText(page, /no\.jpg is no picture/);
  });
});

describe('taking out', () => {
  it('goes step by step with one key, cautions at their step, in an order that can be changed', async () => {
    await goStation(page, 5);
    await page.waitForSelector('.candidate-list-candidate');
    await page.keyboard.press('Enter');
    await page.waitForFunction(
      () => document.querySelectorAll('.station-wire-wire a')[5]?.getAttribute('aria-current') === 'page',
    );
    await pressTab(page, 'Take out');
    await seeText(page, 'Nothing is unplugged while the lead is in', '.page-side');
    await press(page, 'Change the order');
    await press(page, 'Later: Unplug Main 24, cable A');
    await page.waitForFunction(
      () =>
        [...document.querySelectorAll('[data-step=unplug] strong')][0]?.textContent.includes('Processor 4') === true,
    );
    await press(page, 'Keep this order');
    expect(await enterWhile(/^Done, next/)).toBeGreaterThan(9);
    await seeText(page, 'All done', '.page-side');
    await saved(page);
    expect((await job()).steps.map((step) => step.stepId)).toContain('take-out:tray-out');
    expect((await job()).stepOrders).toHaveLength(1);
  });
});

describe('the plan', () => {
  it('is moved by keyboard, and says what each other plug would break', async () => {
    await pressTab(page, 'Plan and refit');
    await page.waitForSelector('[data-harness]');
    await page.$eval('[data-inlet][aria-label^="Optical"]', (element) => (element as SVGGElement).focus());
    await page.keyboard.press('Space');
    await pressKey(page, 'm');
    await page.waitForSelector('[data-way-plug] input');
    await seeText(page, 'breaks nothing', '.move-plug-ways');
    await page.keyboard.press('Space');
    await page.keyboard.press('Enter');
    await page.waitForSelector('[data-inlet][aria-label*="by hand"]');
    await saved(page);
    expect((await job()).pins).toHaveLength(1);
  });
  it('takes an extension that somebody wishes between plug and inlet, and says what comes of it', async () => {
    const own = await newJob('Cables behind the tray');
    await doActs(own, ...machine(['board']), {
      kind: 'set-choice',
      choice: { kind: 'replace', modelId: 'corvane-650-s', known: [], reason: 'fits' },
      basedOn: 0,
    });
    const other = await openPage(chromium.browser);
    await goTo(other, `${application.url}/jobs/${own}/cables?way=plan`);
    await other.$eval('[data-inlet][aria-label^="Processor"]', (element) => (element as SVGGElement).focus());
    await other.keyboard.press('Space');
    await pressKey(other, 'm');
    await seeText(other, 'as it is planned now', '.move-plug-ways');
    await other.$eval('[data-way-plug]:first-of-type input', (element) => (element as HTMLElement).focus());
    await other.keyboard.press('Space');
    await choose(other, 'Between plug and inlet', 'AD-01');
    await seeText(other, 'breaks nothing', '[data-way-plug]:first-of-type');
    await press(other, 'Put it there');
    await other.waitForSelector('[data-inlet][aria-label^="Processor"][aria-label*="through AD-01"]');
    await seeText(other, 'AD-01', '.page-side');
    await saved(other);
    expect((await job(own)).pins).toMatchObject([{ kitCableId: 'cpu', adapterId: expect.any(String) as string }]);
    await goTo(other, `${application.url}/jobs/${own}/cables?way=changes`);
    await seeText(other, /AD-01/);
    await other.close();
  });
  it('puts what stays over of the kit into the bags in one act, once', async () => {
    const count = Number(await page.$eval('[data-into-bags=leftovers]', (one) => one.getAttribute('data-left')));
    expect(count).toBeGreaterThan(1);
    await press(page, `Put these ${count} into Cable bags`);
    await page.waitForSelector('[data-into-bags=leftovers][data-left="0"]');
    await seeText(page, 'They stand in Cable bags', '[data-into-bags=leftovers]');
    const { cables } = (await (await fetch(`${application.url}/api/cable-bags`)).json()) as CableBags;
    const mine = cables.filter(({ label }) => label.startsWith(code));
    expect(mine).toHaveLength(count);
    expect(new Set(mine.map(({ note }) => note))).toEqual(new Set([`Left over from ${code}`]));
  });
  it('is ticked by keyboard, connector by connector, and looked at once more after tying', async () => {
    await blur();
    // One tick after the other; all of them at once only by saying so.
    const ticks = await page.$$eval('.refit-view-seatKeys .keys-key', (keys) => keys.length);
    const first = await page.$eval('.page-side .text-decides', (element) => element.textContent);
    for (let tick = 0; tick < ticks; tick += 1) {
      expect((await job()).seats.filter(({ gap }) => gap)).toHaveLength(0);
      const label = await primary();
      await mainAct(page);
      await page.waitForFunction(
        (was: string) => document.querySelector('[data-primary]')?.textContent !== was,
        {},
        label,
      );
    }
    expect(await page.$eval('.page-side .text-decides', (element) => element.textContent)).not.toBe(first);
    await pressKey(page, 'a');
    await page.waitForFunction(() => document.querySelectorAll('[data-harness] [data-state=seated]').length >= 2);
    expect(await enterWhile(/^(?!Tied|Steps|Prove)/)).toBeGreaterThanOrEqual(4);
    await seeText(page, /Tied, and all 4 looked at again/, '.page-side');
    expect(await enterWhile(/^Tied/)).toBe(1);
    await seeText(page, 'Steps of the refit', '.page-side');
    await saved(page);
    const { seats } = await job();
    expect(seats).toHaveLength(4);
    expect(seats.every((seat) => seat.rechecked !== null && seat.click && seat.tug && seat.gap)).toBe(true);
    expect(
      await page.$$eval('[data-harness] [data-state]', (rows) => rows.map((row) => row.getAttribute('data-state'))),
    ).toEqual(['seated', 'seated', 'seated', 'seated']);
  });
  it('asks after tying which way each cable was laid, with the old one to be taken over', async () => {
    await mainAct(page);
    await page.waitForSelector('[data-step]');
    const next = () => page.$eval('.page-side .text-decides', (element) => element.textContent);
    for (let count = 0; !(await next()).startsWith('Write down the way') && count < 25; count += 1) {
      const was = await next();
      await mainAct(page);
      await page.waitForFunction(
        (before: string) => document.querySelector('.page-side .text-decides')?.textContent !== before,
        {},
        was,
      );
    }
    // What is to be ticked is said before anything is written.
    await seeText(page, 'Done, none of', '.page-side');
    const old = await page.waitForSelector('[aria-label$="as before"]');
    await old?.click();
    await saved(page);
    expect((await job()).laidWays.map(({ way }) => way)).toEqual(['cage hook, front clip']);
    await fill(page, 'Way of C01 as it was laid', 'along the edge');
    await saved(page);
    const csv = await (await fetch(`${application.url}/api/jobs/${code}/cables.csv`)).text();
    expect(csv).toContain('along the edge');
    expect(csv).toContain('cage hook, front clip');
  });
  it('moved by drag into an inlet where it does not belong, is wrong at once, and can be given back', async () => {
    await goTo(page, `${application.url}/jobs/LQ-0147/cables?way=plan`);
    const middle = async (label: string) => {
      const box = (await (await page.waitForSelector(`[data-inlet][aria-label^="${label}"] rect`))!.boundingBox())!;
      return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
    };
    const from = await middle('Film drive 3');
    const to = await middle('Pump');
    await page.mouse.move(from.x, from.y);
    await page.mouse.down();
    await page.mouse.move((from.x + to.x) / 2, (from.y + to.y) / 2, { steps: 4 });
    await page.mouse.move(to.x, to.y, { steps: 4 });
    await page.mouse.up();
    await page.waitForSelector('[data-inlet][data-state=wrong][aria-label^="Pump"]');
    await seeText(page, 'The plug (SATA power) does not belong in Pump', '.page-work');
    await seeText(page, 'Wrong plug.', '.page-side');
    await press(page, 'leave it to the plan');
    await page.waitForSelector('[data-inlet][data-state=unplugged][aria-label^="Pump"]');
    await saved(page);
    expect((await job('LQ-0147')).pins).toEqual([]);
  });
  it("lights a whole cable from its tag's address; a tag of a job that is gone says so", async () => {
    await goTo(page, `${application.url}/tags/LQ-0147/C07`);
    await page.waitForSelector('[data-harness] [data-lit=true]');
    expect(await page.$$eval('[data-lit=true]', (rows) => rows.length)).toBe(3);
    await goTo(page, `${application.url}/tags/LQ-9999/C01`);
    await seeText(page, 'There is no job LQ-9999');
  });
  it('says what each cable carries, and follows a corrected way', async () => {
    await goTo(page, `${application.url}/jobs/LQ-0147/cables?way=carry`);
    await seeText(page, /\d\.\d of 7 A/, '.page-side');
    await fill(page, 'Way to Main 24 in millimetres', '640');
    await page.keyboard.press('Enter');
    await seeText(page, /6\d\d mm · take the usual|450 mm · take the usual/, 'table[aria-label="Places and ways"]');
    await saved(page);
    await pressTab(page, 'Plan and refit');
    await page.waitForSelector('[data-inlet][data-state=open][aria-label^="Main 24"]');
    await page.$eval('[data-inlet][aria-label^="Main 24"]', (element) => {
      element.dispatchEvent(new MouseEvent('click', { bubbles: true }));
    });
    await seeText(page, /Main 24: 40 mm too short\./, '[data-why-open]');
    await seeText(page, /an extension \(24-pin main\) of 40 mm for Main 24/, '[data-why-open]');
  });
});

describe('paper', () => {
  it('has the tags as PDF with their text, and before against after on the screen', async () => {
    await goTo(page, `${application.url}/jobs/${code}/cables?way=changes`);
    await seeText(page, 'Nothing is open', '.page-side');
    await page.waitForSelector('[data-change=replaced]');
    const address = await page.$eval('a[href*="labels.pdf"]', (link) => link.href);
    const bytes = new Uint8Array(await (await fetch(address)).arrayBuffer());
    const document = await getDocument({ data: bytes, verbosity: 0 }).promise;
    const text = (await (await document.getPage(1)).getTextContent()).items
      .map((item) => ('str' in item ? item.str : ''))
      .join(' ')
      .replace(/\s+/g, ' ');
    expect(text).toContain(`C01 ${code}`);
    expect(text).toContain('Device end: Optical');
    await press(page, 'Print on the label printer');
    await seeText(page, 'No label printer is entered');
  });
  it('went without an error in the browser', () => {
    expect(errors).toEqual([]);
  });
});
