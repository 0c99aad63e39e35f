import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { Page } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { normal, seeded } from '@fairwatt/core/simulate';
import { SimulatedBench, serveInstrument, type ServedInstrument } from '@fairwatt/instruments';
import { choose, fill, goTo, mainAct, press, pressTab, saved, seeText } from './application.ts';
import { openPage } from './browser.ts';
import { doActs, jobOf, newJob, noted } from './messages.ts';
import { patience } from './patience.ts';
import { pressThe } from './pressing.ts';
import { application, chromium } from './running.ts';

let page: Page;
let folder: string;
beforeAll(async () => {
  page = await openPage(chromium.browser);
  folder = await mkdtemp(join(tmpdir(), 'fairwatt-logs-'));
});
afterAll(async () => {
  await rm(folder, { recursive: true, force: true });
});

const give = async (name: string, content: string | Buffer) => {
  const path = join(folder, name);
  await writeFile(path, content);
  await (await page.waitForSelector('input[type=file]'))!.uploadFile(path);
};

const readIt = async () => {
  await page.waitForSelector('[aria-label="How the file is read"] [data-primary]:not(:disabled)');
  await page.keyboard.press('Enter');
};

describe('readings', () => {
  it('are corrected in place, and the old figure stays in the list', async () => {
    await goTo(page, `${application.url}/jobs/LQ-0142/measure`);
    await page.waitForSelector('[aria-label^="Correct +12 V"]');
    const count = await page.$$eval('[aria-label="Readings"] tbody tr', (rows) => rows.length);
    await press(page, 'Correct +12 V 11.72 V');
    await fill(page, 'New figure for +12 V', '11,70');
    await page.keyboard.press('Enter');
    await seeText(page, 'was 11.72 V', '[aria-label="Readings"]');
    expect(await page.$$eval('[aria-label="Readings"] tbody tr', (rows) => rows.length)).toBe(count + 1);
    expect(await page.$$eval('[aria-label="Readings"] tr.table-gone', (rows) => rows.length)).toBeGreaterThan(0);
    await saved(page);
  });
  it('are taken back where they were typed, with the load of their line', async () => {
    await page.focus('[data-entry]');
    await page.keyboard.type('12 11,66 18a work 310w');
    await page.keyboard.press('Enter');
    await seeText(page, 'Kept +12 V 11.66 V', '#quick-understood');
    await seeText(page, 'at work, 310 W, 18 A', '[aria-label="Readings"] tbody tr');
    await page.keyboard.down('Control');
    await page.keyboard.press('z');
    await page.keyboard.up('Control');
    await page.waitForFunction(
      () => document.querySelector<HTMLInputElement>('[data-entry]')?.value === '12 11,66 18a work 310w',
    );
    expect(await page.$eval('[aria-label="Readings"] tbody tr', (row) => row.classList.contains('table-gone'))).toBe(
      true,
    );
    await page.evaluate(() => {
      document.querySelector<HTMLInputElement>('[data-entry]')!.select();
    });
    await page.keyboard.press('Backspace');
    await saved(page);
  });
  it('keep the instrument and the load that were picked, and a hand-held tester means off load', async () => {
    await choose(page, 'Instrument', 'Hand-held tester');
    const picked = () =>
      page.$eval('[aria-label="Load condition"]', (group) =>
        group.querySelector('input:checked')?.closest<HTMLElement>('label')?.innerText.trim(),
      );
    expect(await picked()).toBe('off load');
    await goTo(page, `${application.url}/jobs/LQ-0142/measure?way=line`);
    await goTo(page, `${application.url}/jobs/LQ-0142/measure`);
    await page.waitForSelector('[data-entry]');
    expect(await picked()).toBe('off load');
    await seeText(page, 'Hand-held tester', '.quick-entry-form-entryRow');
    await choose(page, 'Instrument', 'Bench meter, 4½ digits');
    expect(await picked()).toBe('off load');
    await pressTab(page, 'idle');
  });
  it('that are swapped in a correction are asked about first', async () => {
    await press(page, 'Correct +12 V 11.7 V');
    await fill(page, 'New figure for +12 V', '-11.7');
    await page.keyboard.press('Enter');
    await seeText(page, 'Enter again keeps it all the same', '[aria-label="Readings"]');
    await page.keyboard.press('Escape');
    await page.waitForSelector('[aria-label="Correct +12 V 11.7 V"]');
  });
  it('are entered with big keys as well', async () => {
    await press(page, 'Pad');
    for (const key of ['3.3:', '3', '.', '3', '0', 'work'])
      await page.evaluate((text: string) => {
        [...document.querySelectorAll<HTMLElement>('.number-pad-pad button')]
          .find((button) => button.textContent === text)
          ?.click();
      }, key);
    expect(await page.$eval('[data-entry]', (field) => (field as HTMLInputElement).value)).toBe('3.3 3.30 work ');
    await pressThe(page, '.number-pad-pad .number-pad-keep');
    await page.waitForFunction(() => document.querySelector<HTMLInputElement>('[data-entry]')?.value === '');
    await press(page, 'Pad');
    await saved(page);
  });
  it('tell what each rail will show with the plan', async () => {
    await press(page, 'Load line');
    await page.waitForSelector('[data-forecast="will-fail"]');
    await seeText(page, /At \d+ A expect \d+\.\d\d to \d+\.\d\d V: will fail/, '.load-line-view-loadLine');
  });
});

describe('times and ripple', () => {
  it('are typed by their words, and judged only by an instrument that gives them', async () => {
    const of = await newJob('On the scope');
    await goTo(page, `${application.url}/jobs/${of}/measure`);
    await choose(page, 'Instrument', 'Bench meter');
    await fill(page, 'Quick entry of readings', 'r12 45 r5 72 hold 18,5 work');
    await seeText(
      page,
      'does not give Ripple on +12 V, Ripple on +5 V: pick the instrument that showed it',
      '.page-work',
    );
    await choose(page, 'Instrument', 'Bench oscilloscope');
    await seeText(page, 'Ripple on +5 V 72 mV at work', '#quick-understood');
    expect(await page.$$eval('.page-work .signs-caution', (list) => list.length)).toBe(0);
    await page.focus('[data-entry]');
    await page.keyboard.press('Enter');
    await seeText(page, 'Ripple on +5 V', '.page-side');
    await seeText(page, /above 50 mV by more than the uncertainty/, '.page-side');
    await saved(page);
    expect(
      (await jobOf(of)).readings.map(({ subject, condition, instrumentId }) => [subject, condition, instrumentId]),
    ).toEqual([
      ['ripple +12', 'work', 'scope'],
      ['ripple +5', 'work', 'scope'],
      ['hold-up', 'work', 'scope'],
    ]);
  });
});

describe('a probe walk', () => {
  it('lights one pin after the other and names the wrong one', async () => {
    await goTo(page, `${application.url}/jobs/LQ-0145/measure?way=walk`);
    await fill(page, 'Cable', 'Loose drive cable');
    await choose(page, 'Plug', '4-pin peripheral');
    await press(page, 'Start the walk');
    for (const [pin, volts] of [
      [1, '12,05'],
      [2, '0.01'],
      [3, '0'],
      [4, '5.02'],
    ] as const) {
      await seeText(page, `Touch pin ${pin}`, '[data-walk]');
      await page.keyboard.type(volts);
      await page.keyboard.press('Enter');
    }
    expect(await page.$('[data-walk="safe"]')).toBeNull();
    for (const pin of [2, 3]) {
      await seeText(page, `Prove the ground on pin ${pin}`, '[data-walk]');
      await page.keyboard.type('12.02');
      await page.keyboard.press('Enter');
    }
    await page.waitForSelector('[data-walk="safe"]');
    await press(page, 'all walks');
    await fill(page, 'Cable', 'Swapped drive cable');
    await press(page, 'Start the walk');
    await seeText(page, 'Touch pin 1', '[data-walk]');
    await page.keyboard.type('5.03');
    await page.keyboard.press('Enter');
    await page.waitForSelector('[data-walk="wrong"]');
    await seeText(page, 'pin 1 carries +5 V', '[data-walk] .signs-caution');
    // Nothing further is touched until the cable is out; what was mistyped can be put right.
    await page.waitForSelector('[data-interlock="harmful-cable"]');
    expect(await page.$('.walk-entry-walkEntry')).toBeNull();
    await pressThe(page, '[data-walk] [data-pin="1"]');
    await page.waitForSelector('.walk-entry-walkEntry');
    await page.keyboard.type('lots');
    await page.keyboard.press('Enter');
    await seeText(page, '“lots” is not a figure', '[data-walk]');
    await pressThe(page, '[data-interlock] .keys-key');
    await page.waitForFunction(() => document.querySelector('[data-interlock]') === null);
    await saved(page);
  });
});

describe('a walk that proves a spare cable', () => {
  it('is kept as its proof on a supply, and the bags then say so', async () => {
    await goTo(page, `${application.url}/jobs/LQ-0145/measure?way=walk`);
    await fill(page, 'Cable', 'Card cable from the bag');
    await choose(page, 'Plug', '8-pin card');
    await press(page, 'Start the walk');
    for (const [pin, volts] of [
      [1, '12.02'],
      [2, '12.03'],
      [3, '12.02'],
      [4, '0'],
      [5, '0'],
      [6, '0'],
      [7, '0'],
      [8, '0'],
    ] as const) {
      await seeText(page, `Touch pin ${pin}`, '[data-walk]');
      await page.keyboard.type(volts);
      await page.keyboard.press('Enter');
    }
    expect(await page.$('[data-walk="safe"]')).toBeNull();
    for (const pin of [5, 7, 8]) {
      await seeText(page, `Prove the ground on pin ${pin}`, '[data-walk]');
      await page.keyboard.type('12.02');
      await page.keyboard.press('Enter');
    }
    await page.waitForSelector('[data-walk="safe"]');
    await saved(page);
    await choose(page, 'Cable from the bags', 'BAG-03');
    await choose(page, 'Walked on this supply', 'Tarnwick Quiet 600');
    await press(page, 'Keep the proof');
    await seeText(page, 'The plan may use it on this supply', '[data-walk]');
    await saved(page);
    await goTo(page, `${application.url}/cable-bags?on=tarnwick-quiet-600`);
    await page.waitForSelector('[data-bag="BAG-03"][data-word="safe"]');
    await pressThe(page, '[data-bag="BAG-03"]');
    await seeText(page, /Proved by probe, Mara T\./, '[data-crossing=safe]');
    await press(page, 'take back');
    await page.waitForSelector('[data-crossing=unknown]');
  });
});

describe('a log', () => {
  it('of 200,000 rows is read beside the screen, its dips found, zoomed to, and kept', async () => {
    const random = seeded(7);
    const lines = ['time,12V,5V'];
    for (let row = 0; row < 200_000; row += 1)
      lines.push(
        [
          (row * 0.05).toFixed(2),
          (11.98 + 0.01 * normal(random) - (row === 123_456 ? 1.1 : 0)).toFixed(4),
          (5.02 + 0.003 * normal(random)).toFixed(4),
        ].join(','),
      );
    await goTo(page, `${application.url}/jobs/LQ-0145/measure?way=log`);
    await give('long.csv', lines.join('\n'));
    await readIt();
    await page.evaluate(() => {
      const seen = window as unknown as { longest: number };
      seen.longest = 0;
      new PerformanceObserver((list) => {
        for (const entry of list.getEntries()) seen.longest = Math.max(seen.longest, entry.duration);
      }).observe({ entryTypes: ['longtask'] });
    });
    await page.waitForSelector('[data-log-read]', { timeout: patience });
    await seeText(page, '200,000 rows', '[data-log-read]');
    await seeText(page, /\+12 V dips to 10\.8\d V/, '.log-tables-logEvents');
    await page.waitForSelector('.log-chart-logChart[data-drawn=true]');
    await page.waitForFunction(() =>
      /\d/.test(document.querySelector('.log-chart-logChart')?.getAttribute('aria-label') ?? ''),
    );
    await page.evaluate(() => {
      [...document.querySelectorAll<HTMLElement>('.log-tables-logEvents button')]
        .find((button) => button.textContent === 'show')
        ?.click();
    });
    await page.waitForFunction(() =>
      /10\.8/.test(document.querySelector('.log-chart-logChart')?.getAttribute('aria-label') ?? ''),
    );
    await page.focus('.log-chart-logChart');
    await page.keyboard.press('0');
    await pressThe(page, '[data-log-read] [data-primary]');
    await seeText(page, 'Kept in the job', '[data-log-read]');
    await saved(page);
    await press(page, 'another file');
    await page.waitForSelector('[data-kept-log="long.csv"]');
  });
  it('of a logger with its own ways is guessed and kept with its file', async () => {
    await (await page.waitForSelector('input[type=file]'))!.uploadFile(
      fileURLToPath(new URL('../demo/logs/radio-evening.csv', import.meta.url)),
    );
    await page.waitForFunction(
      () =>
        document
          .querySelector('[aria-label="Column 1 holds"]')
          ?.closest('.ant-select')
          ?.textContent.includes('day.month.year') === true,
    );
    await readIt();
    await seeText(page, '3,600 rows', '[data-log-read]');
    await pressThe(page, '[data-log-read] [data-primary]');
    await seeText(page, 'with the file itself', '[data-log-read]');
    // Into the first, idle part of the evening: its mean is what idle shows.
    for (let count = 0; count < 4; count += 1) await press(page, 'Zoom in');
    for (let count = 0; count < 16; count += 1) await press(page, 'Earlier');
    await choose(page, 'This part is', 'idle');
    await press(page, 'Means of this part as readings');
    await seeText(page, 'The means of this part are among the readings, idle.', '[data-log-read]');
    await saved(page);
    await press(page, 'Readings');
    await seeText(page, /\+12 V\s+11\.7\d+ V\s+idle/, '[aria-label="Readings"]');
  });
  it.each([
    ['empty.csv', '', 'is empty'],
    ['binary.csv', Buffer.from(Array.from({ length: 4000 }, (_, index) => index % 256)), 'is no text file'],
    ['one-line.csv', '11.95,'.repeat(20_000), 'has no line break'],
    ['wide.csv', `${'11.95,'.repeat(100)}1\n`.repeat(20), 'more than 64 columns'],
    ['words.csv', 'a,b\nno,figures\nat,all\n', 'No row of figures'],
  ])('%s gets its clear answer', async (name, content, answer) => {
    await goTo(page, `${application.url}/jobs/LQ-0145/measure?way=log`);
    await give(name, content);
    await seeText(page, answer, '.page-work');
  });
  it('whose row does not end is refused with the row instead of being waited for', async () => {
    await goTo(page, `${application.url}/jobs/LQ-0145/measure?way=log`);
    const rows = Array.from({ length: 20_000 }, (_, index) => `${index},12.0,5.0`);
    await give('endless.csv', ['time,12V,5V', ...rows, '12.0,'.repeat(1_000_000)].join('\n'));
    await readIt();
    await seeText(page, 'Row 20002 does not end', '.page-work');
  });
  it('whose time runs backwards is refused with the row, and nothing is kept', async () => {
    await goTo(page, `${application.url}/jobs/LQ-0145/measure?way=log`);
    const part = Array.from({ length: 500 }, (_, index) => `${index},12.0,5.0`).join('\n');
    await give('twice.csv', `time,12V,5V\n${part}\n${part}\n`);
    await readIt();
    await seeText(page, 'Time runs backwards in', '.page-work');
    expect(await page.$('[data-kept-log="twice.csv"]')).toBeNull();
  });
});

describe('instruments live', () => {
  let meter: ServedInstrument;
  let load: ServedInstrument;
  const bench = new SimulatedBench(() => performance.now());
  beforeAll(async () => {
    meter = await serveInstrument(() => bench.meter(), { answerMilliseconds: 4 });
    load = await serveInstrument(() => bench.load());
  });
  afterAll(async () => {
    await meter.close();
    await load.close();
  });

  it('are added by an owner at a private address, and say who they are', async () => {
    await goTo(page, `${application.url}/instruments`);
    await fill(page, 'Name', 'Meter on the shelf');
    await fill(page, 'Address', '8.8.8.8');
    await press(page, 'Add');
    await seeText(page, 'A loopback or private address', '[aria-label="Over the network"]');
    await fill(page, 'Address', '127.0.0.1');
    await fill(page, 'Port', String(meter.port));
    await press(page, 'Add');
    await seeText(page, `127.0.0.1:${meter.port}`, '[aria-label="Over the network"]');
    await choose(page, 'It is a', 'electronic load');
    await fill(page, 'Name', 'Load on the shelf');
    await fill(page, 'Address', '127.0.0.1');
    await fill(page, 'Port', String(load.port));
    await press(page, 'Add');
    await seeText(page, `127.0.0.1:${load.port}`, '[aria-label="Over the network"]');
    await page.evaluate(() => {
      [...document.querySelectorAll<HTMLElement>('[data-network] button')]
        .find((button) => button.textContent === 'who are you')
        ?.click();
    });
    await seeText(page, 'Fair Watt,Stand-in', '[aria-label="Over the network"]');
  });
  it('read, hold what stands still, keep it by Enter, and show trouble', async () => {
    await goTo(page, `${application.url}/jobs/LQ-0143/measure?way=live`);
    await press(page, 'Start reading');
    await page.waitForFunction(
      () => /^Keep \d/.test(document.querySelector('[data-live] [data-primary]')?.textContent ?? ''),
      { timeout: patience },
    );
    await page.evaluate(() => {
      (document.activeElement as HTMLElement | null)?.blur();
    });
    await page.keyboard.press('Enter');
    await seeText(page, /Kept 1[12]\.\d+ V/, '[data-live]');
    meter.fail('garbage');
    await page.waitForSelector('[data-live="nonsense"]');
    meter.fail('none');
    await page.waitForSelector('[data-live="running"]');
    await press(page, 'Stop reading');
    await saved(page);
  });
  it('take every rail hands free, each after the probe was lifted, and say what it came to', async () => {
    await goTo(page, `${application.url}/jobs/LQ-0145/measure?way=live`);
    await page.evaluate(() => {
      const said: string[] = [];
      Object.defineProperty(window, 'speechSynthesis', {
        value: { speak: ({ text }: { text: string }) => said.push(text), cancel: () => undefined },
      });
      Object.assign(window, { said });
    });
    const said = () => page.evaluate(() => (window as unknown as { said: readonly string[] }).said);
    await press(page, 'off load');
    await press(page, 'All rails, hands free');
    await page.waitForSelector('[data-hands-free]');
    await pressThe(page, '[aria-label="Hands free"] .ant-checkbox-input');
    await seeText(page, '5 of 5 rails read', '[data-hands-free=done]');
    expect((await said()).join(' ')).toMatch(/plus 12 volts off load, 1[12]\.\d\d: pass\./);
    expect((await said()).at(-1)).toContain('5 of 5 rails read');
    // Enter, or a foot switch that sends it, measures the last one again.
    await page.focus('[data-again]');
    await page.keyboard.press('Enter');
    await page.waitForSelector('[data-hands-free=waits], [data-hands-free=lift]');
    await page.waitForSelector('[data-hands-free=done]');
    await saved(page);
    await press(page, 'Stop');
  });
  it('walk a plug hands free: pins that must show something, then the grounds, until it is safe', async () => {
    await goTo(page, `${application.url}/jobs/LQ-0145/measure?way=walk`);
    await fill(page, 'Cable', 'Card cable from the drawer');
    await press(page, 'Start the walk');
    await press(page, 'Hands free with Meter on the shelf');
    await page.waitForSelector('[data-hands-free] ::-p-text(Black on pin)', { timeout: patience });
    await page.waitForSelector('[data-walk=safe]', { timeout: patience });
    await seeText(page, 'Safe', '[data-hands-free=done]');
    await saved(page);
  });
  it('sweep a load with Stop in sight, and leave it off; the steps become a load line', async () => {
    await goTo(page, `${application.url}/jobs/LQ-0143/measure?way=live`);
    await fill(page, 'Dwell (s)', '20');
    await press(page, 'Start the sweep');
    await page.waitForSelector('[data-sweep="running"]');
    await seeText(page, /\d A, 0 of 7 read/, '[data-sweep-bar]');
    await pressThe(page, '.sweep-watch-stopButton');
    await seeText(page, 'Stopped by hand. The load is off.', '[data-sweep]');
    expect(bench.drawing).toBe(false);
    await fill(page, 'Dwell (s)', '0.2');
    await page.keyboard.press('Enter');
    await press(page, 'Start the sweep');
    await seeText(page, 'All steps read. The load is off.', '[data-sweep]');
    await press(page, 'Keep 7 readings');
    await saved(page);
    await press(page, 'Load line');
    await page.waitForSelector('[data-forecast]');
    await seeText(page, /readings\s+[78]/, '.load-line-view-loadLine');
  });
  it(
    'a sweep is stopped from any screen, also after the page was loaded again, and a load ' +
      'nobody is sure of is named until somebody is',
    async () => {
      await goTo(page, `${application.url}/jobs/LQ-0143/measure?way=live`);
      await fill(page, 'Ends at (°C)', '500');
      await page.waitForFunction(
        () =>
          [...document.querySelectorAll<HTMLButtonElement>('[data-sweep] button')].find(
            (button) => button.textContent === 'Start the sweep',
          )?.disabled === true,
      );
      await fill(page, 'Ends at (°C)', '80');
      await fill(page, 'Dwell (s)', '30');
      await press(page, 'Start the sweep');
      await page.waitForSelector('[data-sweep="running"]');
      await pressThe(page, '[data-station=load]');
      await seeText(page, /LQ-0143.* A, 0 of 7 read/, '[data-sweep-bar]');
      await goTo(page, `${application.url}/supplies`);
      await seeText(page, /LQ-0143.* A, 0 of 7 read/, '[data-sweep-bar]');
      expect(bench.drawing).toBe(true);
      await page.keyboard.press('Escape');
      await seeText(page, 'Stopped by hand. The load is off.', '[data-sweep-ended]');
      expect(bench.drawing).toBe(false);
      await press(page, 'Look at it');
      await seeText(page, 'Stopped by hand. The load is off.', '[data-sweep]');
      await page.waitForFunction(() => document.querySelector('[data-sweep-ended]') === null);
      await fill(page, 'Dwell (s)', '30');
      await press(page, 'Start the sweep');
      await seeText(page, /0 of 7 read/, '[data-sweep-bar]');
      load.fail('cut');
      await seeText(page, 'Nobody knows whether it still draws', '[data-unsure]');
      await press(page, 'Try to switch it off');
      await page.waitForFunction(() =>
        [...document.querySelectorAll('[data-unsure] button')].some(
          (button) => button.textContent === 'Try to switch it off',
        ),
      );
      load.fail('none');
      await press(page, 'Try to switch it off');
      await page.waitForFunction(() => document.querySelector('[data-unsure]') === null);
      expect(bench.drawing).toBe(false);
    },
  );
});

describe('the next reading', () => {
  it('of a dead machine is its standby voltage; Enter picks where it is taken and waits for the figure', async () => {
    const code = await newJob('Dead');
    await doActs(
      code,
      { kind: 'edit-sheet', changes: { button: 'nothing' }, basedOn: 1 },
      noted('look-standby-light', 'dark'),
    );
    const page = await openPage(chromium.browser);
    await goTo(page, `${application.url}/jobs/${code}/measure`);
    await page.waitForSelector('[data-next-reading="+5sb off-load"]');
    await mainAct(page);
    await page.waitForFunction(() => document.activeElement?.hasAttribute('data-entry'));
    await page.keyboard.type('5sb 5.02');
    await page.keyboard.press('Enter');
    await page.waitForFunction(() => document.querySelector<HTMLInputElement>('[data-entry]')?.value === '');
    // With nothing typed Enter leaves the field, so that the next one leads on.
    await page.keyboard.press('Enter');
    await page.waitForFunction(() => document.activeElement?.hasAttribute('data-entry') === false);
    await saved(page);
    expect((await jobOf(code)).readings).toMatchObject([{ subject: '+5sb', condition: 'off-load' }]);
    expect(await page.$('[data-next-reading$="work"], [data-next-reading$="idle"]')).toBeNull();
    const running = await newJob('Cuts out');
    await doActs(running, { kind: 'edit-sheet', changes: { button: 'cuts-load' }, basedOn: 1 });
    await goTo(page, `${application.url}/jobs/${running}/measure`);
    await seeText(page, /Next: \+12 V idle[^]*Tells most now: about [\d.]+ min saved/);
    await page.browserContext().close();
  });
});
