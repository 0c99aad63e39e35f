import type { Page } from 'puppeteer-core';
import { afterEach, beforeAll, expect } from 'vitest';
import { openPage } from './browser.ts';
import { chromium } from './running.ts';

/**
 * One page for all tests of the file that imports it; a test in which something is thrown there, or kept from it,
 * fails.
 */
export let page: Page;

const troubles: string[] = [];
beforeAll(async () => {
  page = await openPage(chromium.browser);
  await page.evaluateOnNewDocument(() => {
    addEventListener('securitypolicyviolation', ({ violatedDirective, blockedURI }) => {
      console.error(`Content Security Policy: ${violatedDirective} ${blockedURI}`);
    });
  });
  page.on('pageerror', (error) => troubles.push(String(error)));
  // Whatever the server's content policy keeps from the page is something that the page is made with.
  page.on('console', (message) => {
    if (message.type() === 'error' && message.text().includes('Content Security Policy')) troubles.push(message.text());
  });
});
afterEach(() => {
  expect(troubles).toEqual([]);
});
