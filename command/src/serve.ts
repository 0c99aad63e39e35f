import { spawn, type ChildProcess } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { build } from './build.ts';
import { root, stateDirectory } from './paths.ts';
import { startCluster, stopCluster } from './postgres.ts';

const runFile = join(stateDirectory, 'run.json');
interface RunRecord {
  readonly pid: number;
  readonly url: string | null;
  readonly ownsDatabase: boolean;
}

const say = (text: string) => {
  process.stdout.write(`${text}\n`);
};

function isThisCommand(pid: number): boolean {
  const path = `/proc/${pid}/cmdline`;
  return existsSync(path) && readFileSync(path, 'utf8').includes(join(root, 'command/src/main.ts'));
}

function running(): RunRecord | null {
  if (!existsSync(runFile)) return null;
  const record = JSON.parse(readFileSync(runFile, 'utf8')) as RunRecord;
  return isThisCommand(record.pid) ? record : null;
}

/** Waits for the server's line with its address; its errors go to the screen. */
function ready(child: ChildProcess): Promise<string> {
  return new Promise((resolve, reject) => {
    let text = '';
    child.stdout?.on('data', (chunk: Buffer) => {
      text += chunk.toString();
      const found = /^ready (\S+)$/m.exec(text);
      if (found?.[1] !== undefined) resolve(found[1]);
    });
    child.once('exit', (code) => reject(new Error(`The server ended with ${code} before it was ready.`)));
  });
}

/** The stand-in meter and load that ship with the application, on free ports of loopback. */
async function startStandIns(): Promise<{ readonly child: ChildProcess; readonly ports: string }> {
  const child = spawn(process.execPath, [join(root, 'instruments/dist/main.js')], {
    cwd: root,
    stdio: ['ignore', 'pipe', 'inherit', 'ipc'],
  });
  return new Promise((resolve, reject) => {
    child.stdout?.once('data', (chunk: Buffer) => {
      const found = /^ready (meter=\d+ load=\d+ prices=\d+ printer=\d+)$/m.exec(chunk.toString());
      if (found?.[1] === undefined) reject(new Error('The stand-in instruments did not start.'));
      else resolve({ child, ports: found[1] });
    });
    child.once('exit', (code) => reject(new Error(`The stand-in instruments ended with ${code}.`)));
  });
}

/**
 * Starts database and server and stays until it is told to stop.
 * With DATABASE_URL set, `serve` uses that database and starts none.
 */
export async function serve(demo: boolean): Promise<number> {
  const already = running();
  if (already !== null) {
    say(`Fair Watt already runs${already.url === null ? '' : ` at ${already.url}`}. Stop it with ./fairwatt stop`);
    return 0;
  }
  mkdirSync(stateDirectory, { recursive: true });
  await build(say);
  const given = demo ? undefined : process.env['DATABASE_URL'];
  const ownsDatabase = given === undefined || given === '';
  const starting = demo ? startStandIns() : null;
  const database = async () => (ownsDatabase ? startCluster('main', demo ? 'fairwatt_demo' : 'fairwatt') : given);
  const databaseUrl = await database().catch(async (error: unknown) => {
    // Stand-ins that were started meanwhile would keep this command waiting.
    (await starting?.catch(() => null))?.child.kill('SIGTERM');
    throw error;
  });
  const standIns = await starting;
  const child = spawn(process.execPath, [join(root, 'server/dist/main.js')], {
    cwd: root,
    stdio: ['ignore', 'pipe', 'inherit'],
    env: {
      ...process.env,
      NODE_ENV: 'production',
      DATABASE_URL: databaseUrl,
      FAIRWATT_DEMO: demo ? '1' : '0',
      FAIRWATT_STAND_INS: standIns?.ports ?? '',
    },
  });
  const ended = new Promise<number>((resolve) => {
    child.once('exit', (code) => resolve(code ?? 0));
  });
  let stopping = false;
  const stop = () => {
    stopping = true;
    child.kill('SIGTERM');
  };
  process.on('SIGINT', stop);
  process.on('SIGTERM', stop);
  process.on('SIGHUP', stop);
  const note = (url: string | null) => {
    writeFileSync(runFile, JSON.stringify({ pid: process.pid, url, ownsDatabase } satisfies RunRecord));
  };
  note(null);
  try {
    const url = await ready(child);
    note(url);
    say(`Fair Watt is ready at ${url}`);
    say('Stop it with Ctrl-C here, or ./fairwatt stop elsewhere.');
    const code = await ended;
    return stopping ? 0 : code;
  } finally {
    standIns?.child.kill('SIGTERM');
    if (ownsDatabase) stopCluster('main');
    rmSync(runFile, { force: true });
  }
}

/** Stops a running Fair Watt of this checkout, and a database that was left behind. */
export async function stop(): Promise<number> {
  const record = running();
  if (record !== null) {
    process.kill(record.pid, 'SIGTERM');
    for (let attempt = 0; attempt < 100 && isThisCommand(record.pid); attempt += 1) await wait(100);
    say('Fair Watt is stopped.');
  } else if (stopCluster('main')) {
    say('Fair Watt did not run; its database did and is stopped.');
  } else {
    say('Fair Watt does not run.');
  }
  return 0;
}
