import { beforeAll, describe, expect, it } from 'vitest';
import { likelyHarness } from '@fairwatt/core';
import { goStation, goTo, mainAct, press, pressKey, pressTab, saved, seeText } from './application.ts';
import { doActs, jobOf, machine, newJob, supplyCalled } from './messages.ts';
import { page } from './one-page.ts';
import { application } from './running.ts';

let code: string;
beforeAll(async () => {
  code = await newJob('Weather station');
  const { label } = await supplyCalled('Corvane 550 S');
  await doActs(code, ...machine(['board', 'processor-65', 'drive-35', 'fan']), {
    kind: 'put-supply',
    supply: { name: 'Corvane 550 S', label },
    basedOn: 0,
  });
  const cables = likelyHarness(await jobOf(code), () => crypto.randomUUID());
  await doActs(
    code,
    ...cables.map((cable) => ({ kind: 'put-cable', cable: { ...cable, likely: undefined }, basedOn: 0 }) as const),
  );
});

async function undone(what: string | RegExp): Promise<void> {
  await page.evaluate(() => {
    (document.activeElement as HTMLElement | null)?.blur();
  });
  await page.keyboard.down('Control');
  await page.keyboard.press('z');
  await page.keyboard.up('Control');
  await seeText(page, what, '.undo-undo');
  await saved(page);
}
const nextUndo = () => page.$eval('[data-undo]', (button) => button.getAttribute('aria-label'));

describe('what was signed here', () => {
  it('is taken back by Ctrl Z, one thing after the other: an answer, a reading', async () => {
    await goTo(page, `${application.url}/jobs/${code}/fault`);
    await page.waitForSelector('[data-check]');
    expect(await nextUndo()).toBe('Undo: nothing was done here yet');
    await pressKey(page, '1');
    await seeText(page, /take back/, '.lists-trail');
    await goStation(page, 3);
    await pressKey(page, 'r');
    await page.keyboard.type('12 11.02 work');
    await page.keyboard.press('Enter');
    await page.waitForSelector('[data-verdict=fail]');
    await saved(page);
    expect((await jobOf(code)).readings).toHaveLength(1);
    await undone('Taken back: Reading: +12 V at work, 11.02 V');
    expect((await jobOf(code)).readings.map(({ struckAt }) => struckAt !== null)).toEqual([true]);
    await undone(/^Taken back: /);
    expect((await jobOf(code)).outcomes.every(({ takenBackAt }) => takenBackAt !== null)).toBe(true);
    expect(await nextUndo()).toBe('Undo: nothing was done here yet');
  });

  it('is read out as it comes to something', async () => {
    await pressKey(page, 'r');
    await page.keyboard.type('5 5.02 idle');
    await page.keyboard.press('Enter');
    await page.waitForFunction(
      () => document.querySelector('.page-side [data-spoken]')?.textContent === 'plus 5 volts idle, 5.02: pass.',
    );
    await saved(page);
  });

  it('comes back with all that went with it: a part with its cable and its ticks', async () => {
    await doActs(code, {
      kind: 'set-choice',
      choice: { kind: 'replace', modelId: 'corvane-650-s', reason: '', known: [] },
      basedOn: 0,
    });
    await goStation(page, 6);
    for (let count = 0; count < 80 && (await jobOf(code)).seats.length < 3; count += 1) {
      await mainAct(page);
      await saved(page);
    }
    // What was taken back stands there again, to be looked at once more.
    const seen = await page.$eval('.page-side .text-decides', (element) => element.textContent);
    await pressKey(page, 'a');
    await page.waitForFunction(
      (was) => document.querySelector('.page-side .text-decides')?.textContent !== was,
      {},
      seen,
    );
    await undone(/^Taken back: Plug looked at/);
    expect(await page.$eval('.page-side .text-decides', (element) => element.textContent)).toBe(seen);
    const before = await jobOf(code);
    expect(before.seats.length).toBeGreaterThanOrEqual(3);
    const drive = before.parts.find(({ classId }) => classId === 'drive-35')!;
    await goTo(page, `${application.url}/jobs/${code}/intake`);
    await pressTab(page, 'Parts');
    await press(page, `Take out ${drive.name}`);
    await seeText(page, 'is taken out', '.undo-undo');
    await saved(page);
    expect((await jobOf(code)).seats.length).toBeLessThan(before.seats.length);
    await press(page, 'Undo');
    await saved(page);
    const after = await jobOf(code);
    const ticks = (job: typeof after) => job.seats.map(({ inletId, click }) => [inletId, click]).sort();
    expect(ticks(after)).toEqual(ticks(before));
    const plugs = (job: typeof after) =>
      job.cables.flatMap((cable) => cable.plugs.map(({ inletId }) => inletId)).sort();
    expect(plugs(after)).toEqual(plugs(before));
  });

  it('gives a line back to the field where it was typed, with what had been left of it', async () => {
    await goTo(page, `${application.url}/jobs/${code}/intake`);
    await pressTab(page, 'Parts');
    const parts = (await jobOf(code)).parts.length;
    await pressKey(page, 'r');
    await page.keyboard.type('2 optical drives, frobnicate');
    await page.keyboard.press('Enter');
    await seeText(page, 'taken in', '.undo-undo');
    const line = () => page.$eval('[data-entry]', (field) => (field as HTMLTextAreaElement).value);
    expect(await line()).toBe('frobnicate');
    await page.keyboard.down('Control');
    await page.keyboard.press('z');
    await page.keyboard.up('Control');
    await seeText(page, 'Taken back', '.undo-undo');
    expect(await line()).toBe('2 optical drives, frobnicate');
    await saved(page);
    expect((await jobOf(code)).parts).toHaveLength(parts);
  });

  it('stays where somebody made something else of it since', async () => {
    await goTo(page, `${application.url}/jobs/${code}/measure`);
    await pressKey(page, 'r');
    await page.keyboard.type('3.3 3.31 idle');
    await page.keyboard.press('Enter');
    await saved(page);
    const { id } = (await jobOf(code)).readings.at(-1)!;
    await doActs(code, { kind: 'strike-reading', id });
    await seeText(page, 'restore', 'body');
    await undone('changed since, so it stays');
    expect((await jobOf(code)).readings.at(-1)!.struckAt).not.toBe(null);
  });
});
