import { randomUUID } from 'node:crypto';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Job } from '@fairwatt/core';
import { SimulatedBench, serveInstrument, type ServedInstrument } from '@fairwatt/instruments';
import { within } from '../../../web/src/offline/patience.ts';
import { databasePid, newCommand, wait, type Command } from '../../command.ts';
import { dice, roughProxy, type RoughProxy } from './rough-proxy.ts';
import { Writer } from './writer.ts';

export type Kill = 'server' | 'database' | 'command' | 'start' | 'import' | 'upload' | 'sweep';

export interface DrillReport {
  readonly kills: Readonly<Record<Kill, number>>;
  readonly confirmed: number;
  readonly line: RoughProxy['counts'];
  /** What must not be: each a sentence. */
  readonly wrong: readonly string[];
  readonly refused: number;
  /** Time from a kill to the first answer, in milliseconds, the slowest. */
  readonly slowestReturnMilliseconds: number;
  /** Time from a killed sweep to a load that is off, in milliseconds, the slowest. */
  readonly slowestLoadMilliseconds: number;
}

const picture = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);

/** The bench of the drill: a meter and a load of its own, so that no kill takes them along. */
interface Bench {
  readonly bench: SimulatedBench;
  readonly meter: ServedInstrument;
  readonly load: ServedInstrument;
}

/** One drill: people work over a rough line while parts of the application are killed at random. */
class Drill {
  readonly kills: Record<Kill, number> = {
    server: 0,
    database: 0,
    command: 0,
    start: 0,
    import: 0,
    upload: 0,
    sweep: 0,
  };
  readonly wrong: string[] = [];
  readonly photos: { readonly id: string; readonly confirmed: boolean }[] = [];
  slowestReturn = 0;
  slowestLoad = 0;
  private url = '';
  private readonly command: Command;
  private readonly proxy: RoughProxy;
  private readonly bench: Bench;
  private readonly random: () => number;

  constructor(command: Command, proxy: RoughProxy, bench: Bench, random: () => number) {
    this.command = command;
    this.proxy = proxy;
    this.bench = bench;
    this.random = random;
  }

  async start(): Promise<void> {
    this.url = await this.command.start();
    this.proxy.targets = [this.url];
  }

  /** First starts that are cut short: in the making of the cluster, in migrations, in the loading of the demo. */
  async cutFirstStarts(times: number): Promise<void> {
    for (let count = 0; count < times; count += 1) {
      const started = this.command.start();
      await wait(300 + this.random() * 4000);
      this.command.kill();
      this.kills.start += 1;
      await started.catch(() => undefined);
    }
  }

  /** The whole answer, read to its end; null where the other side went away before that. */
  private async api(path: string, init?: RequestInit): Promise<Response | null> {
    try {
      return await within(20_000, `${this.url}/api${path}`, init ?? {}, async (answer) => {
        const body = await answer.arrayBuffer();
        return new Response(body.byteLength === 0 ? null : body, { status: answer.status });
      });
    } catch {
      return null;
    }
  }
  /** An answer in any case, from an application that is well. */
  private async ask(path: string): Promise<Response> {
    for (let tries = 0; tries < 5; tries += 1) {
      const answer = await this.api(path);
      if (answer !== null) return answer;
    }
    throw new Error(`${path} is not answered`);
  }
  private post(path: string, body: unknown): Promise<Response | null> {
    return this.api(path, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
  }
  private async serverPid(): Promise<number | null> {
    const answer = await this.api('/health');
    return answer?.ok === true ? ((await answer.json()) as { pid: number }).pid : null;
  }
  private async untilWell(): Promise<void> {
    const begun = Date.now();
    while ((await this.serverPid()) === null) {
      if (Date.now() - begun > 60_000) throw new Error(`it does not come back:\n${this.command.said()}`);
      await wait(50);
    }
    this.slowestReturn = Math.max(this.slowestReturn, Date.now() - begun);
  }
  private async killServer(): Promise<void> {
    const pid = await this.serverPid();
    if (pid !== null) process.kill(pid, 'SIGKILL');
  }

  async addBench(): Promise<void> {
    const put = (role: 'meter' | 'load', port: number) =>
      this.post('/instruments', {
        by: 'mara',
        instrument: {
          id: `drill-${role}`,
          name: `Drill ${role}`,
          role,
          host: '127.0.0.1',
          port,
          instrumentId: role === 'meter' ? 'bench-meter' : null,
        },
      });
    const added = [await put('meter', this.bench.meter.port), await put('load', this.bench.load.port)];
    if (added.some((answer) => answer?.status !== 201)) throw new Error('the bench of the drill was not entered');
  }

  private async sweep(): Promise<void> {
    const begun = await this.post('/instruments/sweeps', {
      by: 'mara',
      job: 'LQ-0143',
      meterId: 'drill-meter',
      loadId: 'drill-load',
      rail: '+12',
      fromAmps: 2,
      toAmps: 6,
      steps: 3,
      dwellSeconds: 20,
      hottestCelsius: 90,
    });
    if (begun?.status !== 201) return;
    for (let attempt = 0; attempt < 60 && !this.bench.bench.drawing; attempt += 1) await wait(50);
    const drew = this.bench.bench.drawing;
    await this.killServer();
    const killed = Date.now();
    while (this.bench.bench.drawing && Date.now() - killed < 60_000) await wait(20);
    if (this.bench.bench.drawing) this.wrong.push('a load draws a minute after its server was killed');
    if (drew) this.slowestLoad = Math.max(this.slowestLoad, Date.now() - killed);
  }

  private async upload(): Promise<void> {
    const id = randomUUID();
    const sent = this.api(`/jobs/LQ-0142/photos?by=mara&id=${id}`, {
      method: 'POST',
      headers: { 'content-type': 'image/png' },
      body: picture,
    });
    await wait(this.random() * 12);
    await this.killServer();
    this.photos.push({ id, confirmed: (await sent)?.status === 201 });
  }

  private async importFile(): Promise<void> {
    const file = readFileSync(new URL('../../../demo/jobs/4-school-library.json', import.meta.url), 'utf8');
    const sent = this.api('/jobs/import?by=mara&as=new', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: file,
    });
    await wait(this.random() * 60);
    await this.killServer();
    const answer = await sent;
    if (answer?.status !== 201) return;
    const { code } = (await answer.json()) as Job;
    await this.untilWell();
    if ((await this.api(`/jobs/${code}`))?.status !== 200) this.wrong.push(`${code} was imported and is gone`);
  }

  private async restartCommand(cut: boolean): Promise<void> {
    this.command.kill();
    if (cut) {
      const started = this.command.start();
      await wait(this.random() * 3500);
      this.command.kill();
      this.kills.start += 1;
      await started.catch(() => undefined);
    }
    await this.start();
  }

  async killOnce(): Promise<void> {
    const kinds: readonly (readonly [Kill, number])[] = [
      ['server', 0.3],
      ['database', 0.22],
      ['command', 0.12],
      ['start', 0.06],
      ['import', 0.1],
      ['upload', 0.1],
      ['sweep', 0.1],
    ];
    let luck = this.random();
    const [kind] = kinds.find(([, share]) => (luck -= share) < 0) ?? ['server' as const];
    if (kind !== 'start') this.kills[kind] += 1;
    switch (kind) {
      case 'server':
        await this.killServer();
        break;
      case 'database':
        await this.killDatabase();
        break;
      case 'command':
        await this.restartCommand(false);
        break;
      case 'start':
        await this.restartCommand(true);
        break;
      case 'import':
        await this.importFile();
        break;
      case 'upload':
        await this.upload();
        break;
      case 'sweep':
        await this.sweep();
    }
    await this.untilWell();
    await wait(500 + this.random() * 1500);
  }

  /**
   * A database that is just being started again, after a kill that reached it late, has no process yet: it is waited
   * for.
   */
  private async killDatabase(): Promise<void> {
    const file = join(this.command.folder, 'pg-main/postmaster.pid');
    for (let tries = 0; tries < 600 && !existsSync(file); tries += 1) await wait(100);
    process.kill(databasePid(this.command.folder), 'SIGKILL');
  }

  get total(): number {
    return Object.values(this.kills).reduce((sum, count) => sum + count, 0);
  }

  /** Everything that was confirmed is there once and in order; nothing is there that nobody did. */
  async check(writers: readonly Writer[]): Promise<number> {
    let confirmed = 0;
    for (const done of writers.flatMap((writer) => writer.jobs)) {
      const answer = await this.ask(`/jobs/${done.code}`);
      if (answer.status !== 200) {
        this.wrong.push(`${done.code} is gone`);
        continue;
      }
      const job = (await answer.json()) as Job;
      const there = job.outcomes.map((outcome) => outcome.id);
      confirmed += done.confirmed.size;
      if (JSON.stringify(there) !== JSON.stringify(done.notes))
        this.wrong.push(
          `${done.code}: ${there.length} there, ${done.notes.length} done, ` +
            `${done.notes.filter((id) => !there.includes(id)).length} lost, ` +
            `${there.length - new Set(there).size} doubled`,
        );
      if (done.words !== '' && job.sheet.words !== done.words)
        this.wrong.push(`${done.code}: “${job.sheet.words}” stands where “${done.words}” was typed last`);
    }
    const kept = (await (await this.ask('/jobs/LQ-0142/photos')).json()) as { id: string }[];
    for (const photo of this.photos.filter((one) => one.confirmed).slice(0, 24))
      if (!kept.some((one) => one.id === photo.id)) this.wrong.push(`picture ${photo.id} was confirmed and is gone`);
    const sweeps = (await (await this.ask('/instruments/sweeps')).json()) as { unsure: { loadId: string }[] };
    if (this.bench.bench.drawing && !sweeps.unsure.some((load) => load.loadId === 'drill-load'))
      this.wrong.push('a load draws, and nobody is told');
    return confirmed;
  }
}

/** Runs the drill until so many kills were done. */
export async function drill(kills: number, seed: number, say: (text: string) => void): Promise<DrillReport> {
  const random = dice(seed);
  const command = newCommand();
  const proxy = await roughProxy(random);
  const simulated = new SimulatedBench(() => performance.now());
  const bench = {
    bench: simulated,
    meter: await serveInstrument(() => simulated.meter()),
    load: await serveInstrument(() => simulated.load()),
  };
  const run = new Drill(command, proxy, bench, random);
  try {
    await run.cutFirstStarts(Math.max(2, Math.round(kills / 40)));
    await run.start();
    await run.addBench();
    const writers = ['mara', 'joss', 'mara', 'joss'].map((by) => new Writer(proxy.base, by, random));
    const working = writers.map((writer) => writer.work());
    while (run.total < kills) {
      await run.killOnce();
      if (run.total % 25 === 0) say(`${run.total} kills`);
    }
    for (const writer of writers) writer.stop();
    await Promise.all(working);
    await Promise.all(writers.map((writer) => writer.drained()));
    const confirmed = await run.check(writers);
    return {
      kills: run.kills,
      confirmed,
      line: proxy.counts,
      wrong: run.wrong,
      refused: writers.reduce((sum, writer) => sum + writer.refused, 0),
      slowestReturnMilliseconds: run.slowestReturn,
      slowestLoadMilliseconds: run.slowestLoad,
    };
  } finally {
    await command.end();
    await Promise.all([proxy.close(), bench.meter.close(), bench.load.close()]);
  }
}
