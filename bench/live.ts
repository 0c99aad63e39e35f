// A meter live on the screen for a while, with what page and server hold in memory: node … bench/live.ts URL of a running demo, MINUTES.
import { readdir, readFile } from 'node:fs/promises';
import { setTimeout as wait } from 'node:timers/promises';
import { visit } from '../e2e/application.ts';
import { openBrowser, openPage } from '../e2e/browser.ts';

const [address = 'http://127.0.0.1:4870', minutes = '5'] = process.argv.slice(2);
const samples = 12;

/** The process that serves, by its command line; its resident memory in MB. */
async function serverMegabytes(): Promise<number> {
  for (const pid of (await readdir('/proc')).filter((name) => /^\d+$/.test(name))) {
    const commandLine = await readFile(`/proc/${pid}/cmdline`, 'utf8').catch(() => '');
    if (!commandLine.includes('server/dist/main.js')) continue;
    const status = await readFile(`/proc/${pid}/status`, 'utf8');
    return Number(/VmRSS:\s+(\d+)/.exec(status)?.[1]) / 1024;
  }
  throw new Error('no server runs on this machine');
}

const { browser, close } = await openBrowser();
try {
  const page = await openPage(browser);
  await page.evaluateOnNewDocument(() => {
    const counted = window as unknown as { readings: number; longest: number };
    counted.readings = 0;
    counted.longest = 0;
    const Original = window.EventSource;
    window.EventSource = class extends Original {
      constructor(url: string | URL) { super(url); this.addEventListener('message', (message: MessageEvent<string>) => { if (message.data.includes('"reading"')) counted.readings += 1; }); }
    };
    new PerformanceObserver((list) => { for (const entry of list.getEntries()) counted.longest = Math.max(counted.longest, entry.duration); }).observe({ entryTypes: ['longtask'] });
  });
  const session = await page.createCDPSession();
  await visit(page, `${address}/jobs/LQ-0142/measure?way=live`);
  await (await page.waitForSelector('[data-live] [data-primary]'))!.click();
  await page.waitForSelector('[data-live=running]');
  await wait(5000);
  const begun = performance.now();
  const take = async () => {
    await session.send('HeapProfiler.collectGarbage');
    const { usedSize } = await session.send('Runtime.getHeapUsage');
    const nodes = await page.evaluate(() => document.querySelectorAll('*').length);
    // Collecting takes a moment itself, so the long tasks are counted between the samples.
    const seen = await page.evaluate(() => { const counted = window as unknown as { readings: number; longest: number }; const { readings, longest } = counted; counted.longest = 0; return { readings, longest }; });
    return { minute: (performance.now() - begun) / 60_000, page: usedSize / 1e6, server: await serverMegabytes(), nodes, ...seen };
  };
  const list = [await take()];
  console.log('| minute | readings | page heap, MB | elements | server, MB | longest task, ms |\n| ---: | ---: | ---: | ---: | ---: | ---: |');
  for (let sample = 1; sample <= samples; sample += 1) {
    await wait((Number(minutes) * 60_000) / samples);
    const taken = await take();
    list.push(taken);
    console.log(`| ${taken.minute.toFixed(1)} | ${(taken.readings - list[0]!.readings).toLocaleString('en')} | ${taken.page.toFixed(1)} | ${taken.nodes} | ${taken.server.toFixed(0)} | ${taken.longest === 0 ? 'under 50' : Math.round(taken.longest)} |`);
  }
  const last = list.at(-1)!;
  // The first part warms up: caches fill and code is compiled.
  const warm = list[3]!;
  const rate = (last.readings - list[0]!.readings) / (last.minute * 60);
  console.log(`\n${rate.toFixed(1)} readings a second; since minute ${warm.minute.toFixed(1)} the page's heap ${(last.page / warm.page).toFixed(2)} times, the server's memory ${(last.server / warm.server).toFixed(2)} times (wanted: no growth, at most 1.1 and 1.25).`);
  if (last.page / warm.page > 1.1 || last.server / warm.server > 1.25 || rate < 40) process.exitCode = 1;
} finally {
  await close();
}
