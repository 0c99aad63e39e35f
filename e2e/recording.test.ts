import type { Page } from 'puppeteer-core';
import { beforeAll, describe, expect, it } from 'vitest';
import { choose, fill, goTo, press, saved, seeText } from './application.ts';
import { openPage } from './browser.ts';
import { doActs, jobOf, machine, newJob, supplyCalled } from './messages.ts';
import { pressThe } from './pressing.ts';
import { application, chromium } from './running.ts';

let page: Page;
let code: string;
let acts = 0;
const errors: string[] = [];
const fitted = 'Corvane 1000 S';

const tower = [
  'board-88',
  'card-888',
  'card-16-300',
  ...['drive-35', 'drive-35', 'drive-35', 'drive-35', 'drive-35'],
  'fan-hub',
  'pump-sata',
];

beforeAll(async () => {
  page = await openPage(chromium.browser);
  page.on('pageerror', (error) => errors.push(String(error)));
  code = await newJob('Tower of many cables');
  const { name, label } = await supplyCalled(fitted);
  await doActs(code, ...machine(tower), { kind: 'put-supply', supply: { name, label }, basedOn: 0 });
  await goTo(page, `${application.url}/jobs/${code}/cables?way=was`);
});

/** One press on the drawing, by pointing or by key. */
async function point(selector: string, by: 'press' | 'key' = 'press'): Promise<void> {
  acts += 1;
  const node = (await page.waitForSelector(selector))!;
  if (by === 'key') {
    await node.evaluate((element) => {
      (element as SVGElement).focus();
    });
    await page.keyboard.press('Space');
    return;
  }
  await node.evaluate((element) => {
    element.scrollIntoView({ block: 'center' });
  });
  const box = (await (await node.$('rect'))!.boundingBox())!;
  await page.mouse.click(box.x + box.width / 2, box.y + box.height / 2);
}
const socket = (label: string) => `[data-socket="${label}"]`;
const inlet = (label: string) => `[data-inlet][aria-label^="${label} "]`;
/** The way of the cable in hand, typed and left by Enter, which goes on to the next cable. */
async function way(text: string): Promise<void> {
  acts += 1;
  await pressThe(page, '[aria-label^="The way of cable"]');
  await page.keyboard.type(text);
  await page.keyboard.press('Enter');
  await seeText(page, /Press a socket|Press one for its way/, '[aria-label="Record by pointing"]');
}

describe('a harness recorded by pointing', () => {
  it('takes at most forty acts for a tower of twelve cables with their ways', async () => {
    const cables: readonly (readonly [string | null, ...string[]])[] = [
      ['MAIN', 'Main 24'],
      ['CPU/CARD 1', 'Processor 8, first'],
      ['CPU/CARD 2', 'Processor 8, second'],
      ['CPU/CARD 3', 'Card 8, left'],
      ['CPU/CARD 4', 'Card 8, middle'],
      ['CPU/CARD 5', 'Card 8, right'],
      ['12V-2x6', 'Card 16-pin'],
      ['DRIVE 1', 'Drive', 'Drive 2'],
      ['DRIVE 2', 'Drive 3', 'Drive 4'],
      ['DRIVE 3', 'Drive 5'],
      [null, 'Fan hub'],
      [null, 'Pump'],
    ];
    for (const [index, [from, ...to]] of cables.entries()) {
      // The keys do what pointing does.
      const by = index % 3 === 0 ? 'key' : 'press';
      if (from !== null) await point(socket(from), by);
      for (const label of to) await point(inlet(label), by);
      await seeText(page, `: ${to.join(', ')}`, '[aria-label="Record by pointing"]');
      await way(`hole ${index + 1}, front clip`);
    }
    await seeText(page, 'Every inlet has its cable.');
    await saved(page);
    const job = await jobOf(code);
    const labels = new Map(job.parts.flatMap((part) => part.inlets.map(({ id, label }) => [id, label])));
    expect(
      job.cables.map(({ socketLabel, plugs }) => [
        socketLabel === '' ? null : socketLabel,
        ...plugs.map(({ inletId }) => labels.get(inletId ?? '')),
      ]),
    ).toEqual(cables);
    expect(job.cables.every(({ way: laid, likely }) => /^hole \d+, front clip$/.test(laid) && likely !== true)).toBe(
      true,
    );
    expect(acts).toBeLessThanOrEqual(40);
  });

  it('exchanges two inlets in one act, by drag or by the list', async () => {
    const cableOf = async (label: string) => {
      const job = await jobOf(code);
      const id = job.parts.flatMap((part) => part.inlets).find((one) => one.label === label)!.id;
      return job.cables.find(({ plugs }) => plugs.some(({ inletId }) => inletId === id))?.socketLabel;
    };
    const { revision } = await jobOf(code);
    const middle = async (label: string) => {
      const box = (await (await (await page.waitForSelector(inlet(label)))!.$('rect'))!.boundingBox())!;
      return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
    };
    const [from, to] = [await middle('Card 8, left'), await middle('Card 8, right')];
    await page.mouse.move(from.x, from.y);
    await page.mouse.down();
    await page.mouse.move((from.x + to.x) / 2, (from.y + to.y) / 2, { steps: 4 });
    await page.mouse.move(to.x, to.y, { steps: 4 });
    await page.mouse.up();
    await saved(page);
    expect([await cableOf('Card 8, left'), await cableOf('Card 8, right')]).toEqual(['CPU/CARD 5', 'CPU/CARD 3']);
    expect((await jobOf(code)).revision).toBe(revision + 1);
    await point(inlet('Card 8, left'), 'key');
    await choose(page, 'The plug at Card 8, left is really at', 'Card 8, right');
    await saved(page);
    expect([await cableOf('Card 8, left'), await cableOf('Card 8, right')]).toEqual(['CPU/CARD 3', 'CPU/CARD 5']);
  });

  it('refuses a socket that does not take such a cable, and says so', async () => {
    await press(page, 'Take out cable A');
    await point(socket('DRIVE 1'));
    await press(page, '+ Main 24');
    await seeText(
      page,
      'Socket DRIVE 1 of this supply takes no cable to Main 24.',
      '[aria-label="Record by pointing"]',
    );
    expect((await jobOf(code)).cables.some(({ label }) => label === 'A')).toBe(false);
    await press(page, 'Undo');
    await seeText(page, 'Every inlet has its cable.');
    await saved(page);
  });

  it('takes both sockets of a cable with two ends at the supply, asked for where several are left', async () => {
    const own = await newJob('A card from two sockets');
    const { name, label } = await supplyCalled('Tarnwick Quiet 850');
    await doActs(own, ...machine(['board', 'card-16']), {
      kind: 'put-supply',
      supply: { name, label },
      basedOn: 0,
    });
    await goTo(page, `${application.url}/jobs/${own}/cables?way=was`);
    await point(socket('MAIN 10'));
    await point(inlet('Main 24'));
    await seeText(page, 'from MAIN 10 + MAIN 18: Main 24', '[aria-label="Record by pointing"]');
    await point(socket('CPU/CARD 2'));
    await point(inlet('Card 16-pin'));
    await seeText(page, 'takes two sockets of this supply: press the second one', '[aria-label="Record by pointing"]');
    await point(socket('CPU/CARD 5'), 'key');
    await seeText(page, 'from CPU/CARD 2 + CPU/CARD 5: Card 16-pin', '[aria-label="Record by pointing"]');
    await choose(page, 'Both sockets of cable B', 'CPU/CARD 2 + CPU/CARD 4');
    await saved(page);
    const drawn = () =>
      page.$$eval('[data-socket]', (nodes) =>
        nodes.flatMap((node) =>
          node.getAttribute('aria-pressed') === 'true' ? [node.getAttribute('data-socket')] : [],
        ),
      );
    expect(await drawn()).toEqual(['CPU/CARD 2', 'CPU/CARD 4']);
    expect((await jobOf(own)).cables.map(({ socketLabel }) => socketLabel)).toEqual([
      'MAIN 10 + MAIN 18',
      'CPU/CARD 2 + CPU/CARD 4',
    ]);
  });

  it('copies the cables of another job, marked as only likely', async () => {
    const other = await newJob('Its sister');
    await doActs(other, ...machine(['board-88', 'drive-35', 'drive-35']));
    await goTo(page, `${application.url}/jobs/${other}/cables?way=was`);
    await choose(page, 'Cables as in another job', code);
    await seeText(page, '4 cables stand as such cables usually run', '.page-work');
    await saved(page);
    const { cables } = await jobOf(other);
    expect(cables.map(({ socketLabel, way: laid, likely }) => [socketLabel, laid, likely]).sort()).toEqual([
      ['CPU/CARD 1', 'hole 2, front clip', true],
      ['CPU/CARD 2', 'hole 3, front clip', true],
      ['DRIVE 1', 'hole 8, front clip', true],
      ['MAIN', 'hole 1, front clip', true],
    ]);
    await page.waitForSelector('[data-inlet][data-state=to-seat][aria-label^="Main 24 likely"]');
  });

  it('names the harm of an adapter that was found, and keeps it as it was', async () => {
    const own = await newJob('Card on drive plugs');
    await doActs(own, ...machine(['board', 'card-6']), {
      kind: 'put-cable',
      cable: {
        id: crypto.randomUUID(),
        label: 'A',
        socketLabel: '',
        plugs: [{ kind: 'peripheral-4', inletId: 'stays-2-1' }],
        way: '',
        tiesToCut: 0,
      },
      basedOn: 0,
    });
    await goTo(page, `${application.url}/jobs/${own}/cables?way=was`);
    await seeText(page, 'no fit', '.harness-record-plugRow');
    await pressThe(page, '[aria-label="An adapter was found at plug 1 of cable A"]');
    await seeText(page, 'never: it feeds one purpose from another');
    await choose(page, 'Cables into the adapter at plug 1 of cable A', 'by 2 cables');
    await saved(page);
    expect((await jobOf(own)).cables[0]?.plugs).toEqual([
      { kind: 'peripheral-4', inletId: 'stays-2-1', through: { gives: 'card-6+2', legs: 2, moulded: false } },
    ]);
    await choose(page, 'Cables into the adapter at plug 1 of cable A', 'by one cable');
    await choose(page, 'Kind of plug 1 of cable A', '8-pin card');
    await seeText(page, 'may stay, as far as it can be told from outside');
    await pressThe(page, '[aria-label="No adapter at plug 1 of cable A"]');
    await saved(page);
    expect((await jobOf(own)).cables[0]?.plugs).toEqual([{ kind: 'card-8', inletId: 'stays-2-1' }]);
  });
  it('names sockets of a supply that nobody knows', async () => {
    const other = await newJob('Of an unknown maker');
    await doActs(other, ...machine(['board', 'drive-35']));
    await goTo(page, `${application.url}/jobs/${other}/cables?way=was`);
    await fill(page, 'Another socket', 'BOARD');
    await page.keyboard.press('Enter');
    await seeText(page, 'From BOARD: press each inlet', '[aria-label="Record by pointing"]');
    await point(inlet('Main 24'), 'key');
    await saved(page);
    expect((await jobOf(other)).cables.map(({ socketLabel }) => socketLabel)).toEqual(['BOARD']);
    expect(errors).toEqual([]);
  });
});
