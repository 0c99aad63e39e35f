import { afterAll, beforeAll } from 'vitest';
import { startApplication, type Application } from './application.ts';
import { openBrowser, type OpenBrowser } from './browser.ts';

/** The application with its demo shop and a browser, for the tests of the file that imports them. */
export let application: Application;
export let chromium: OpenBrowser;

beforeAll(async () => {
  application = await startApplication();
  chromium = await openBrowser();
});
afterAll(async () => {
  await chromium.close();
  await application.end();
});
