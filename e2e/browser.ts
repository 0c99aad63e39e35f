import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import puppeteer, { type Browser, type Page } from 'puppeteer-core';
import { patience } from './patience.ts';

/** So many times slower than it is the screens' processor may be made, to see that nothing hangs on being fast. */
const slowness = Number(process.env['FAIRWATT_SLOW_SCREENS'] ?? 1);

/** A browser that starts, or answers, later than this will not do so any more, in milliseconds. */
const startPatience = 240_000;

export interface OpenBrowser {
  readonly browser: Browser;
  readonly close: () => Promise<void>;
}

/**
 * Debian's Chromium with a profile of its own and nothing that calls home.
 * @param cameraSees a film that its camera sees (Y4M); without one it has no camera
 */
export async function openBrowser(cameraSees?: string): Promise<OpenBrowser> {
  const profile = await mkdtemp(join(tmpdir(), 'fairwatt-chromium-'));
  const browser = await puppeteer.launch({
    executablePath: '/usr/bin/chromium',
    headless: true,
    userDataDir: profile,
    timeout: startPatience,
    protocolTimeout: startPatience,
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      '--disable-dev-shm-usage',
      '--lang=en-GB',
      ...(cameraSees === undefined
        ? []
        : [
            '--use-fake-device-for-media-stream',
            '--use-fake-ui-for-media-stream',
            `--use-file-for-fake-video-capture=${cameraSees}`,
          ]),
    ],
  });
  return {
    browser,
    close: async () => {
      await browser.close();
      await rm(profile, { recursive: true, force: true });
    },
  };
}

/** A page of the working size, in the light variant, signed by a technician unless told otherwise. */
export async function openPage(
  browser: Browser,
  options: {
    readonly width?: number;
    readonly height?: number;
    readonly technician?: string | null;
    readonly theme?: 'light' | 'dark';
  } = {},
): Promise<Page> {
  const context = await browser.createBrowserContext();
  const page = await context.newPage();
  page.setDefaultTimeout(patience);
  await page.setViewport({ width: options.width ?? 1280, height: options.height ?? 800 });
  if (slowness > 1) await page.emulateCPUThrottling(slowness);
  await page.emulateMediaFeatures([{ name: 'prefers-reduced-motion', value: 'reduce' }]);
  const technician = options.technician === undefined ? 'mara' : options.technician;
  await page.evaluateOnNewDocument(
    (name: string | null, theme: string) => {
      if (name !== null && localStorage.getItem('fairwatt.technician') === null)
        localStorage.setItem('fairwatt.technician', name);
      if (localStorage.getItem('fairwatt.theme') === null) localStorage.setItem('fairwatt.theme', theme);
    },
    technician,
    options.theme ?? 'light',
  );
  return page;
}
