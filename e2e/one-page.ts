import type { Page } from 'puppeteer-core';
import { afterEach, beforeAll, expect } from 'vitest';
import { openPage } from './browser.ts';
import { chromium } from './running.ts';

/** One page for all tests of the file that imports it; a test in which something is thrown there fails. */
export let page: Page;

const troubles: string[] = [];
beforeAll(async () => {
  page = await openPage(chromium.browser);
  page.on('pageerror', (error) => troubles.push(String(error)));
});
afterEach(() => {
  expect(troubles).toEqual([]);
});
