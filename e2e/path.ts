import type { Page } from 'puppeteer-core';
import { expect } from 'vitest';
import { fill, goStation, mainAct, press, pressKey, saved, seeText } from './application.ts';
import { patience } from './patience.ts';

async function mainWords(page: Page): Promise<string> {
  const main = await page.waitForSelector('[data-primary]', { timeout: patience });
  return (await main?.evaluate((element) => element.textContent)) ?? '';
}
export const sideText = (page: Page): Promise<string> =>
  page.$eval('.page-side', (element) => (element as HTMLElement).innerText);

/** One press of the page's main act, until something else stands beside the work. */
export async function mainActMoves(page: Page): Promise<void> {
  const was = await sideText(page);
  await mainAct(page);
  await page.waitForFunction(
    (before: string) => document.querySelector<HTMLElement>('.page-side')?.innerText !== before,
    { timeout: patience },
    was,
  );
}

/** Led by the main act alone until it says so. @returns what stood beside the work on the way, and in which tabs */
export async function ledUntil(page: Page, said: RegExp): Promise<{ readonly told: string; readonly tabs: string[] }> {
  const told: string[] = [];
  const tabs = new Set<string>();
  for (let count = 0; count < 150 && !said.test(await mainWords(page)); count += 1) {
    told.push(await sideText(page));
    const tab = await page.$eval('[aria-label="Cables"] label:has(:checked)', (item) => item.textContent);
    tabs.add(tab.replace(/,.*/, ''));
    await mainActMoves(page);
  }
  expect(await mainWords(page)).toMatch(said);
  await saved(page);
  return { told: told.join('\n'), tabs: [...tabs] };
}

/** Readings after, at Measure: three rails at idle and at work, all within. */
export async function readAfter(page: Page): Promise<void> {
  await goStation(page, 3);
  await pressKey(page, 'r');
  await page.keyboard.type('12 12.04 5 5.02 3.3 3.32 idle 12 11.98 5 5.01 3.3 3.31 work');
  await page.keyboard.press('Enter');
  await page.waitForFunction(() => document.querySelector('.page-side .text-decides')?.textContent === '6 of 6 pass');
}

/** Each of these shown by keyboard: Enter leads to the next thing that is to be shown, and answers it. */
export async function shownByEnter(page: Page, items: readonly string[]): Promise<void> {
  await goStation(page, 7);
  await seeText(page, 'Not shown yet: it starts', '.page-side');
  for (const item of items) {
    await mainAct(page);
    await page.waitForFunction(
      (name: string) => document.activeElement?.closest('[data-proof]')?.getAttribute('data-proof') === name,
      {},
      item,
    );
    await page.keyboard.press('Enter');
    await page.waitForSelector(`[data-proof=${item}][data-holds=true]`);
  }
}

/** How long the complaint was tried, and under what load. */
export const complaintTried = (page: Page, tried: string): Promise<void> =>
  fill(page, 'How long, and under what load', tried);

/** What became of the old supply, by keyboard, and how long the complaint was tried; then nothing is open. */
export async function oldSupplyMarked(page: Page, why: string, tried: string): Promise<void> {
  await mainAct(page);
  await page.waitForFunction(() => document.activeElement?.closest('[data-old-supply]') !== null);
  await page.keyboard.press('Enter');
  await page.waitForFunction(() => document.activeElement?.closest('[data-old-note]') !== null);
  await page.keyboard.type(why);
  await page.keyboard.press('Enter');
  await page.waitForFunction(() => document.activeElement?.id === 'main');
  await press(page, 'given to electrical waste');
  await complaintTried(page, tried);
}

/** Closed by Enter, nothing being open. */
export async function closedByEnter(page: Page): Promise<void> {
  await page.waitForSelector('[data-open="0"]');
  await mainAct(page);
  await seeText(page, 'Closed', '.page-side .text-decides');
  await saved(page);
}
