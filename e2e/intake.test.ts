import { resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { ElementHandle, Page } from 'puppeteer-core';
import { describe, expect, it } from 'vitest';
import { partClass, type Job } from '@fairwatt/core';
import { choose, control, fill, goStation, goTo, press, pressTab, saved, seeText, settled } from './application.ts';
import { jobOf } from './messages.ts';
import { newMachine } from './new-machine.ts';
import { pressThe } from './pressing.ts';
import { application } from './running.ts';

const partsOf = (job: Job) =>
  job.parts.map(({ classId, quantity, change }) => `${quantity} ${classId}${change === 'stays' ? '' : ` ${change}`}`);
const groupsOf = (job: Job) => new Set(job.parts.map(({ classId }) => partClass(classId)?.group));

describe('a machine in one line', () => {
  it('shows what it becomes while it is typed, is taken in by Enter, and keeps what nobody understands', async () => {
    const { page, stored } = await newMachine();
    await fill(
      page,
      'The machine in one line',
      'tower, 8-core 125 W, 2x16 new memory, card 3x8 320 W, warp core, 2 hard drives',
    );
    await seeText(page, 'Graphics card, three 8-pin, 320 W', '.machine-line-reading');
    await seeText(page, 'not understood; it stays in the line', '.machine-line-reading');
    await seeText(page, 'no board said', '.machine-line-reading');
    await page.keyboard.press('Enter');
    await seeText(page, '6 parts are taken in');
    await saved(page);
    expect(partsOf(await stored())).toEqual([
      '1 board',
      '1 processor-125',
      '2 memory-new',
      '1 card-888',
      '1 drive-35',
      '1 drive-35',
    ]);
    const left = async () =>
      (await control(page, 'The machine in one line')).evaluate((element) => (element as HTMLTextAreaElement).value);
    expect(await left()).toBe('warp core');
    await pressTab(page, 'Complaint');
    await pressTab(page, 'Parts');
    expect(await left()).toBe('warp core');
    await page.reload({ waitUntil: 'domcontentloaded' });
    await settled(page);
    expect(await left()).toBe('warp core');
    await page.browserContext().close();
  });
  it('asks what decides, takes it in once said; an upgrade is in the same words; all can be undone', async () => {
    const { page, stored } = await newMachine();
    await fill(page, 'The machine in one line', 'board 24+8, card');
    await seeText(page, 'which plugs?', '.machine-line-reading');
    await page.keyboard.press('Enter');
    await saved(page);
    await fill(page, 'The machine in one line', 'card 8 150 W');
    await page.keyboard.press('Enter');
    await saved(page);
    await fill(page, 'The machine in one line', 'card -> card 16-pin 320 W');
    await page.keyboard.press('Enter');
    await saved(page);
    expect(partsOf(await stored())).toEqual(['1 board', '1 card-8 replaced', '1 card-16-450 added']);
    await press(page, 'Undo');
    await saved(page);
    expect(partsOf(await stored())).toEqual(['1 board', '1 card-8']);
    await page.browserContext().close();
  });
  it('takes in what the client plans in words, which is told wherever it would be missed until then', async () => {
    const { page, stored } = await newMachine();
    await pressTab(page, 'Complaint');
    await fill(page, 'Planned upgrade', 'New card 3x8 320 W');
    await pressTab(page, 'Parts');
    expect(await page.$('[data-upgrade-in-words]')).toBeNull();
    await fill(page, 'The machine in one line', '8-core 125 W, card 2x8 220 W');
    await page.keyboard.press('Enter');
    await saved(page);
    await seeText(page, 'the parts of the planned upgrade', '.page-side');
    for (const station of [4, 5]) {
      await goStation(page, station);
      await seeText(page, 'what is reckoned is the machine as it came', '[data-upgrade-in-words]');
    }
    await press(page, 'Enter what comes');
    await seeText(page, 'what is reckoned is the machine as it came', '[data-upgrade-in-words]');
    await press(page, 'Into the line');
    await seeText(page, 'Graphics card, three 8-pin, 320 W, comes with the upgrade', '.machine-line-reading');
    await page.keyboard.press('Enter');
    await saved(page);
    expect(partsOf(await stored())).toEqual(['1 board', '1 processor-125', '1 card-88 replaced', '1 card-888 added']);
    expect(await page.$('[data-upgrade-in-words]')).toBeNull();
    await goStation(page, 4);
    await seeText(page, 'more than as it came');
    expect(await page.$('[data-upgrade-in-words]')).toBeNull();
    await page.browserContext().close();
  });
  it('can be like an earlier machine, as that one left: parts, case and the supply that was fitted', async () => {
    const { page, stored } = await newMachine();
    await choose(page, 'Like an earlier machine', 'LQ-0137');
    await seeText(page, '6 parts are taken in');
    await saved(page);
    const [made, earlier] = [
      await stored(),
      (await (await fetch(`${application.url}/api/jobs/LQ-0137`)).json()) as Job,
    ];
    expect(made.parts.map(({ name }) => name)).toEqual(earlier.parts.map(({ name }) => name));
    expect([made.supply?.name, made.sheet.layout]).toEqual(['Corvane 450 B', earlier.sheet.layout]);
    await page.browserContext().close();
  });
  it.each(['Office desktop', 'Tower with one card', 'Workstation'])(
    '%s is there in two acts, with its supply and case',
    async (name) => {
      const { page, stored } = await newMachine();
      await choose(page, 'Start from a usual machine', name);
      await press(page, 'Take it in');
      await saved(page);
      const job = await stored();
      expect([...groupsOf(job)]).toEqual(expect.arrayContaining(['board', 'processor', 'memory', 'drive', 'cooling']));
      expect(job.supply?.label.ratingWatts).toBeGreaterThan(300);
      await page.browserContext().close();
    },
  );
});

describe('one field that finds what a machine is made of', () => {
  const field = 'Find a part or an earlier machine';

  it('adds so many of a class, or what the upgrade brings, by any word for it', async () => {
    const { page, stored } = await newMachine();
    await (await control(page, field)).type('4x hdd');
    await seeText(page, '4 × 3.5" drive · 8 W each', '.ant-select-dropdown');
    await page.keyboard.press('Enter');
    await saved(page);
    await choose(page, field, 'Solid-state drive, flat');
    await saved(page);
    await (await control(page, field)).type('+ 2x fan');
    await seeText(page, '2 × ', '.ant-select-dropdown');
    await page.keyboard.press('Enter');
    await saved(page);
    expect(partsOf(await stored())).toEqual([
      ...Array.from({ length: 4 }, () => '1 drive-35'),
      '1 drive-flat',
      '2 fan added',
    ]);
    await page.browserContext().close();
  });

  it('takes an earlier machine over, found by its client, and says where nothing is called so', async () => {
    const { page, stored } = await newMachine();
    const earlier = await jobOf('LQ-0137');
    await (await control(page, field)).type('qqvx');
    await seeText(page, 'nor an earlier machine is called "qqvx"', '.ant-select-dropdown');
    await page.keyboard.press('Escape');
    await (await control(page, field)).type(earlier.sheet.client);
    await pressThe(page, '.ant-select-item-option::-p-text(LQ-0137)');
    await seeText(page, '6 parts are taken in');
    await saved(page);
    expect((await stored()).parts.map(({ name }) => name)).toEqual(earlier.parts.map(({ name }) => name));
    await page.browserContext().close();
  });
});

describe('a machine from its own listings', () => {
  const folder = fileURLToPath(new URL('../demo/listings/', import.meta.url));
  const drop = async (page: Page, ...files: readonly string[]) => {
    const field = (await page.waitForSelector('.ant-modal input[type=file]')) as ElementHandle<HTMLInputElement>;
    await field.uploadFile(...files.map((file) => resolve(folder, file)));
  };

  it('is there in four acts: opened, dropped, the card’s plugs said, taken in', async () => {
    const { page, stored } = await newMachine();
    await press(page, 'From its own listings');
    const tower = ['dmidecode.txt', 'lshw.json', 'lsblk.json', 'lspci.txt', 'sensors.json', 'smartctl-sda.json'];
    await drop(page, ...tower.map((file) => `tower/${file}`));
    await seeText(page, 'keeps to 320 W', '.ant-modal');
    await seeText(page, 'Pick the plugs of G3', '.ant-modal');
    await choose(page, 'Class of G3', 'Graphics card, three 8-pin');
    await press(page, 'Take in 9 parts');
    await seeText(page, '9 parts are taken in');
    await saved(page);
    expect(partsOf(await stored())).toEqual([
      '1 board',
      '1 processor-105',
      '2 memory-new',
      '1 card-888',
      '1 capture',
      '1 drive-35',
      '1 drive-flat',
      '1 optical',
      '1 drive-card',
    ]);
    const { readings, notes } = await stored();
    expect(new Set(readings.map(({ instrumentId }) => instrumentId))).toEqual(new Set(['board-sensor']));
    expect(notes.map(({ text }) => text)).toEqual([expect.stringMatching(/hours, \d+ starts/)]);
    await goStation(page, 3);
    await seeText(page, /The board’s own sensor told \+12 V/, '[data-rough]');
    await seeText(page, 'Nothing measured', '.page-side');
    await seeText(page, 'the board’s own sensor', 'table');
    await pressThe(page, '[data-undo]');
    await saved(page);
    expect((await stored()).parts).toEqual([]);
    expect((await stored()).readings.every(({ struckAt }) => struckAt !== null)).toBe(true);
    await page.browserContext().close();
  });
  it('tells what it cannot read and takes nothing of it; what is there already is left out', async () => {
    const { page, stored } = await newMachine();
    await fill(page, 'The machine in one line', 'board 24+8, quad core');
    await page.keyboard.press('Enter');
    await saved(page);
    await press(page, 'From its own listings');
    await drop(page, '../../package.json', 'ferry-office/cpu.csv', 'ferry-office/memory.csv');
    await seeText(page, 'package.json is no listing that is known here', '.ant-modal');
    await seeText(page, 'the job has one already', '.ant-modal');
    await press(page, 'Take in one part');
    await saved(page);
    expect(partsOf(await stored())).toEqual(['1 board', '1 processor-65', '2 memory-old']);
    await page.browserContext().close();
  });
});

describe('what a counter asks', () => {
  it('is kept with the job, shown at its head, and puts it where it is wanted in the list', async () => {
    const { page, stored } = await newMachine();
    await pressTab(page, 'At the counter');
    await fill(page, 'Reached by', '01632 960 321');
    await fill(page, 'Promised for', '2026-11-27');
    await page.keyboard.press('Enter');
    await choose(page, 'In hand of', 'Joss');
    await press(page, 'urgent');
    await press(page, 'manual');
    await press(page, 'mains lead');
    await press(page, 'manual');
    await saved(page);
    const { code, sheet } = await stored();
    expect(sheet).toMatchObject({
      reach: '01632 960 321',
      promisedOn: '2026-11-27',
      inCharge: 'joss',
      priority: 'urgent',
      cameAlong: ['lead'],
    });
    await seeText(page, 'in hand of Joss P.', '.job-head-jobHead');
    await goTo(page, `${application.url}/jobs`);
    await press(page, 'Wanted next');
    await seeText(page, 'urgent', '.job-row-jobRow');
    expect(await page.$eval('.job-row-jobRow .signs-tag', (element) => element.textContent)).toBe(code);
    await goTo(page, `${application.url}/jobs?search=01632%20960321`);
    await seeText(page, '1 found');
    await seeText(page, 'Reached by', '.job-row-jobRow');
    await page.browserContext().close();
  });
});

describe('what a whole machine takes at the counter', () => {
  /**
   * Each press, pick, typed field and key is one act. Seconds as the keystroke-level model has them for an ordinary
   * typist (Card, Moran and Newell 1980): 1.35 to think, 1.3 to point and press, 0.28 for each letter.
   */
  function counting(page: Page) {
    let acts = 0;
    let seconds = 0;
    const one = async (work: Promise<unknown>, letters = 0) => {
      acts += 1;
      seconds += 1.35 + 1.3 + 0.28 * letters;
      await work;
    };
    return {
      acts: () => acts,
      seconds: () => seconds,
      line: async (line: string) => {
        await one(fill(page, 'The machine in one line', line), line.length);
        await one(page.keyboard.press('Enter'));
        await saved(page);
      },
      template: async (name: string) => {
        await one(choose(page, 'Start from a usual machine', name));
        await one(press(page, 'Take it in'));
        await saved(page);
      },
      /** The label in hand: the figures that differ from what is usual, and that the rest is so. */
      label: async (amps: Readonly<Record<string, string>>) => {
        await one(pressTab(page, 'Present supply'));
        for (const [output, figure] of Object.entries(amps))
          await one(fill(page, `Amps of ${output}`, figure), figure.length);
        await one(press(page, 'The label says the same'));
        await saved(page);
      },
      listing: async (files: readonly string[]) => {
        await one(press(page, 'From its own listings'));
        const field = (await page.waitForSelector('.ant-modal input[type=file]')) as ElementHandle<HTMLInputElement>;
        const folder = fileURLToPath(new URL('../demo/listings/', import.meta.url));
        await one(field.uploadFile(...files.map((file) => resolve(folder, file))));
        await seeText(page, 'Take in', '.ant-modal');
      },
      pick: (list: string, option: string) => one(choose(page, list, option)),
      press: (name: string) => one(press(page, name)),
    };
  }
  const entered = (job: Job) => {
    expect([...groupsOf(job)]).toEqual(expect.arrayContaining(['board', 'processor', 'memory', 'drive']));
    return job;
  };

  it.each([
    ['Office desktop', 'tower, 6-core 65 W, 2x8 memory, ssd, 2 fans, 400 W supply', 12],
    ['Tower with one card', 'tower, 8-core 105 W, 2x16 new memory, card 2x8 250 W, m.2, 4 fans, 650 W supply', 15],
    ['Workstation', 'tower, board 8+8, 24-core 250 W, 8x16 memory, card 8 150 W, 8 hard drives, 1000 W supply', 20],
  ])('%s: by a line, and by the usual machine of that name, with the label read', async (name, line, bound) => {
    for (const way of ['line', 'template'] as const) {
      const { page, stored } = await newMachine();
      const hand = counting(page);
      await (way === 'line' ? hand.line(line) : hand.template(name));
      await hand.label({ '12V': '45', '5V': '22' });
      expect(entered(await stored()).supply?.label.rails.map(({ usual }) => usual)).toEqual(Array(5).fill(undefined));
      expect(hand.acts()).toBeLessThanOrEqual(bound);
      expect(hand.seconds()).toBeLessThan(120);
      await page.browserContext().close();
    }
  });
  it('a tower from its listing, in four acts of the five that it may take', async () => {
    const { page, stored } = await newMachine();
    const hand = counting(page);
    await hand.listing(['tower/dmidecode.txt', 'tower/lspci.txt', 'tower/lsblk.json']);
    await hand.pick('Class of G3', 'Graphics card, three 8-pin');
    await hand.press('Take in 9 parts');
    await saved(page);
    entered(await stored());
    expect(hand.acts()).toBe(4);
    expect(hand.seconds()).toBeLessThan(60);
    await page.browserContext().close();
  });
  it('is kept as a usual machine of the shop, and another is started from it', async () => {
    const first = await newMachine();
    await counting(first.page).line('small case, 8-core 65 W, 2x16 memory, card 8 170 W, m.2');
    await fill(first.page, 'Keep it as a usual machine of this shop, under the name', 'Net café seat');
    await saved(first.page);
    const { code } = await first.stored();
    await first.page.browserContext().close();
    const { page, stored } = await newMachine();
    await choose(page, 'Start from a usual machine', 'Net café seat');
    await seeText(page, '5 parts are taken in');
    await saved(page);
    const job = await stored();
    expect(job.sheet.layout).toBe('small');
    const { sheet } = (await (await fetch(`${application.url}/api/jobs/${code}`)).json()) as Job;
    await fetch(`${application.url}/api/jobs/${code}/acts`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({
        id: crypto.randomUUID(),
        by: 'mara',
        act: { kind: 'edit-sheet', changes: { usualAs: '' }, basedOn: sheet.version },
      }),
    });
    const left = (await (await fetch(`${application.url}/api/jobs/usual-machines`)).json()) as { code: string }[];
    expect(left.map((one) => one.code)).not.toContain(code);
    await page.browserContext().close();
  });
});
