import { describe, expect, it } from 'vitest';
import { settled, visit } from './application.ts';
import { barriersOn } from './axe.ts';
import { openPage } from './browser.ts';
import { application, chromium } from './running.ts';
import { whatSticksOut } from './geometry.ts';

const job = '/jobs/LQ-0147';
const routes = [
  '/jobs',
  `${job}/intake`,
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
const sizes = [
  [1280, 800],
  [820, 1180],
  [390, 844],
  [320, 640],
] as const;

describe('every screen', () => {
  it('holds everything inside its width, at four sizes, without scrolling sideways', async () => {
    const page = await openPage(chromium.browser);
    const wrong: string[] = [];
    for (const route of routes) {
      await visit(page, application.url + route);
      for (const [width, height] of sizes) {
        await page.setViewport({ width, height });
        await settled(page);
        const out = await whatSticksOut(page);
        if (out.length > 0) wrong.push(`${route} at ${width}: ${out.join('; ')}`);
      }
    }
    expect(wrong).toEqual([]);
  }, 240_000);

  // Names, roles and order do not hang on the colours: each size is asked for all of it in one theme, for contrast in
  // the other.
  it.each([
    ['light', 0],
    ['dark', 1],
  ] as const)(
    'can be used by everybody, in %s, on a bench and on a phone',
    async (theme, whole) => {
      const page = await openPage(chromium.browser, { theme });
      const wrong: string[] = [];
      for (const route of routes) {
        await visit(page, application.url + route);
        for (const [index, [width, height]] of [sizes[0], sizes[2]].entries()) {
          await page.setViewport({ width, height });
          await settled(page);
          for (const violation of await barriersOn(page, index !== whole))
            wrong.push(`${route} at ${width}: ${violation}`);
        }
      }
      expect(wrong).toEqual([]);
    },
    300_000,
  );
});
