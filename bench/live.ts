// A meter live on the screen for a while, with what page and server hold in memory: node … bench/live.ts URL of a
// running demo, MINUTES, SAMPLES.
import { readdir, readFile } from 'node:fs/promises';
import { setTimeout as wait } from 'node:timers/promises';
import type { CDPSession } from 'puppeteer-core';
import { visit } from '../e2e/application.ts';
import { openBrowser, openPage } from '../e2e/browser.ts';

const [address = 'http://127.0.0.1:4870', minutes = '5', wanted = '12'] = process.argv.slice(2);
const samples = Number(wanted);

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

/** What a heap snapshot lists: fields of each node in a row, types and names by number. */
interface Snapshot {
  readonly snapshot: {
    readonly meta: { readonly node_fields: readonly string[]; readonly node_types: readonly [readonly string[]] };
  };
  readonly nodes: readonly number[];
}
/**
 * What the application itself holds; compiled code and the browser's own records of frames and requests grow to their
 * bounds.
 */
const ownTypes = new Set([
  'object',
  'array',
  'closure',
  'string',
  'concatenated string',
  'sliced string',
  'number',
  'regexp',
  'bigint',
  'symbol',
]);

/** Objects of the page in MB, after a collection. */
async function objectMegabytes(session: CDPSession): Promise<number> {
  await session.send('HeapProfiler.collectGarbage');
  const pieces: string[] = [];
  const take = ({ chunk }: { readonly chunk: string }) => {
    pieces.push(chunk);
  };
  session.on('HeapProfiler.addHeapSnapshotChunk', take);
  await session.send('HeapProfiler.takeHeapSnapshot', { reportProgress: false });
  session.off('HeapProfiler.addHeapSnapshotChunk', take);
  const {
    snapshot: { meta },
    nodes,
  } = JSON.parse(pieces.join('')) as Snapshot;
  const width = meta.node_fields.length;
  const size = meta.node_fields.indexOf('self_size');
  let bytes = 0;
  for (let at = 0; at < nodes.length; at += width)
    if (ownTypes.has(meta.node_types[0][nodes[at]!]!)) bytes += nodes[at + size]!;
  return bytes / 1e6;
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
      constructor(url: string | URL) {
        super(url);
        this.addEventListener('message', (message: MessageEvent<string>) => {
          if (message.data.includes('"reading"')) counted.readings += 1;
        });
      }
    };
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries()) counted.longest = Math.max(counted.longest, entry.duration);
    }).observe({ entryTypes: ['longtask'] });
  });
  const session = await page.createCDPSession();
  await visit(page, `${address}/jobs/LQ-0142/measure?way=live`);
  await (await page.waitForSelector('[data-live] [data-primary]'))!.click();
  await page.waitForSelector('[data-live=running]');
  await wait(5000);
  const begun = performance.now();
  const take = async () => {
    const objects = await objectMegabytes(session);
    const { usedSize } = await session.send('Runtime.getHeapUsage');
    const nodes = await page.evaluate(() => document.querySelectorAll('*').length);
    // Collecting takes a moment itself, so the long tasks are counted between the samples.
    const seen = await page.evaluate(() => {
      const counted = window as unknown as { readings: number; longest: number };
      const { readings, longest } = counted;
      counted.longest = 0;
      return { readings, longest };
    });
    return {
      minute: (performance.now() - begun) / 60_000,
      objects,
      page: usedSize / 1e6,
      server: await serverMegabytes(),
      nodes,
      ...seen,
    };
  };
  const list = [await take()];
  console.log(
    '| minute | readings | objects of the page, MB | its heap with code, MB ' +
      '| elements | server, MB | longest task, ms |\n' +
      '| ---: | ---: | ---: | ---: | ---: | ---: | ---: |',
  );
  for (let sample = 1; sample <= samples; sample += 1) {
    await wait((Number(minutes) * 60_000) / samples);
    const taken = await take();
    list.push(taken);
    console.log(
      `| ${taken.minute.toFixed(1)} | ` +
        `${(taken.readings - list[0]!.readings).toLocaleString('en')} | ` +
        `${taken.objects.toFixed(2)} | ${taken.page.toFixed(1)} | ${taken.nodes} | ` +
        `${taken.server.toFixed(0)} | ` +
        `${taken.longest === 0 ? 'under 50' : Math.round(taken.longest)} |`,
    );
  }
  const last = list.at(-1)!;
  // The first part warms up: caches fill and code is compiled.
  const warm = list[3]!;
  const rate = (last.readings - list[0]!.readings) / (last.minute * 60);
  console.log(
    `\n${rate.toFixed(1)} readings a second; since minute ${warm.minute.toFixed(1)} the ` +
      `page's objects ${(last.objects / warm.objects).toFixed(2)} times, the server's memory ` +
      `${(last.server / warm.server).toFixed(2)} times (wanted: no growth, at most 1.05 and ` +
      '1.25).',
  );
  if (last.objects / warm.objects > 1.05 || last.server / warm.server > 1.25 || rate < 40) process.exitCode = 1;
} finally {
  await close();
}
