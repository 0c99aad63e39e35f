import { spawn, type ChildProcess } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import type { ElementHandle, KeyInput, Page } from 'puppeteer-core';
import { freshDatabase } from '../tests/fresh-database.ts';
import { patience } from './patience.ts';
import { pressAtRest, selectAll, steadily } from './pressing.ts';

export interface Application {
  url: string;
  /** What the console shows while the shop has no owner: the code that makes one. */
  code: string;
  /** Kills the server without a word; the database stays. */
  readonly stop: () => Promise<void>;
  /** Starts it again on the same port. */
  readonly start: () => Promise<void>;
  readonly end: () => Promise<void>;
}

/** The built application with the demo data on a database of its own. */
export async function startApplication(demo = true): Promise<Application> {
  const database = await freshDatabase(demo ? 'demo' : 'bare');
  let child: ChildProcess | null = null;
  let port = '0';
  const application: Application = {
    url: '',
    code: '',
    start: () =>
      new Promise((resolve, reject) => {
        const started = spawn(process.execPath, [fileURLToPath(new URL('../server/dist/main.js', import.meta.url))], {
          stdio: ['ignore', 'pipe', 'inherit'],
          env: {
            ...process.env,
            DATABASE_URL: database.serverUrl,
            FAIRWATT_SCHEMA: 'ready',
            FAIRWATT_DEMO: demo ? '1' : '0',
            FAIRWATT_PORT: port,
            FAIRWATT_LOG: 'error',
          },
        });
        child = started;
        started.stdout.on('data', (chunk: Buffer) => {
          application.code = /enter (\S+)$/m.exec(chunk.toString())?.[1] ?? application.code;
          const found = /^ready (\S+)$/m.exec(chunk.toString());
          if (found?.[1] !== undefined) {
            application.url = found[1];
            port = new URL(found[1]).port;
            resolve();
          }
        });
        started.once('exit', (code) => reject(new Error(`the server ended with ${code}`)));
      }),
    stop: () =>
      new Promise((resolve) => {
        if (child === null || child.exitCode !== null || child.signalCode !== null) {
          resolve();
          return;
        }
        child.removeAllListeners('exit');
        child.once('exit', () => resolve());
        child.kill('SIGKILL');
      }),
    end: async () => {
      await application.stop();
      await database.drop();
    },
  };
  await application.start();
  return application;
}

/** Waits until some text stands on the page. */
export async function seeText(page: Page, text: string | RegExp, selector = 'body'): Promise<void> {
  const source = typeof text === 'string' ? text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&') : text.source;
  await page
    .waitForFunction(
      (where: string, pattern: string) =>
        new RegExp(pattern).test(document.querySelector<HTMLElement>(where)?.innerText ?? ''),
      { timeout: patience },
      selector,
      source,
    )
    .catch(async () => {
      const shown = await page
        .$eval(selector, (element) => (element as HTMLElement).innerText)
        .catch(() => '(nothing)');
      throw new Error(`did not see ${source} in ${selector}; there was:\n${shown.slice(0, 1800)}`);
    });
}

/**
 * Loads an address and waits until its screen is drawn. Not for a quiet network: the screen polls, so that may never
 * come.
 */
export async function visit(page: Page, address: string): Promise<void> {
  await page.goto(address, { waitUntil: 'domcontentloaded', timeout: patience });
  await settled(page);
}

/** Waits until the screen of an address that ends so is drawn: before, the one that is left is still shown. */
export async function drawnAt(page: Page, ending: string): Promise<void> {
  await page.waitForFunction(
    (wanted: string) =>
      location.pathname.endsWith(wanted) &&
      document.documentElement.dataset['at'] === location.pathname + location.search,
    { timeout: patience },
    ending,
  );
}

/**
 * Goes to an address as whoever works in the application does, from screen to screen; a page that does not show the
 * application yet, or shows this very address, is loaded. A screen that is on its way is waited for first: who leaves
 * before it is drawn would still see the one before it, and take it for what comes.
 */
export async function goTo(page: Page, address: string): Promise<void> {
  const isHere =
    page.url() !== address &&
    page.url().startsWith(`${new URL(address).origin}/`) &&
    (await page.evaluate(() => document.documentElement.dataset['at'] !== undefined));
  if (isHere) await drawnAt(page, '');
  const goes =
    isHere &&
    (await page.evaluate((to: string) => {
      const { idx = 0 } = (history.state ?? {}) as { idx?: number };
      history.pushState({ usr: null, key: `by-test-${idx + 1}`, idx: idx + 1 }, '', to);
      dispatchEvent(new PopStateEvent('popstate', { state: history.state as unknown }));
      return true;
    }, address));
  if (goes) await settled(page);
  else await visit(page, address);
}

/** Waits until the screen of the address is drawn, and nothing on it is still being fetched. */
export async function settled(page: Page): Promise<void> {
  await page.waitForFunction(
    () =>
      document.documentElement.dataset['at'] === location.pathname + location.search &&
      document.querySelector('[data-waiting]') === null &&
      document.fonts.status === 'loaded',
    { timeout: patience, polling: 50 },
  );
}

/** Waits until nothing moves or fades any more: between two states colours are those of neither. */
export async function atRest(page: Page): Promise<void> {
  await page.waitForFunction(
    () =>
      // The mark of a choice that is under way to its place, also before its way has begun.
      document.querySelector('.ant-segmented-thumb') === null &&
      document.getAnimations().every(({ playState }) => playState !== 'running'),
    { timeout: patience },
  );
}

/** Waits until everything typed has been confirmed by the server. */
export async function saved(page: Page): Promise<void> {
  await page.evaluate(() => {
    (document.activeElement as HTMLElement | null)?.blur();
  });
  await page
    .waitForFunction(() => document.querySelector('[data-save]')?.getAttribute('data-save') === 'saved', {
      timeout: patience,
    })
    .catch(async () => {
      const told = await page.$$eval('[data-conflict], [data-refused], [data-save]', (elements) =>
        elements.map((element) => (element as HTMLElement).innerText).join(' | '),
      );
      throw new Error(`not saved: ${told}`);
    });
}

/** The control with this accessible name. */
export async function control(page: Page, name: string): Promise<ElementHandle> {
  const found = await page.waitForSelector(`aria/${name}`, { timeout: patience });
  if (found === null) throw new Error(`no control is called ${name}`);
  return found;
}

/**
 * Enter for the page's main act, as a person presses it: with nothing else in focus, and not as the tail of the one
 * before.
 */
export async function mainAct(page: Page): Promise<void> {
  await page.waitForSelector('[data-primary]:not([disabled])', { visible: true, timeout: patience });
  await page.evaluate(() => {
    (document.activeElement as HTMLElement | null)?.blur();
  });
  await new Promise((resolve) => {
    setTimeout(resolve, 450);
  });
  await page.keyboard.press('Enter');
}

/** What a key of the page is for: nothing happens where that does not stand on the screen yet. */
function purpose(key: string): string {
  if (key === 'r') return '[data-entry]';
  return /^[0-9]$/.test(key) ? `[data-key="${key}"]` : `[data-letter="${key}"]`;
}

/** Presses a digit or a letter of the page, as soon as what it is for is there. */
export async function pressKey(page: Page, key: KeyInput): Promise<void> {
  await page.waitForSelector(purpose(key), { visible: true, timeout: patience });
  await page.keyboard.press(key);
}

export async function press(page: Page, name: string): Promise<void> {
  await steadily(async () => {
    const found = await control(page, name);
    // What is pressed of a radio in a row of choices is the label around it.
    const label = await found.evaluateHandle((element) => element.closest('.ant-segmented-item') ?? element);
    await pressAtRest(label);
  });
}

/**
 * The option of the open list that begins with a text, once the list is the answer to all that was typed and stays
 * where it is: one that moves away under the pointer is not what is pressed.
 */
async function optionAtRest(page: Page, text: string): Promise<ElementHandle> {
  const found = await page.waitForFunction(
    (wanted: string) => {
      const item = [
        ...document.querySelectorAll<HTMLElement>(
          '.ant-select-dropdown:not(.ant-select-dropdown-hidden) .ant-select-item-option',
        ),
      ].find((one) => one.textContent.startsWith(wanted));
      const isLooking = document.querySelector('.ant-select-open .anticon-loading') !== null;
      if (item === undefined || isLooking) return null;
      const { top, left } = item.getBoundingClientRect();
      const [place, count] = [`${top} ${left}`, Number(item.dataset['rested'] ?? '0')];
      const stays = item.dataset['place'] === place;
      item.dataset['place'] = place;
      item.dataset['rested'] = String(stays ? count + 1 : 0);
      return count >= 4 && stays ? item : null;
    },
    { timeout: patience, polling: 50 },
    text,
  );
  return found as ElementHandle;
}

/**
 * Picks from a list by the beginning of an option's text, as a person does: opened by a click, searched where it can
 * be.
 */
export async function choose(page: Page, list: string | ElementHandle, option: string): Promise<void> {
  await steadily(async () => {
    const field = typeof list === 'string' ? await control(page, list) : list;
    const box = await field.evaluateHandle((element) => element.closest('.ant-select') ?? element);
    await pressAtRest(box);
    await page.waitForSelector('.ant-select-dropdown:not(.ant-select-dropdown-hidden)');
    const input = await box.$('input:not([readonly])');
    if (input !== null) await input.type(option);
    const found = await optionAtRest(page, option);
    await found.click();
  });
}

/** Presses a tab by the beginning of its text. */
export async function pressTab(page: Page, text: string): Promise<void> {
  await steadily(async () => {
    const tab = await page.waitForFunction(
      (wanted: string) =>
        [...document.querySelectorAll<HTMLElement>('.choice-choice .ant-segmented-item')].find((item) =>
          item.textContent.startsWith(wanted),
        ),
      { timeout: patience },
      text,
    );
    await pressAtRest(tab as ElementHandle);
  });
}

/** Replaces what stands in a field. */
export async function fill(page: Page, name: string, text: string): Promise<void> {
  await steadily(async () => {
    const field = await control(page, name);
    await selectAll(field);
    if (text === '') await page.keyboard.press('Backspace');
    await field.type(text);
  });
}

export async function goStation(page: Page, digit: number): Promise<void> {
  await page.evaluate(() => {
    (document.activeElement as HTMLElement | null)?.blur();
  });
  await page.keyboard.press('g');
  await page.keyboard.type(String(digit));
  await page.waitForFunction(
    (index: number) =>
      document.querySelectorAll('.station-wire-wire a')[index - 1]?.getAttribute('aria-current') === 'page',
    { timeout: patience },
    digit,
  );
  await page.waitForFunction(() => document.querySelector('.page-station .page-side') !== null, { timeout: patience });
}

/** The first one at a new shop, with the code that the console shows. */
export async function becomeOwner(page: Page, { code }: Application, name: string, secret: string): Promise<void> {
  await seeText(page, 'This shop has no owner yet');
  await fill(page, 'Code of the console', code);
  await fill(page, 'Your name', name);
  await fill(page, 'New PIN or passphrase', secret);
  await fill(page, 'Once more', secret);
  await fill(page, 'This device', 'Bench tablet');
  await fill(page, 'Name of the shop', 'Ferry Steps Repairs');
  await fill(page, 'Codes of jobs begin with', 'fs');
  await press(page, 'Become the owner');
}

/** Whether a request brings acts to a job: one, or several together. */
export const isActs = (url: string): boolean => /\/acts(\/together)?$/.test(url);
