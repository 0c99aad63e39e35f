import type { HTTPRequest, Page } from 'puppeteer-core';

/**
 * Has every request of a page decided on, by one `decide` that lets it go on, holds it or answers it. It has to be
 * before the page loads anything: a request that is just leaving while this is switched on may never get anywhere. What
 * goes through the service worker, once it has taken a page over, would not be seen, so that it is passed by.
 */
export async function intercepted(page: Page, decide: (request: HTTPRequest) => void): Promise<void> {
  if (page.url() !== 'about:blank') throw new Error('a page is intercepted before it loads anything');
  await page.setBypassServiceWorker(true);
  await page.setRequestInterception(true);
  page.on('request', decide);
}
