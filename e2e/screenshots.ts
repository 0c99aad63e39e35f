// Pictures of the main views from the demo data: node … e2e/screenshots.ts URL DIRECTORY [NAME…]
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { fill, visit } from './application.ts';
import { openBrowser, openPage } from './browser.ts';

const [address = 'http://127.0.0.1:4870', directory = 'docs/screenshots', ...only] = process.argv.slice(2);
/** Held in the hand at the machine, and leaning against its case. */
const phone = { width: 390, height: 844 };
const tablet = { width: 820, height: 1180 };

const views: readonly {
  readonly name: string;
  readonly path: string;
  readonly dark?: boolean;
  readonly width?: number;
  readonly height?: number;
  readonly click?: string;
  readonly pause?: number;
  readonly upload?: string;
  readonly type?: { readonly into: string; readonly text: string };
}[] = [
  { name: 'jobs', path: '/jobs', pause: 4000 },
  { name: 'intake', path: '/jobs/LQ-0142/intake' },
  {
    name: 'machine',
    path: '/jobs/LQ-0142/intake',
    click: '.choice-choice .ant-segmented-item:nth-child(2)',
    type: { into: 'The machine in one line', text: '+ 2 drives, sound card, - fans, + lighting glow' },
  },
  { name: 'find-the-fault', path: '/jobs/LQ-0143/fault' },
  { name: 'measure', path: '/jobs/LQ-0142/measure', pause: 1200 },
  {
    name: 'probe-walk',
    path: '/jobs/LQ-0143/measure?way=walk',
    click: '[data-probe] button',
    pause: 1200,
    ...phone,
  },
  { name: 'log', path: '/jobs/LQ-0142/measure?way=log', upload: '../demo/logs/radio-evening.csv', pause: 1200 },
  { name: 'live', path: '/jobs/LQ-0142/measure?way=live', click: '[data-live] [data-primary]', pause: 2500 },
  { name: 'load', path: '/jobs/LQ-0142/load' },
  { name: 'how-sure', path: '/jobs/LQ-0142/load?way=sure', pause: 1500 },
  { name: 'replacement', path: '/jobs/LQ-0142/replacement', pause: 1200 },
  { name: 'cables-record', path: '/jobs/LQ-0147/cables?way=was', ...tablet },
  { name: 'cables', path: '/jobs/LQ-0147/cables?way=plan' },
  { name: 'hand-over', path: '/jobs/LQ-0137/hand-over' },
  { name: 'supplies', path: '/supplies' },
  { name: 'guide', path: '/guide' },
  { name: 'cable-bags', path: '/cable-bags?on=tarnwick-quiet-600' },
  { name: 'instruments', path: '/instruments' },
  { name: 'find-the-fault-dark', path: '/jobs/LQ-0144/fault', dark: true },
];

const { browser, close } = await openBrowser();
for (const view of views.filter((item) => only.length === 0 || only.includes(item.name))) {
  const page = await openPage(browser, {
    theme: view.dark === true ? 'dark' : 'light',
    width: view.width ?? 1280,
    height: view.height ?? 800,
  });
  await visit(page, `${address}${view.path}`);
  if (view.click !== undefined) await page.click(view.click);
  if (view.type !== undefined) await fill(page, view.type.into, view.type.text);
  if (view.upload !== undefined) {
    await (await page.waitForSelector('input[type=file]'))!.uploadFile(
      fileURLToPath(new URL(view.upload, import.meta.url)),
    );
    await page.waitForSelector('[aria-label="How the file is read"] [data-primary]');
    await page.keyboard.press('Enter');
    await page.waitForSelector('[data-log-read]');
  }
  if (view.pause !== undefined)
    await new Promise((resolve) => {
      setTimeout(resolve, view.pause);
    });
  // What the threads are still at work on is no picture of a view.
  await page.waitForFunction(() => !document.body.innerText.includes('judging supplies'));
  await page.evaluate(async () => {
    await document.fonts.ready;
  });
  await page.screenshot({ path: join(directory, `${view.name}.png`) });
  await page.browserContext().close();
}
await close();
