import { spawn, type ChildProcess } from 'node:child_process';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { livingProcess, startCluster, type ClusterOptions, type RunningCluster } from './cluster/index.ts';
import { say } from './clusters.ts';
import { GrowingPause } from './growing-pause.ts';
import { root } from './paths.ts';

export const serverProgram = join(root, 'server/dist/main.js');
export const standInsProgram = join(root, 'instruments/dist/main.js');

/**
 * The first line of a child's output that matches; rejects when it ends before. Lines that begin `notice ` go to the
 * console.
 */
export function lineOf(child: ChildProcess, pattern: RegExp, name: string): Promise<RegExpExecArray> {
  return new Promise((resolve, reject) => {
    let rest = '';
    child.stdout?.on('data', (chunk: Buffer) => {
      const lines = `${rest}${chunk.toString()}`.split('\n');
      rest = lines.pop() ?? '';
      for (const line of lines) {
        const found = pattern.exec(line);
        if (found !== null) resolve(found);
        else if (line.startsWith('notice ')) say(line.slice('notice '.length));
      }
    });
    child.once('error', reject);
    child.once('exit', (code, signal) =>
      reject(new Error(`${name} ended with ${signal ?? code} before it was ready.`)),
    );
  });
}

/** Starts a program of this checkout. It has a channel to this process and ends in order when that is gone. */
export const startChild = (program: string, env: NodeJS.ProcessEnv = {}): ChildProcess =>
  spawn(process.execPath, [program], {
    cwd: root,
    stdio: ['ignore', 'pipe', 'inherit', 'ipc'],
    env: { ...process.env, NODE_ENV: 'production', ...env },
    // A Ctrl-C on the console reaches this command alone, which then ends everything in order.
    detached: true,
  });

/** The database that is kept running: looked at every second, and started again with a growing pause when it died. */
export class KeptDatabase {
  cluster: RunningCluster;
  private readonly options: ClusterOptions;
  private stopped = false;
  private readonly watching: Promise<void>;
  private readonly onMoved: (cluster: RunningCluster) => void;

  constructor(options: ClusterOptions, cluster: RunningCluster, onMoved: (cluster: RunningCluster) => void) {
    this.options = options;
    this.cluster = cluster;
    this.onMoved = onMoved;
    this.watching = this.watch();
  }

  private async watch(): Promise<void> {
    const pause = new GrowingPause();
    while (!this.stopped) {
      await wait(500);
      if (this.stopped || livingProcess(this.cluster.folder) !== null) continue;
      const milliseconds = pause.after(Date.now());
      say(`The database has ended; it is started again in ${milliseconds / 1000} s.`);
      await wait(milliseconds);
      if (this.stopped) return;
      try {
        const before = this.cluster.port;
        this.cluster = await startCluster(this.options);
        say('The database runs again.');
        if (this.cluster.port !== before) this.onMoved(this.cluster);
      } catch (error) {
        say(error instanceof Error ? error.message : String(error));
      }
    }
  }

  /** Stops watching, so that whoever stops the database is not surprised. */
  async leave(): Promise<void> {
    this.stopped = true;
    await this.watching;
  }
}

/** The server that is kept running: started again with a growing pause when it dies, on the port it had. */
export class KeptServer {
  private child: ChildProcess | null = null;
  private stopping = false;
  private url: string | null = null;
  private readonly env: () => NodeJS.ProcessEnv;
  private readonly note: (url: string | null, pid: number | null) => void;
  private readonly pause = new GrowingPause();
  /** Resolves once the server has been told to stop and has. */
  readonly ended: Promise<void>;
  private over: () => void = () => undefined;

  constructor(env: () => NodeJS.ProcessEnv, note: (url: string | null, pid: number | null) => void) {
    this.env = env;
    this.note = note;
    this.ended = new Promise((resolve) => {
      this.over = resolve;
    });
  }

  /** Starts it once; @throws when it ends before it is ready, since that is no accident */
  async start(): Promise<string> {
    const port = this.url === null ? {} : { FAIRWATT_PORT: new URL(this.url).port };
    const child = startChild(serverProgram, { ...this.env(), ...port });
    this.child = child;
    this.note(null, child.pid ?? null);
    const url = (await lineOf(child, /^ready (\S+)$/, 'The server'))[1] ?? '';
    this.url = url;
    this.note(url, child.pid ?? null);
    child.once('exit', (code, signal) => {
      this.child = null;
      if (this.stopping) this.over();
      else void this.again(`The server has ended with ${signal ?? code}`);
    });
    return url;
  }

  private async again(why: string): Promise<void> {
    const milliseconds = this.pause.after(Date.now());
    say(`${why}; it is started again in ${milliseconds / 1000} s.`);
    await wait(milliseconds);
    if (this.stopping) {
      this.over();
      return;
    }
    try {
      say(`Fair Watt is ready again at ${await this.start()}`);
    } catch (error) {
      if (this.stopping) this.over();
      else await this.again(error instanceof Error ? error.message : String(error));
    }
  }

  /** Ends this server; another is started, with the environment as it is then. */
  restart(): void {
    this.child?.kill('SIGTERM');
  }

  stop(): void {
    this.stopping = true;
    if (this.child === null) this.over();
    else this.child.kill('SIGTERM');
  }
}
