import { execFile, spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

const program = fileURLToPath(new URL('../fairwatt', import.meta.url));

/** The one command on a data folder of its own. */
export interface Command {
  folder: string;
  readonly env: NodeJS.ProcessEnv;
  /** Everything that the running command has said. */
  readonly said: () => string;
  readonly child: () => ChildProcess;
  /** Runs a verb to its end. */
  readonly run: (...args: readonly string[]) => Promise<{ readonly code: number; readonly out: string }>;
  /** Starts `demo` or `serve` and answers its address. */
  readonly start: (verb?: 'demo' | 'serve', env?: NodeJS.ProcessEnv, ...flags: readonly string[]) => Promise<string>;
  /** Kills the command and nothing else. */
  readonly kill: () => void;
  readonly waitFor: (pattern: RegExp) => Promise<void>;
  readonly end: () => Promise<void>;
}

export const wait = (milliseconds: number) =>
  new Promise((resolve) => {
    setTimeout(resolve, milliseconds);
  });

/** The process that the holder of the data folder started under this name. */
export function databasePid(folder: string): number {
  return Number(readFileSync(join(folder, 'pg-main/postmaster.pid'), 'utf8').split('\n')[0]);
}

export function newCommand(folder = mkdtempSync(join(tmpdir(), 'fairwatt-data-'))): Command {
  let child: ChildProcess | null = null;
  let said = '';
  const command: Command = {
    folder,
    env: { ...process.env, FAIRWATT_PORT: String(20_000 + Math.floor(process.pid % 20_000)), DATABASE_URL: '' },
    said: () => said,
    child: () => {
      if (child === null) throw new Error('not started');
      return child;
    },
    run: (...args) =>
      new Promise((resolve) => {
        const env = { ...command.env, FAIRWATT_DATA: command.folder };
        const run = execFile(program, args, { env }, (_error, out, err) =>
          resolve({ code: run.exitCode ?? -1, out: `${out}${err}` }),
        );
        run.stdin?.end();
      }),
    start: async (verb = 'demo', env = {}, ...flags) => {
      said = '';
      const started = spawn(program, [verb, ...flags], {
        stdio: ['ignore', 'pipe', 'pipe'],
        env: { ...command.env, FAIRWATT_DATA: command.folder, ...env },
      });
      child = started;
      for (const stream of [started.stdout, started.stderr])
        stream.on('data', (chunk: Buffer) => {
          said += chunk.toString();
        });
      await command.waitFor(/is ready at (\S+)/);
      return /is ready at (\S+)/.exec(said)?.[1] ?? '';
    },
    kill: () => {
      child?.kill('SIGKILL');
    },
    waitFor: async (pattern) => {
      const until = Date.now() + 180_000;
      while (!pattern.test(said)) {
        if (Date.now() > until || child?.exitCode != null || child?.signalCode != null)
          throw new Error(`did not hear ${pattern.source}; heard:\n${said}`);
        await wait(50);
      }
    },
    end: async () => {
      await command.run('stop');
      rmSync(command.folder, { recursive: true, force: true });
    },
  };
  return command;
}
