import { mkdtemp, readdir, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { Page } from 'puppeteer-core';
import { afterEach, beforeAll, describe, expect, it } from 'vitest';
import { partClass } from '@fairwatt/core';
import { jobFileSchema } from '@fairwatt/contract';
import { choose, fill, goStation, goTo, mainAct, press, pressKey, pressTab, saved, seeText } from './application.ts';
import { openPage } from './browser.ts';
import { closedByEnter, ledUntil, oldSupplyMarked, readAfter, shownByEnter } from './path.ts';
import { application, chromium } from './running.ts';

let page: Page;
const troubles: string[] = [];

beforeAll(async () => {
  page = await openPage(chromium.browser);
  page.on('pageerror', (error) => troubles.push(error instanceof Error ? error.message : String(error)));
  page.on('console', (message) => {
    if (message.type() === 'error') troubles.push(message.text());
  });
});
afterEach(async ({ task }) => {
  // A picture of what was on the screen helps more than any message.
  if (task.result?.state === 'fail')
    await page.screenshot({ path: fileURLToPath(new URL('../.fairwatt/failed-e2e.png', import.meta.url)) });
});

const line = (station: string) =>
  page.$eval(`[data-station=${station}] .station-wire-result`, (element) => element.textContent);
const addPart = async (classId: string) => {
  const before = await page.$$eval('table[aria-label=Parts] tbody tr', (rows) => rows.length).catch(() => 0);
  await choose(page, 'Find a part or an earlier machine', partClass(classId)!.name);
  await page.waitForFunction(
    (count: number) => document.querySelectorAll('table[aria-label=Parts] tbody tr').length > count,
    {},
    before,
  );
};

describe("the radio's job, from intake to hand-over, by the real interface", () => {
  it('makes a job in three fields by keyboard', async () => {
    await goTo(page, `${application.url}/jobs`);
    await page.keyboard.press('n');
    await page.waitForSelector('[role=dialog] input', { visible: true });
    // A dialog that is there and cannot be seen is not there.
    await page.waitForFunction(() => {
      for (let at = document.querySelector('[role=dialog] input'); at !== null; at = at.parentElement)
        if (getComputedStyle(at).opacity !== '1') return false;
      return true;
    });
    await page.waitForFunction(
      () =>
        document.activeElement instanceof HTMLInputElement &&
        document.activeElement.placeholder === 'Radio playout machine',
    );
    await page.keyboard.type('Radio playout machine');
    await page.keyboard.press('Tab');
    await page.keyboard.type('Radio Lantern Quay');
    await page.keyboard.press('Tab');
    await page.keyboard.type('Goes off in the evening show');
    await page.keyboard.press('Enter');
    await seeText(page, 'Radio playout machine', '.job-head-jobHead');
    expect(page.url()).toMatch(/\/jobs\/LQ-\d{4}\/intake$/);
  });

  it('takes the complaint by digits', async () => {
    await page.waitForFunction(() => document.querySelector('[role=dialog]') === null);
    await page.waitForSelector('[data-key="6"]');
    await pressKey(page, '6');
    await seeText(page, 'Cuts out under load', '.page-side .text-decides');
    await press(page, 'Slowly worse');
    await seeText(page, 'cuts out under load', '[data-station=intake]');
    await saved(page);
  });

  it('takes the machine from classes, overwrites a figure and marks the planned card', async () => {
    await pressTab(page, 'Parts');
    for (const classId of ['board-84', 'processor-65', 'memory-old', 'card-6', 'drive-35', 'drive-flat', 'encoder-6'])
      await addPart(classId);
    await fill(page, 'Count of Memory module, older', '4');
    await fill(page, 'Lasting watts of Graphics card, one 6-pin', '118,5');
    await choose(page, 'Upgrade: Encoder card, one 6-pin', 'added');
    await saved(page);
    expect(await line('load')).toMatch(/^373 W, no supply entered$/);
  });

  it('refuses letters, negative and absurd figures at the field and keeps what was typed', async () => {
    await fill(page, 'Lasting watts of Graphics card, one 6-pin', 'lots');
    await seeText(page, '“lots” is not a figure');
    await fill(page, 'Lasting watts of Graphics card, one 6-pin', '-5');
    await seeText(page, 'from 0 to 5000');
    await fill(page, 'Lasting watts of Graphics card, one 6-pin', '99999');
    await seeText(page, 'from 0 to 5000');
    await fill(page, 'Lasting watts of Graphics card, one 6-pin', '120');
    await saved(page);
    expect(await page.$$eval('.text-errorText', (list) => list.length)).toBe(0);
  });

  it("takes the present supply's label", async () => {
    await pressTab(page, 'Present supply');
    await fill(page, 'Rating (W)', '450');
    await page.keyboard.press('Enter');
    await press(page, 'The usual five');
    for (const [rail, amps] of [
      ['12V', '32'],
      ['5V', '18'],
      ['3.3V', '16'],
      ['-12V', '0,3'],
      ['5VSB', '2.5'],
    ] as const)
      await fill(page, `Amps of ${rail}`, amps);
    await fill(page, 'Name on the label', 'Fennmark 450');
    await saved(page);
    expect(await line('load')).toMatch(/^375 of 450 W, too small$/);
  });

  it('ranks suspects, offers the next check, takes answers and takes one back', async () => {
    await goStation(page, 2);
    await page.waitForSelector('[data-suspect=psu-undersized], [data-suspect=psu-weak]');
    const title = await page.$eval('.lists-nextCheck h2', (element) => element.textContent);
    await page.evaluate(() => {
      [...document.querySelectorAll<HTMLElement>('section .ant-btn-link')]
        .find((button) => button.textContent.startsWith('all '))
        ?.click();
    });
    await page.waitForFunction(() => {
      const found = [...document.querySelectorAll<HTMLElement>('.other-checks-alternatives button')].find((button) =>
        button.textContent.startsWith('Dust'),
      );
      found?.click();
      return document.querySelector('[data-check=look-dust]') !== null;
    });
    const check = 'look-dust';
    await pressKey(page, '2');
    await page.waitForFunction(
      (done: string) => document.querySelector('[data-check]')?.getAttribute('data-check') !== done,
      {},
      check,
    );
    await seeText(page, 'Dust: Dusty', '.lists-trail');
    const taken = await page.$$('.lists-trail button');
    await taken.at(-1)!.click();
    await seeText(page, 'is taken back', '.undo-undo');
    await press(page, 'Undo');
    await saved(page);
    expect(title).not.toBe('');
  });

  it('takes readings in one field, asks about a slip, and moves the suspects', async () => {
    await goStation(page, 3);
    await pressKey(page, 'r');
    await page.keyboard.type('12 230');
    await seeText(page, 'is a mains voltage');
    await seeText(page, 'It cannot be kept');
    await fill(page, 'Quick entry of readings', '12 5.03');
    await seeText(page, /looks like \+5 V/);
    await page.keyboard.press('Enter');
    await seeText(page, 'Keep it all the same');
    await fill(
      page,
      'Quick entry of readings',
      '12 11,72 5 5.08 3.3 3.31 idle 12 11.31 work 12 11.33 work 5 5.1 work 3.3 3.30 work',
    );
    await page.keyboard.press('Enter');
    await page.waitForSelector('[data-verdict=fail]');
    await seeText(page, '+12 V sags by 0.40 V', '.page-side');
    await saved(page);
    await goStation(page, 2);
    await page.waitForSelector('.suspects-suspects li.suspects-first[data-suspect=psu-weak]');
    await seeText(page, 'Rails at work: One out', '.lists-trail');
  });

  it('proves it by a swap and sets the finding', async () => {
    await page.evaluate(() => {
      [...document.querySelectorAll<HTMLElement>('section .ant-btn-link')]
        .find((button) => button.textContent.startsWith('all '))
        ?.click();
    });
    await page.waitForFunction(() => {
      const found = [...document.querySelectorAll<HTMLElement>('.other-checks-alternatives button')].find((button) =>
        button.textContent.startsWith('Known-good supply'),
      );
      found?.click();
      return found !== undefined || document.querySelector('[data-check=d-swap]') !== null;
    });
    await page.waitForSelector('[data-check=d-swap]');
    await pressKey(page, '1');
    await page.waitForSelector('[data-conclusion=offered]');
    await page.keyboard.press('Enter');
    await seeText(page, 'proved by cure or swap', '.lists-nextCheck');
    await saved(page);
  });

  it('shows the load with and without the upgrade and the sizing rules', async () => {
    await goStation(page, 4);
    await page.waitForSelector('[data-verdict=too-small]');
    const planned = Number((await page.$eval('[data-lasting]', (element) => element.textContent)).replace(/ .*/, ''));
    await pressTab(page, 'As it came');
    await page.waitForFunction(
      (before: number) => !document.querySelector('[data-lasting]')!.textContent.startsWith(String(before)),
      {},
      planned,
    );
    const present = Number((await page.$eval('[data-lasting]', (element) => element.textContent)).replace(/ .*/, ''));
    expect(planned - present).toBe(95);
    await pressTab(page, 'Sizing rules');
    await seeText(page, 'Half load');
    await seeText(page, /\d+ of 29/, '[data-school=half-load]');
  });

  it('records the present cables before anything is unplugged', async () => {
    await goStation(page, 6);
    for (const inlet of ['Main 24', 'Processor 8', 'Card 6', 'Drive']) await press(page, `+ ${inlet}`);
    await fill(page, 'Way of cable A', 'Behind the tray, lower hole');
    await fill(page, 'Ties to cut on cable A', '2');
    await saved(page);
    expect(await page.$$eval('table[aria-label="Recorded cables"] tbody tr', (rows) => rows.length)).toBe(4);
  });

  it('chooses the best supply by Enter; others fall with their reasons', async () => {
    await goStation(page, 5);
    await seeText(page, /TFX does not fit, the case takes ATX/);
    await seeText(page, /\d+ fit, \d+ almost, \d+ fall/);
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('Enter');
    await page.waitForFunction(
      () => document.querySelectorAll('.station-wire-wire a')[5]?.getAttribute('aria-current') === 'page',
    );
    await saved(page);
  });

  it('is led by Enter alone through taking out, each step of the refit, and each tick of each connector', async () => {
    // One inlet has no recorded cable: that is said, with its reason, before anything is unplugged.
    await seeText(page, 'Record each cable, or say why not', '.page-side');
    await press(page, 'Not recorded, because …');
    await page.keyboard.press('Enter');
    await seeText(page, 'Say why, in a few words', '.page-side');
    await fill(page, 'Not recorded, because', 'Its plug hung free when it came');
    await page.keyboard.press('Enter');
    await seeText(page, 'Not recorded, because: Its plug hung free when it came', '.page-side');
    await mainAct(page);
    await seeText(page, 'Nothing is unplugged while the lead is in', '.page-side');
    const { tabs } = await ledUntil(page, /^Prove it/);
    expect(tabs).toEqual(['Take out', 'Steps', 'Plan and refit']);
    expect(await line('cables')).toMatch(/^(\d+) of \1 seated$/);
    // Some sixty acts, each with a bound of its own.
  });

  it('does not close without readings after, then closes by keyboard', async () => {
    await goStation(page, 7);
    await seeText(page, 'With the new supply no reading passes yet: +12 at idle', '.page-side');
    expect(await page.$eval('[data-primary]', (element) => element.textContent)).toMatch(
      /^Next: Not shown yet: it starts/,
    );
    await readAfter(page);
    await shownByEnter(page, ['started', 'picture', 'fans', 'drives', 'card', 'complaint']);
    await oldSupplyMarked(page, 'Sags at work, cured by another', 'Two hours of the job that it failed at');
    await closedByEnter(page);
    const report = await page.$eval('.report-reportSheet', (element) => (element as HTMLElement).innerText);
    for (const told of [
      'The power supply is at fault: supply weak under load.',
      'We fitted another power supply: ',
      'with the machine at work: 11.32 V before, 11.98 V now, which is as it should be.',
      'Supply weak under load, proved by cure or swap',
      '11.32 V',
      '11.98 V',
      'Behind the tray, lower hole',
      '✓ seated, Mara T.',
      'It failed: Sags at work, cured by another; given to electrical waste.',
      "the client's complaint was tried, and is gone (Two hours of the job that it failed at)",
    ])
      expect(report).toContain(told);
  });

  it('exports the job as a file that fits the format', async () => {
    const directory = await mkdtemp(join(tmpdir(), 'fairwatt-download-'));
    const session = await page.createCDPSession();
    await session.send('Browser.setDownloadBehavior', {
      behavior: 'allow',
      downloadPath: directory,
      browserContextId: page.browserContext().id ?? '',
    });
    await press(page, 'Export the job as a file');
    const exported = async () => (await readdir(directory)).filter((file) => file.endsWith('.json'));
    await expect.poll(exported).toHaveLength(1);
    const [name = ''] = await exported();
    const file = jobFileSchema.parse(JSON.parse(await readFile(join(directory, name), 'utf8')));
    expect(file.job.state).toBe('closed');
    expect(file.supplies.map((supply) => supply.id)).toEqual([file.job.choice?.modelId]);
    await rm(directory, { recursive: true, force: true });
  });

  it('went without an error in the browser', () => {
    expect(troubles).toEqual([]);
  });
});
