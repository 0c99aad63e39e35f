import type { Page } from 'puppeteer-core';
import type { Job } from '@fairwatt/core';
import { goTo, pressTab } from './application.ts';
import { openPage } from './browser.ts';
import { jobOf, newJob } from './messages.ts';
import { application, chromium } from './running.ts';

/** A job of which nothing is known yet, open at its parts. */
export async function newMachine(): Promise<{ readonly page: Page; readonly stored: () => Promise<Job> }> {
  const code = await newJob('Off the counter');
  const page = await openPage(chromium.browser);
  await goTo(page, `${application.url}/jobs/${code}/intake`);
  await pressTab(page, 'Parts');
  return { page, stored: () => jobOf(code) };
}
