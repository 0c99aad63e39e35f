// Minutes to a confirmed fault over simulated jobs: our order against three that technicians follow and against knowing
// the fault; whether the shown chances are true; the time for one ranking; and our order against the exact optimum on
// small models. npm run bench:diagnosis [-- JOBS]
import { fork } from 'node:child_process';
import { availableParallelism } from 'node:os';
import type { SearchResult } from '@fairwatt/core/simulate';
import { loadModel } from '@fairwatt/server';
import { calibration } from './diagnosis-calibration.ts';
import { compareWithOptimum } from './diagnosis-optimum.ts';
import { worlds } from './diagnosis-worlds.ts';
import { timeRanking } from './diagnosis-ranking.ts';

const jobs = Number(process.argv[2] ?? 10_000);
const shares = availableParallelism();
const shipped = await loadModel();
let met = true;

const inProcess = (which: number, share: number) =>
  new Promise<Record<string, SearchResult[]>>((resolve, reject) => {
    const child = fork(new URL('./diagnosis-share.ts', import.meta.url));
    child.once('message', (message) => resolve(message as Record<string, SearchResult[]>));
    child.once('error', reject);
    child.once('exit', (code) => {
      if (code !== 0) reject(new Error(`a share ended with ${code}`));
    });
    child.send({ which, jobs, share, shares });
  });

function figures(results: readonly SearchResult[]) {
  const minutes = results.map((result) => result.minutes).sort((a, b) => a - b);
  const sum = (of: (result: SearchResult) => number) => results.reduce((total, result) => total + of(result), 0);
  return {
    mean: sum((result) => result.minutes) / results.length,
    ninetieth: minutes[Math.ceil(0.9 * minutes.length) - 1]!,
    wrongParts:
      sum((result) => result.wrongParts) /
      Math.max(
        1,
        sum((result) => result.parts),
      ),
    wrongJobs: sum((result) => Number(result.wrongParts > 0)) / results.length,
    unfinished: sum((result) => Number(!result.confirmed)) / results.length,
    cameBack: sum((result) => result.cameBack) / results.length,
    steps: sum((result) => result.steps) / results.length,
  };
}

/** Steps that may follow a swap that cured it, at the median and the 90th percentile. */
const wantedAfterSwap = { median: 3, ninetieth: 6 } as const;

/** Prints how long the way is from a swap that cured it to the confirmed fault; false when it is longer than wanted. */
function shortWayAfterSwap(results: readonly SearchResult[]): boolean {
  const steps = results.flatMap(({ stepsAfterSwap }) => stepsAfterSwap ?? []).sort((a, b) => a - b);
  if (steps.length === 0) return true;
  const at = (part: number) => steps[Math.ceil(part * steps.length) - 1]!;
  const [median, ninetieth] = [at(0.5), at(0.9)];
  const wanted = wantedAfterSwap;
  console.log(
    `After a swap that cured it (${steps.length.toLocaleString('en')} jobs) ${median} further steps at the median, ` +
      `${ninetieth} at the 90th percentile (wanted: at most ${wanted.median} and ${wanted.ninetieth}).`,
  );
  return median <= wanted.median && ninetieth <= wanted.ninetieth;
}

const share = (value: number) => `${(100 * value).toFixed(1)} %`;
for (const [which, { title, wanted }] of worlds(shipped).entries()) {
  const parts = await Promise.all(Array.from({ length: shares }, (_, index) => inProcess(which, index)));
  const rows = Object.keys(parts[0]!).map((name) => ({ name, ...figures(parts.flatMap((part) => part[name]!)) }));
  const best = Math.min(...rows.slice(1, -1).map((row) => row.mean));
  console.log(
    `\n${title}: ${jobs.toLocaleString('en')} jobs\n\n| order | mean min | 90th percentile | ` +
      `wrong parts of all bought | jobs with a wrong part | unfinished | came back | steps |\n| ` +
      '--- | ---: | ---: | ---: | ---: | ---: | ---: | ---: |',
  );
  for (const row of rows)
    console.log(
      `| ${row.name} | ${row.mean.toFixed(1)} | ${row.ninetieth.toFixed(0)} | ` +
        `${share(row.wrongParts)} | ${share(row.wrongJobs)} | ${share(row.unfinished)} | ` +
        `${share(row.cameBack)} | ${row.steps.toFixed(1)} |`,
    );
  const ours = rows[0]!;
  console.log(
    `\nOur mean is ${share(ours.mean / best)} of the best fixed order's (wanted: at most ` +
      `${share(wanted.mean)}); wrong parts ${share(ours.wrongParts)} (wanted: at most ` +
      `${share(wanted.wrong)}).`,
  );
  if (!shortWayAfterSwap(parts.flatMap((part) => part[ours.name]!))) met = false;
  if (ours.mean / best > wanted.mean || ours.wrongParts > wanted.wrong) met = false;
}
/** Only whether it runs: so few jobs say nothing, and the optimum is not asked for. */
const short = jobs < 100;
if (!calibration(shipped, jobs)) met = false;
if (!short && !timeRanking(shipped)) met = false;
if (!short && !compareWithOptimum(shipped)) met = false;
if (!met) process.exitCode = 1;
