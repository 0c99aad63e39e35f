import type { Page } from 'puppeteer-core';
import { describe, expect, it } from 'vitest';
import { partClass, type Job } from '@fairwatt/core';
import { choose, control, fill, press, pressTab, saved, seeText, visit } from './application.ts';
import { openPage } from './browser.ts';
import { application, chromium } from './running.ts';

/** A job of which nothing is known yet, open at its parts. */
async function newMachine(): Promise<{ readonly page: Page; readonly stored: () => Promise<Job> }> {
  const answer = await fetch(`${application.url}/api/jobs`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ by: 'mara', id: crypto.randomUUID(), title: 'Off the counter', client: '', words: '' }),
  });
  const { code } = (await answer.json()) as Job;
  const page = await openPage(chromium.browser);
  await visit(page, `${application.url}/jobs/${code}/intake`);
  await pressTab(page, 'Parts');
  return { page, stored: async () => (await (await fetch(`${application.url}/api/jobs/${code}`)).json()) as Job };
}
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
    await seeText(page, 'Graphics card, three 8-pin, 320 W', '.reading');
    await seeText(page, 'not understood; it stays in the line', '.reading');
    await seeText(page, 'no board said', '.reading');
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
    const field = await control(page, 'The machine in one line');
    expect(await field.evaluate((element) => (element as HTMLTextAreaElement).value)).toBe('warp core');
    await page.browserContext().close();
  });
  it('asks what decides and takes it in once it is said; an upgrade is in the same words; all of it can be undone', async () => {
    const { page, stored } = await newMachine();
    await fill(page, 'The machine in one line', 'board 24+8, card');
    await seeText(page, 'which plugs?', '.reading');
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
