import { resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { ElementHandle, Page } from 'puppeteer-core';
import { describe, expect, it } from 'vitest';
import { choose, control, fill, goStation, goTo, press, pressTab, saved, seeText } from './application.ts';
import { barriersOn } from './axe.ts';
import { openPage } from './browser.ts';
import { jobOf, newJob } from './messages.ts';
import { newMachine } from './new-machine.ts';
import { patience } from './patience.ts';
import { application, chromium } from './running.ts';

describe('a supply from a picture of its label', () => {
  const folder = fileURLToPath(new URL('../demo/labels/', import.meta.url));
  const give = async (page: Page, file: string) => {
    const field = (await page.waitForSelector('.ant-modal input[type=file]')) as ElementHandle<HTMLInputElement>;
    await field.uploadFile(resolve(folder, file));
  };
  const isTaken = (page: Page) =>
    page.$eval('[data-take-label]', (element) => !(element as HTMLButtonElement).disabled);

  async function opened(): Promise<{ readonly page: Page; readonly code: string }> {
    const code = await newJob('A label');
    const page = await openPage(chromium.browser);
    await goTo(page, `${application.url}/jobs/${code}/intake`);
    await pressTab(page, 'Present supply');
    await press(page, 'From a picture of its label');
    return { page, code };
  }

  it('has its outputs, limits and rating, and the picture stays with the job', async () => {
    const { page, code } = await opened();
    await give(page, 'rows-on-dark.jpg');
    await page.waitForSelector('[data-take-label]', { timeout: patience });
    expect(await barriersOn(page)).toEqual([]);
    for (const button of await page.$$('.ant-modal button[aria-label$=" is right"]')) await button.click();
    await press(page, 'Take what the label says');
    await saved(page);
    const { supply } = await jobOf(code);
    expect(supply).toMatchObject({
      name: 'Ferlund K600',
      label: {
        ratingWatts: 600,
        guide: '3.x',
        rails: [
          { label: '5V', rail: '+5', amps: 12 },
          { label: '3.3V', rail: '+3.3', amps: 12 },
          { label: '12V', rail: '+12', amps: 44 },
          { label: '-12V', rail: '-12', amps: 0.3 },
          { label: '5VSB', rail: '+5sb', amps: 2 },
        ],
        combined: [
          { labels: ['5V', '3.3V'], watts: 95 },
          { labels: ['12V'], watts: 528 },
        ],
      },
    });
    // The picture is scaled down and sent by itself, beside the acts.
    const captions = async () => {
      const photos = (await (await fetch(`${application.url}/api/jobs/${code}/photos`)).json()) as {
        caption: string;
      }[];
      return photos.map(({ caption }) => caption);
    };
    await expect.poll(captions, { timeout: patience }).toEqual(['Label of the supply']);
    await page.browserContext().close();
  });
  it('waits for a look at each doubtful figure; what is no picture is told; reading can be cancelled', async () => {
    const { page, code } = await opened();
    await give(page, '../shop.json');
    await seeText(page, 'shop.json is no picture that this browser can read', '.ant-modal');
    await give(page, 'listed.jpg');
    await press(page, 'Cancel');
    await seeText(page, 'Take, drop or choose a picture of the label', '.ant-modal');
    await give(page, 'listed.jpg');
    await page.waitForSelector('[data-take-label]', { timeout: patience });
    expect(await isTaken(page)).toBe(false);
    await seeText(page, 'to look at first', '.ant-modal');
    for (const button of await page.$$('.ant-modal button[aria-label$=" is right"]')) await button.click();
    await page.waitForFunction(() => !document.querySelector<HTMLButtonElement>('[data-take-label]')!.disabled);
    await fill(page, '12V, amps', '27');
    await page.keyboard.press('Tab');
    await press(page, 'Take what the label says');
    await saved(page);
    const { supply } = await jobOf(code);
    expect(supply?.label.rails.find(({ rail }) => rail === '+12')).toEqual({ label: '12V', rail: '+12', amps: 27 });
    await page.browserContext().close();
  });
});

describe('the supply that came', () => {
  it('of which only the rating is said stands as usual, marked, and decides nothing until it is read', async () => {
    const { page, stored } = await newMachine();
    await fill(page, 'The machine in one line', 'slim, board 24+8, quad core, 1x8 memory, ssd, 300 W supply');
    await page.keyboard.press('Enter');
    await saved(page);
    await pressTab(page, 'Present supply');
    await seeText(page, 'Not every figure was read off the label yet');
    await fill(page, 'Amps of 12V', '21');
    await press(page, 'The label says the same');
    await saved(page);
    const { supply, sheet } = await stored();
    expect([supply?.label.shape, sheet.shapes]).toEqual(['TFX', ['TFX']]);
    expect(supply?.label.rails.map(({ amps, usual }) => [amps, usual])).toEqual([
      [21, undefined],
      [14, undefined],
      [14, undefined],
      [0.3, undefined],
      [2, undefined],
    ]);
    expect(await page.$$eval('[role=status].signs-caution', (list) => list.map((item) => item.textContent))).toEqual(
      [],
    );
    await page.browserContext().close();
  });
  it('is found among the shop’s by some letters, and its age by the date on its label', async () => {
    const { page, stored } = await newMachine();
    await pressTab(page, 'Present supply');
    const field = await control(page, 'Name on the label');
    await field.type('450 b');
    const option = await page.waitForSelector('.ant-select-item-option');
    await option?.click();
    await saved(page);
    expect((await stored()).supply).toMatchObject({ name: 'Corvane 450 B', label: { ratingWatts: 450 } });
    await fill(page, 'Age of the supply, or the date on its label', 'A19F');
    await seeText(page, 'Neither years nor a plain date');
    await fill(page, 'Age of the supply, or the date on its label', '2020');
    await page.keyboard.press('Enter');
    await saved(page);
    expect((await stored()).sheet.supplyYears).toBeGreaterThan(5);
    // A selector that stands wrong is told where it is entered, and nothing is powered before it is set.
    await choose(page, 'Voltage selector, as it came', '115 V');
    await seeText(page, 'Set the selector to the local mains.', '.signs-caution');
    await saved(page);
    expect((await stored()).supply?.selector).toBe('115');
    await goStation(page, 2);
    await seeText(page, "the supply's selector stood at 115 V as it came; the mains here are 230 V");
    await page.browserContext().close();
  });
});

describe('a label that is in the hand', () => {
  it('is typed in by Enter alone, figure by figure; what is none stays where it is', async () => {
    const { page, stored } = await newMachine();
    await pressTab(page, 'Present supply');
    await fill(page, 'Rating (W)', '450');
    await page.keyboard.press('Enter');
    await press(page, 'The usual five');
    const at = (name: string) =>
      page.waitForFunction((label: string) => document.activeElement?.getAttribute('aria-label') === label, {}, name);
    await at('Amps of 12V');
    await page.keyboard.type('3x');
    await page.keyboard.press('Enter');
    await seeText(page, '“3x” is not a figure');
    await at('Amps of 12V');
    await page.keyboard.press('Backspace');
    for (const [typed, next] of [
      ['6', 'Amps of 5V'],
      ['15', 'Amps of 3.3V'],
      ['20', 'Amps of -12V'],
      ['0,3', 'Amps of 5VSB'],
      ['2.5', 'Watts of 5V and 3.3V'],
    ] as const) {
      await page.keyboard.type(typed);
      await page.keyboard.press('Enter');
      await at(next);
    }
    await page.keyboard.type('120');
    await page.keyboard.press('Enter');
    await page.waitForFunction(() => !(document.activeElement instanceof HTMLInputElement));
    await saved(page);
    const { label } = (await stored()).supply!;
    expect(label.rails.map(({ amps }) => amps)).toEqual([36, 15, 20, 0.3, 2.5]);
    expect(label.combined.map(({ watts }) => watts)).toEqual([120]);
    expect([...label.rails, ...label.combined].some(({ usual }) => usual === true)).toBe(false);
    await page.browserContext().close();
  });
});
