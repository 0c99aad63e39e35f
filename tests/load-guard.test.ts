import { spawn } from 'node:child_process';
import { setTimeout as wait } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';
import { expect, it } from 'vitest';
import { SimulatedBench, serveInstrument } from '@fairwatt/instruments';

const guard = fileURLToPath(new URL('../server/dist/instruments/load-guard.js', import.meta.url));

/** A server as far as its guard is concerned: it lets a load draw and is then killed. */
const shortLived = (port: number, isOff: boolean) => `
  import { GuardProcess } from ${JSON.stringify(guard)};
  // It listens to requests all the while; the guard alone keeps nobody alive.
  setInterval(() => undefined, 1000);
  const guard = new GuardProcess();
  await guard.mayDraw({ host: '127.0.0.1', port: ${port} });
  ${isOff ? `guard.isOff({ host: '127.0.0.1', port: ${port} });` : ''}
  setTimeout(() => process.kill(process.pid, 'SIGKILL'), 400);
`;

it.each([
  ['that draws when its server is killed is switched off by the guard', false],
  ['that is known to be off is left alone', true],
])('a load %s', async (_name, isOff) => {
  const bench = new SimulatedBench(() => performance.now());
  const load = await serveInstrument(() => bench.load());
  bench.load().line('CURRent 4;INPut ON');
  const child = spawn(process.execPath, ['--input-type=module', '-e', shortLived(load.port, isOff)], {
    stdio: 'inherit',
  });
  await new Promise((resolve) => {
    child.once('exit', resolve);
  });
  // What is to be left alone is given the time in which a guard would have acted.
  if (isOff) await wait(3000);
  await expect.poll(() => bench.drawing, { interval: 20 }).toBe(isOff);
  await load.close();
});
