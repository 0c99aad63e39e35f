import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ElementHandle, Page } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { emptyLabel, usualOutputs, type SupplyModel } from '@fairwatt/core';
import { servePriceFeed, type ServedFeed } from '@fairwatt/instruments';
import { choose, drawnAt, fill, goTo, mainAct, press, pressTab, saved, seeText } from './application.ts';
import { openPage } from './browser.ts';
import { intercepted } from './intercepted.ts';
import { doActs, machine, newJob } from './messages.ts';
import { patience } from './patience.ts';
import { pressThe, selectAll } from './pressing.ts';
import { application, chromium } from './running.ts';

let page: Page;
let folder: string;
beforeAll(async () => {
  page = await openPage(chromium.browser);
  folder = await mkdtemp(join(tmpdir(), 'fairwatt-files-'));
});
afterAll(async () => {
  await rm(folder, { recursive: true, force: true });
});
const lasting = () => page.$eval('[data-lasting]', (element) => Number.parseInt(element.textContent, 10));
const upload = async (name: string, content: string) => {
  const path = join(folder, name);
  await writeFile(path, content);
  await ((await page.waitForSelector('input[type=file]')) as ElementHandle<HTMLInputElement>).uploadFile(path);
};

/** Answers for the shop's supplies with each of them so many times over. */
async function fillShelf(onto: Page, copies: number): Promise<void> {
  await intercepted(onto, (request) => {
    if (!request.url().endsWith('/api/supplies')) {
      void request.continue();
      return;
    }
    void fetch(request.url(), { headers: request.headers() }).then(async (answer) => {
      const models = (await answer.json()) as SupplyModel[];
      const many = Array.from({ length: copies }, (_, copy) =>
        models.map((model) =>
          copy === 0 ? model : { ...model, id: `${model.id}-${copy}`, name: `${model.name} ${copy}` },
        ),
      );
      await request.respond({ contentType: 'application/json', body: JSON.stringify(many.flat()) });
    });
  });
}

/** Lets what works beside a page wait whenever it looks up, until it is let go on. */
async function holdWorkers(of: Page): Promise<() => Promise<void>> {
  const workers = of.workers();
  expect(workers.length).toBeGreaterThan(0);
  for (const worker of workers)
    await worker.evaluate(() => {
      const held: (() => void)[] = [];
      const { setTimeout: soon } = globalThis;
      Object.assign(globalThis, {
        setTimeout: (work: () => void) => held.push(work),
        goOn: () => {
          Object.assign(globalThis, { setTimeout: soon });
          for (const work of held) work();
        },
      });
    });
  return async () => {
    for (const worker of workers) await worker.evaluate(() => (globalThis as unknown as { goOn: () => void }).goOn());
  };
}

describe('the load', () => {
  it('says how the supply stands, load and readings together', async () => {
    await goTo(page, `${application.url}/jobs/LQ-0142/load`);
    await seeText(page, /Failing: \+12 V reads 11\.32 V\. It would be too small as well/, '[data-standing=failing]');
    await seeText(page, 'card plugs', '[aria-label="On each rail and way in"]');
  });
  it('goes on with Enter after a click on a view, as from anywhere', async () => {
    await goTo(page, `${application.url}/jobs/LQ-0143/load`);
    await pressTab(page, 'Running cost');
    await page.keyboard.press('Enter');
    await page.waitForFunction(() => !location.pathname.endsWith('/load'));
    await goTo(page, `${application.url}/jobs/LQ-0142/load`);
  });
  it.each([820, 390])('goes on with Enter where the main act is fixed at the foot, %s wide', async (width) => {
    const narrow = await openPage(chromium.browser, { width, height: 1000 });
    await goTo(narrow, `${application.url}/jobs/LQ-0143/load`);
    await narrow.keyboard.press('Enter');
    await narrow.waitForFunction(() => !location.pathname.endsWith('/load'));
    await narrow.browserContext().close();
  });
  it('leads to no other supply where the fault was elsewhere and nothing new comes, its label unread', async () => {
    const code = await newJob('Harbour office desktop');
    await doActs(
      code,
      ...machine(['board-4', 'processor-65', 'card-slot']),
      {
        kind: 'put-supply',
        supply: { name: '', label: { ...emptyLabel, ...usualOutputs(430), ratingWatts: 430 } },
        basedOn: 0,
      },
      { kind: 'set-finding', finding: { kind: 'fault', faultId: 'memory', confirmed: true, note: '' }, basedOn: 0 },
    );
    await goTo(page, `${application.url}/jobs/${code}/load`);
    await seeText(page, 'It stays: hand over', '.page-side');
    await press(page, 'Read its label at Intake');
    await seeText(page, 'Voltage selector, as it came', '.page-work');
    await goTo(page, page.url());
    await seeText(page, 'Voltage selector, as it came', '.page-work');
    await goTo(page, `${application.url}/jobs/${code}/load`);
    await mainAct(page);
    await drawnAt(page, '/hand-over');
    await goTo(page, `${application.url}/jobs/LQ-0142/load`);
  });
  it('is drawn a hundred thousand times in the worker', async () => {
    await pressTab(page, 'How sure');
    await page.waitForSelector('[data-draws="100000"]');
    await seeText(page, /nine of ten draws/, '[data-draws]');
    await seeText(page, /Over the rating in \d+% of the draws/, '[data-draws]');
  });
  it('follows what was measured, when it is told to', async () => {
    await pressTab(page, 'What draws');
    const estimated = await lasting();
    await fill(page, 'Figure (W)', '420');
    await page.keyboard.press('Enter');
    await seeText(page, /Measured \d+ W beside an estimate of \d+ W/, '[data-measured]');
    expect(await lasting()).toBe(estimated);
    await press(page, 'instead of the estimate');
    await page.waitForFunction(
      (before: number) => Number.parseInt(document.querySelector('[data-lasting]')!.textContent, 10) > before + 20,
      {},
      estimated,
    );
    await press(page, 'instead of the estimate');
    await page.waitForFunction(
      (before: number) => Number.parseInt(document.querySelector('[data-lasting]')!.textContent, 10) === before,
      {},
      estimated,
    );
    await saved(page);
  });
  it("asks why a job is sized by another rule than the shop's", async () => {
    await pressTab(page, 'Sizing rules');
    await pressThe(page, '[data-school=half-load] input');
    await seeText(page, 'sized by another rule', '[aria-label="Sizing schools"]');
    await fill(page, 'Why not peaks covered, as this shop does', 'The client wants it quiet at night.');
    await page.waitForFunction(
      () => !document.querySelector('[aria-label="Sizing schools"]')!.textContent.includes('sized by another rule'),
    );
    await pressThe(page, '[data-school=peaks-covered] input');
    await saved(page);
  });
  it("shows what it costs to run, over this machine's own day", async () => {
    await pressTab(page, 'Running cost');
    const money = () =>
      page.$eval('[aria-label="Running cost"] tbody tr:nth-child(4) td:nth-child(2)', (element) =>
        Number(element.textContent.replace(/[^0-9.]/g, '')),
      );
    await page.waitForSelector('[aria-label="Running cost"] tbody td');
    const before = await money();
    await fill(page, 'Full (h)', '9');
    await page.keyboard.press('Enter');
    await seeText(page, "back to the shop's usual day");
    expect(await money()).toBeGreaterThan(before);
    await press(page, "back to the shop's usual day");
    await saved(page);
  });
});

describe('the replacement', () => {
  it('opens why not at one key, and marks for comparing at another', async () => {
    await goTo(page, `${application.url}/jobs/LQ-0142/replacement`);
    await page.waitForSelector('[data-class=falls]');
    await page.focus('[data-class=falls]');
    await page.keyboard.press('w');
    await page.waitForSelector('[data-why] li');
    await page.keyboard.press('w');
    await page.waitForFunction(() => document.querySelector('[data-why]') === null);
    await page.focus('[data-candidate=corvane-650-s]');
    await page.keyboard.press('c');
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('c');
    await pressTab(page, 'Compare (2)');
    await page.waitForSelector('[data-differs=true]');
    expect(await page.$$eval('.compare-view-compare thead th', (list) => list.length)).toBe(3);
  });
  it('draws price against cost, headroom or noise, to be picked from', async () => {
    await pressTab(page, 'Trade-off');
    await (await page.waitForSelector('figure .ant-collapse-header'))!.focus();
    await page.keyboard.press('Enter');
    await page.waitForSelector('figure [aria-pressed=false]');
    await page.focus('figure [aria-pressed=false]');
    await page.keyboard.press('Enter');
    const name = await page.$eval('figure [aria-pressed=true]', (element) => element.textContent);
    expect(await page.$eval('.page-side .text-decides', (element) => element.textContent)).toBe(name);
    await pressTab(page, 'noise');
    await page.waitForSelector('figure [aria-label*="dB"]');
  });
  it('drops what is not as wished', async () => {
    const fitting = () => page.$eval('[data-fitting]', (element) => Number.parseInt(element.textContent, 10));
    const before = await fitting();
    await pressTab(page, 'What is asked');
    await press(page, 'over-temperature');
    await page.waitForFunction(
      (count: number) => Number.parseInt(document.querySelector('[data-fitting]')!.textContent, 10) < count,
      {},
      before,
    );
    await pressTab(page, 'Candidates');
    await seeText(page, 'no over-temperature protection');
    await pressTab(page, 'What is asked');
    await press(page, 'over-temperature');
    await page.waitForFunction(
      (count: number) => Number.parseInt(document.querySelector('[data-fitting]')!.textContent, 10) === count,
      {},
      before,
    );
    await saved(page);
  });
  it('can be stopped while it judges a large shop, says so, and is not chosen from before it has judged', async () => {
    const large = await openPage(chromium.browser);
    const fitting = (count: number) =>
      large.waitForFunction(
        (least: number) => Number.parseInt(document.querySelector('[data-fitting]')?.textContent ?? '', 10) > least,
        { timeout: patience },
        count,
      );
    const chooses = () => large.$eval('.page-side [data-primary]', (button) => !(button as HTMLButtonElement).disabled);
    await fillShelf(large, 60);
    await goTo(large, `${application.url}/jobs/LQ-0142/replacement?way=asked`);
    await fitting(100);
    expect(await chooses()).toBe(true);
    // The list of the question before stays, is told apart, and nothing is chosen from it.
    const goOn = await holdWorkers(large);
    await press(large, 'active power factor correction');
    await press(large, 'Stop judging');
    await seeText(large, 'this list answers what was asked before the last change', '.page-loadHead');
    expect(await chooses()).toBe(false);
    await goOn();
    await press(large, 'Judge them now');
    await large.waitForFunction(() => document.querySelector('.page-loadHead [role=status]') === null, {
      timeout: patience,
    });
    expect(await chooses()).toBe(true);
    await press(large, 'active power factor correction');
    await saved(large);
    await large.browserContext().close();
  });
  it('puts a unit by, keeps the choice with what was known, and counts the unit as fitted', async () => {
    await pressTab(page, 'Candidates');
    await pressThe(page, '[data-candidate=corvane-650-s]');
    await press(page, 'Put one by for this job');
    await seeText(page, /Put by for this job: \w \d/, '[data-units]');
    await page.evaluate(() => {
      (document.activeElement as HTMLElement | null)?.blur();
    });
    await page.keyboard.press('Enter');
    await drawnAt(page, '/cables');
    await saved(page);
    await goTo(page, `${application.url}/jobs/LQ-0142/replacement`);
    await seeText(page, 'Chosen: Corvane 650 S', '.page-side');
    // The candidates come in from the worker and move what is below them; what was opened stays open.
    await press(page, 'What was known then');
    await seeText(page, /lasting load \d+% of the rating/, '[data-chosen-before]');
    await press(page, 'it is fitted');
    await seeText(page, 'Used here', '[data-units]');
    await goTo(page, `${application.url}/supplies?way=shelf`);
    await seeText(page, 'fitted in LQ-0142');
  });
});

describe('the supplies', () => {
  it('are duplicated and changed, with what is wrong told at its field', async () => {
    await goTo(page, `${application.url}/supplies`);
    await pressThe(page, '[aria-label="Duplicate Corvane 550 S"]');
    await page.waitForSelector('.supply-editor-supplyEditor');
    await fill(page, 'Name', 'Lantern 560');
    await fill(page, 'Rating (W)', 'five hundred');
    await page.$eval('[aria-label="Drop cable 1"]', (element) => {
      (element as HTMLElement).click();
    });
    await page.evaluate(() => {
      document.querySelector<HTMLButtonElement>('.supply-editor-supplyEditor [type=submit]')!.click();
    });
    await seeText(page, '2 things are to mend.', '.supply-editor-supplyEditor > .text-errorText');
    await seeText(page, 'The kit has no main cable', '.supply-editor-supplyEditor');
    await fill(page, 'Rating (W)', '560');
    await page.evaluate(() => {
      [...document.querySelectorAll<HTMLElement>('.supply-editor-supplyEditor .ant-btn-link')]
        .find((button) => button.textContent === 'another cable')!
        .click();
    });
    await page.waitForFunction(
      () => [...document.querySelectorAll<HTMLInputElement>('[aria-label^="Plugs of cable"]')].at(-1)?.value === '',
    );
    const last = (await page.$$('[aria-label^="Plugs of cable"]')).length;
    await choose(page, `Family of cable ${last}`, 'main');
    await page.focus(`[aria-label="Plugs of cable ${last}"]`);
    await page.keyboard.type('main-24 600');
    await page.evaluate(() => {
      document.querySelector<HTMLButtonElement>('.supply-editor-supplyEditor [type=submit]')!.click();
    });
    await page.waitForFunction(() => document.querySelector('.supply-editor-supplyEditor') === null);
    await seeText(page, 'Lantern 560', '[data-model=lantern-560]');
  });
  it('come from a file row by row, read before they are taken', async () => {
    const csv = await (await fetch(`${application.url}/api/supplies/export?format=csv`)).text();
    const [head = '', first = '', second = ''] = csv.split('\n');
    await upload(
      'list.csv',
      [head, first.replace(/^[^,]+/, 'row-one'), second.replace(/^[^,]+/, 'row-two').replace(',ATX,', ',OVAL,')].join(
        '\n',
      ),
    );
    await seeText(page, /Read, nothing taken yet: 2 rows, 1 new, .* 1 refused/, '[data-report=would]');
    await seeText(page, /label\.shape/, '[data-report=would]');
    await page.keyboard.press('Enter');
    await seeText(page, /Taken: 2 rows, 1 new/, '[data-report=did]');
    await page.keyboard.press('Enter');
    await page.waitForSelector('[data-model=row-one]');
    expect(await page.$('[data-model=row-two]')).toBeNull();
  });
  it("take their prices from a supplier's feed, and keep them when it fails", async () => {
    const { supplies } = JSON.parse(readFileSync(new URL('../demo/supplies.json', import.meta.url), 'utf8')) as {
      supplies: SupplyModel[];
    };
    const feed: ServedFeed = await servePriceFeed(
      supplies.map(({ id, name, price }) => ({ id, name, minor: price.minor, currency: price.currency })),
      () => '2026-12-01',
    );
    await goTo(page, `${application.url}/supplies?way=prices`);
    await fill(
      page,
      "Address of a supplier's price list (CSV)",
      `http://127.0.0.1:${feed.port}/price-list.csv?fault=half`,
    );
    await press(page, 'Keep the address');
    await page.waitForFunction(() => !document.body.textContent.includes('Keep the address'));
    await press(page, 'Fetch prices now');
    await seeText(page, 'Every price is as it was.', '[data-feed=failed]');
    await fill(page, "Address of a supplier's price list (CSV)", `http://127.0.0.1:${feed.port}/price-list.csv`);
    await press(page, 'Keep the address');
    await page.waitForFunction(() => !document.body.textContent.includes('Keep the address'));
    await press(page, 'Fetch prices now');
    await seeText(page, /\d\d prices changed/, '[data-feed=taken]');
    await seeText(page, '1 Dec 2026', 'table');
    await feed.close();
  });
  it("stand beside the shop's own parts, which Intake offers", async () => {
    await goTo(page, `${application.url}/supplies?way=parts`);
    await page.waitForSelector('[data-own-part=tide-logger-card]');
    await goTo(page, `${application.url}/jobs/LQ-0145/intake`);
    await pressTab(page, 'Parts');
    await choose(page, 'Find a part or an earlier machine', 'Tide logger card');
    await page.waitForSelector('[aria-label="Take out Tide logger card"]');
    await saved(page);
  });
  it('come by count, each with its own inlets, added, changed and taken out as the part in hand has them', async () => {
    await goTo(page, `${application.url}/jobs/LQ-0145/intake`);
    await pressTab(page, 'Parts');
    await choose(page, 'Find a part or an earlier machine', '2.5" drive');
    const count = (await page.waitForSelector("[aria-label='Count of 2.5\" drive']"))!;
    await selectAll(count);
    await count.type('3');
    await page.keyboard.press('Enter');
    await page.waitForSelector("[aria-label='Take out 2.5\" drive 3']");
    await page.$eval("[aria-label='Take out 2.5\" drive 3']", (element) => {
      const row = element.closest('tr')!;
      [...row.querySelectorAll('button')].find((button) => button.textContent === 'more')!.click();
    });
    const inlets = "section[aria-label='Inlets of 2.5\" drive 3']";
    await page.waitForSelector(`${inlets} [data-inlet]`);
    await choose(page, (await page.waitForSelector(`${inlets} > .ant-select`))!, '4-pin peripheral');
    await page.waitForFunction(
      (at: string) => document.querySelectorAll(`${at} [data-inlet]`).length === 2,
      {},
      inlets,
    );
    await (await page.$$(`${inlets} input[type=checkbox]`))[1]!.click();
    await pressThe(page, `${inlets} [aria-label^="Take out inlet Drive"]`);
    await page.waitForFunction(
      (at: string) => document.querySelectorAll(`${at} [data-inlet]`).length === 1,
      {},
      inlets,
    );
    await saved(page);
    await goTo(page, `${application.url}/jobs/LQ-0145/intake`);
    await pressTab(page, 'Parts');
    await seeText(page, '4-pin peripheral', 'table[aria-label=Parts]');
  });
  it('have owners, who enter a meter with its error; a wrong figure is told at its field', async () => {
    await goTo(page, `${application.url}/instruments`);
    await press(page, 'Add a meter or tester');
    await page.waitForSelector('.entry-rangeRow');
    await (await page.$('.ant-modal input'))!.type('Borrowed meter');
    for (const [index, text] of ['20', 'half', '2', '0.01'].entries())
      await (await page.$$('.entry-rangeRow input'))[index]!.type(text);
    await page.keyboard.press('Enter');
    await seeText(page, 'Must be a number', '.ant-modal');
    const percent = (await page.$$('.entry-rangeRow input'))[1]!;
    await selectAll(percent);
    await percent.type('0,5');
    await page.keyboard.press('Enter');
    await page.waitForFunction(() => document.querySelector('.entry-rangeRow') === null);
    await seeText(page, 'to 20 V: 0.5 % + 2 × 0.01 V');
  });
});

describe('the cable bags', () => {
  it('say which spare cable may go to which supply, and what proves one that nobody knows', async () => {
    await goTo(page, `${application.url}/cable-bags`);
    await page.waitForSelector('[data-bag=BAG-01][data-word=safe]');
    await choose(page, (await page.waitForSelector('.cable-bags-page-bags .ant-select'))!, 'Tarnwick Quiet 600');
    await page.waitForSelector('[data-bag=BAG-01][data-word=harmful]');
    await seeText(page, /A short: the plug and the wire burn/, '[data-crossing=harmful]');
    await pressThe(page, '[data-bag=BAG-03]');
    await page.waitForSelector('[data-crossing=unknown]');
    await seeText(page, 'A probe walk proves it', '[data-prove-by-walk]');
    await press(page, 'Enter a cable');
    await fill(page, 'Label on its bag', 'BAG-07');
    await fill(page, 'Wire of each pin, by pin of the supply end', '1 2 three');
    await page.keyboard.press('Enter');
    await seeText(page, 'Each is a pin of the supply end', '.ant-modal .ant-form-item-explain-error');
    await fill(page, 'Wire of each pin, by pin of the supply end', '1 2 - ?');
    await page.keyboard.press('Enter');
    await page.waitForSelector('[data-bag=BAG-07]');
  });
  it('know the sockets of a kind of supply; a wrong word is told with its pin, and nothing typed is lost', async () => {
    await goTo(page, `${application.url}/cable-bags?shelf=sockets`);
    await press(page, 'Enter another kind of supply');
    await fill(page, 'Name', 'Brackholm back panel');
    await fill(page, 'Socket for processor cables, pin 1 first', '12 12 volt G');
    await page.keyboard.press('Enter');
    await seeText(page, 'Pin 3 must be one of', '.ant-form-item-explain-error');
    await fill(page, 'Socket for processor cables, pin 1 first', '12 12 g ?');
    await press(page, 'Brackholm 700 Dual');
    await press(page, 'Save');
    await seeText(page, /Brackholm back panel\s+processor: 4 pins, some not known\s+1 supply/, '.bag-list-bagList');
    await page.waitForFunction(() => document.querySelector('form[aria-label="Sockets of a kind of supply"]') === null);
  });
});
