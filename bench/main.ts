// Speed of the core on the demo data, each against one named baseline of the same run, and the size of the first
// screen.
import { readFileSync } from 'node:fs';
import { Bench } from 'tinybench';
import {
  candidatesOf,
  demandOf,
  faultSourceOf,
  faultView,
  inletsToServe,
  judgeReadings,
  loadView,
  noBags,
  partsAt,
  planCables,
  posterior,
  rankChecks,
  viewJob,
  type Job,
  type Shop,
  type SupplyModel,
} from '@fairwatt/core';
import { loadModel } from '@fairwatt/server';
import { measureFirstScreen } from './first-screen.ts';
import { timeLog } from './log.ts';
import { countIllegal, timeAdversary } from './adversary.ts';
import { timePlans } from './plan.ts';
import { timeSizing } from './sizing.ts';

const read = (path: string): unknown => JSON.parse(readFileSync(new URL(`../demo/${path}`, import.meta.url), 'utf8'));
const { job } = read('jobs/1-radio-playout.json') as { job: Job };
const { supplies } = read('supplies.json') as { supplies: SupplyModel[] };
const shopFile = read('shop.json') as Pick<Shop, 'settings' | 'instruments'>;
const shop: Shop = {
  settings: shopFile.settings,
  instruments: shopFile.instruments,
  supplies,
  model: await loadModel(),
  bags: noBags,
};

const { observations } = faultView(faultSourceOf(job), shop, loadView(job, shop));
const planned = partsAt(job.parts, 'planned');
const inlets = inletsToServe(planned, 'tower');
const kit = supplies.find((model) => model.id === 'corvane-650-s')!.kit;
const jobText = JSON.stringify(job);

/** Only whether all of it runs: the figures of so short a time say nothing. */
const short = process.argv[2] === 'short';
const bench = new Bench(short ? { time: 1, iterations: 2, warmup: false } : { time: 600, warmupTime: 150 });
const baseline = 'baseline: parse the radio job from JSON';
bench
  .add(baseline, () => {
    JSON.parse(jobText);
  })
  .add('verdict: all readings of the radio job', () => {
    judgeReadings(job.readings, shop.instruments, '2.x');
  })
  .add('posterior: all outcomes of the radio job', () => {
    posterior(shop.model, observations);
  })
  .add('next checks: full ranking two steps ahead', () => {
    rankChecks(shop.model, observations, shop.settings.bench);
  })
  .add('load: demand of the planned machine', () => {
    demandOf(planned);
  })
  .add('load: both machines, limits and schools', () => {
    loadView(job, shop);
  })
  .add('plan: nine inlets on one kit', () => {
    planCables(kit, inlets);
  })
  .add('rank: 29 supplies with their plans', () => {
    candidatesOf(job, shop);
  })
  .add('view: everything that follows from a job', () => {
    viewJob(job, shop);
  });
await bench.run();

const rate = (name: string) => {
  const result = bench.getTask(name)?.result;
  return result !== undefined && 'throughput' in result ? result.throughput.mean : Number.NaN;
};
const base = rate(baseline);
console.log('| what | per second | times the baseline |\n| --- | ---: | ---: |');
for (const { name } of bench.tasks)
  console.log(`| ${name} | ${Math.round(rate(name)).toLocaleString('en')} | ${(rate(name) / base).toFixed(3)} |`);

if (short) process.exit();

const sizing = timeSizing(job, supplies);
const milliseconds = (value: number) => `${value.toFixed(value < 10 ? 1 : 0)} ms`;
console.log(
  `\nRank 5,000 supplies with the cable plan of each: ${milliseconds(sizing.rank)} (wanted: ` +
    `under a second); to copy the same supplies ${milliseconds(sizing.copy)}, ratio ` +
    `${(sizing.rank / sizing.copy).toFixed(2)}; to plan each anew without remembering ` +
    `${milliseconds(sizing.planAlone)}.`,
);
console.log(
  `A change of one part, 100 supplies judged and ranked anew: ${milliseconds(sizing.change)} (wanted: under 100 ms).`,
);
console.log(
  `100,000 draws of a machine against a supply: ${milliseconds(sizing.draws)} (wanted: ` +
    `under 300 ms); to draw as many plain figures ${milliseconds(sizing.plainDraws)}, ratio ` +
    `${(sizing.draws / sizing.plainDraws).toFixed(1)}.`,
);
if (sizing.rank > 1000 || sizing.change > 100 || sizing.draws > 300) process.exitCode = 1;

const plans = await timePlans();
console.log(
  `Cable plans of ${plans.count} random machines and kits: median ` +
    `${plans.median.toFixed(3)} ms (wanted: under 1), worst ${plans.worst.toFixed(1)} ms ` +
    '(wanted: under 20); a call of the exact solver on the same ' +
    `${plans.solverMedian.toFixed(1)} ms at the median, ${Math.round(plans.ratio)} times as ` +
    'long in all (wanted: at least 50).',
);
if (plans.median > 1 || plans.worst > 20 || plans.ratio < 50) process.exitCode = 1;

const hard = timeAdversary();
console.log(
  `Worst of ${hard.count.toLocaleString('en')} inputs made to be hard: a plan ` +
    `${milliseconds(hard.plan)}, an explanation of all its open inlets ` +
    `${milliseconds(hard.explain)}, a spread over outputs ${milliseconds(hard.spread)} ` +
    `(wanted: under 250 each); ${hard.proved} plans proved best.`,
);
if (Math.max(hard.plan, hard.explain, hard.spread) > 250) process.exitCode = 1;
const illegal = countIllegal();
console.log(`Plans of 50,000 random kits that the independent checker calls illegal: ${illegal}.`);
if (illegal > 0) process.exitCode = 1;

const log = timeLog();
console.log(
  `\nA log of a million rows: the CSV library alone ` +
    `${Math.round(log.alone).toLocaleString('en')} ms, parsed and analysed ` +
    `${Math.round(log.whole).toLocaleString('en')} ms; ratio ` +
    `${(log.whole / log.alone).toFixed(2)} (wanted: at most 2).`,
);
if (log.whole / log.alone > 2) process.exitCode = 1;

const { ours, bare } = await measureFirstScreen();
const kilobytes = (bytes: number) => (bytes / 1000).toFixed(0);
console.log(
  `\nFirst screen, JavaScript and CSS gzipped: ${kilobytes(ours)} kB; a bare page of the ` +
    `component library: ${kilobytes(bare)} kB; ratio ${(ours / bare).toFixed(2)}.`,
);
if (ours > 400_000) {
  console.error('The first screen is over its 400 kB.');
  process.exitCode = 1;
}
