import type { Page } from 'puppeteer-core';
import { describe, expect, it } from 'vitest';
import { atRest, goTo, settled } from './application.ts';
import { barriersOn } from './axe.ts';
import { openPage } from './browser.ts';
import { patience } from './patience.ts';
import { application, chromium } from './running.ts';
import { tooNarrowToRead, tooSmallForFingers, whatSticksOut } from './geometry.ts';

const job = '/jobs/LQ-0147';
const routes = [
  '/jobs',
  `${job}/intake`,
  `${job}/intake?way=machine`,
  `${job}/intake?way=supply`,
  `${job}/intake?way=case`,
  `${job}/intake?way=counter`,
  `${job}/fault`,
  '/jobs/LQ-0144/fault',
  '/jobs/LQ-0142/measure',
  '/jobs/LQ-0142/measure?way=line',
  '/jobs/LQ-0143/measure?way=walk',
  '/jobs/LQ-0142/measure?way=live',
  `${job}/load`,
  `${job}/load?way=rules`,
  `${job}/load?way=running`,
  `${job}/replacement`,
  `${job}/replacement?way=compare`,
  `${job}/replacement?way=trade`,
  `${job}/replacement?way=asked`,
  `${job}/cables?way=was`,
  `${job}/cables?way=leads`,
  `${job}/cables?way=out`,
  `${job}/cables?way=plan`,
  `${job}/cables?way=carry`,
  `${job}/cables?way=changes`,
  `${job}/hand-over`,
  '/supplies',
  '/supplies?way=shelf',
  '/supplies?way=prices',
  '/supplies?way=parts',
  '/cable-bags',
  '/guide',
  '/guide?way=pairs',
  '/guide?show=main-24',
  '/instruments',
  '/record',
  '/settings',
  '/people',
  '/enrol',
  '/health',
];
/** A bench has a mouse, tablets and phones are touched. */
const bench = [1280, 800] as const;
const phone = [390, 844] as const;
const touched = [[820, 1180], [320, 640], phone] as const;

/** One page for each pointer, from screen to screen as a technician goes; opened when it is first asked for. */
const pages = new Map<'mouse' | 'finger', Promise<Page>>();
async function pageAt(route: string, pointer: 'mouse' | 'finger', [width, height]: readonly [number, number]) {
  const opened = pages.get(pointer) ?? openPage(chromium.browser);
  pages.set(pointer, opened);
  const page = await opened;
  await page.setViewport({ width, height, hasTouch: pointer === 'finger' });
  await goTo(page, application.url + route);
  return page;
}

/** The other theme, as its button changes it; a page without that button is loaded again. */
async function inTheOtherTheme(page: Page): Promise<void> {
  const [wanted, done] = await page.evaluate(() => {
    const other = document.documentElement.dataset['theme'] === 'dark' ? 'light' : 'dark';
    const button = [...document.querySelectorAll<HTMLElement>('.keys-barButton')].find(
      ({ textContent }) => textContent.trim().toLowerCase() === other,
    );
    button?.click();
    localStorage.setItem('fairwatt.theme', other);
    return [other, button !== undefined] as const;
  });
  if (!done) await goTo(page, page.url());
  await page.waitForFunction(
    (theme: string) => document.documentElement.dataset['theme'] === theme,
    { timeout: patience },
    wanted,
  );
  await atRest(page);
}

// Names, roles and order do not hang on the colours: each size is asked for all of it in the theme of the screen before,
// for contrast in the other.
describe.each(routes)('%s', (route) => {
  it('holds inside its width on a bench, and can be used by everybody', async () => {
    const page = await pageAt(route, 'mouse', bench);
    expect([...(await whatSticksOut(page)), ...(await tooNarrowToRead(page))]).toEqual([]);
    expect(await barriersOn(page)).toEqual([]);
    await inTheOtherTheme(page);
    expect(await barriersOn(page, true)).toEqual([]);
  });

  it('holds inside its width on tablets and phones, meets fingers, and can be used by everybody', async () => {
    const page = await pageAt(route, 'finger', touched[0]);
    const wrong: string[] = [];
    for (const [width, height] of touched) {
      await page.setViewport({ width, height, hasTouch: true });
      await settled(page);
      const found = [await whatSticksOut(page), await tooSmallForFingers(page), await tooNarrowToRead(page)];
      wrong.push(...found.flat().map((what) => `at ${width}: ${what}`));
    }
    expect(wrong).toEqual([]);
    expect(await barriersOn(page)).toEqual([]);
    await inTheOtherTheme(page);
    expect(await barriersOn(page, true)).toEqual([]);
  });
});
