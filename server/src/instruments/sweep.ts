import { randomUUID } from 'node:crypto';
import { setTimeout as wait } from 'node:timers/promises';
import type pg from 'pg';
import type { Logger } from 'pino';
import {
  calmSweep,
  hasSettled,
  sweepLimits,
  sweepSteps,
  watchSweep,
  type SweepLook,
  type SweepPlan,
  type SweepStop,
  type SweepWatch,
  type TimedLook,
} from '@fairwatt/core';
import type {
  NetworkInstrument,
  RunningSweepMessage,
  SweepEnd,
  SweepEvent,
  SweepRequest,
  SweepStep,
} from '@fairwatt/contract';
import { notice } from '../log.ts';
import { InstrumentFailure } from './scpi-link.ts';
import type { LoadGuard } from './load-guard.ts';
import { heldLoads, holdLoad, type LoadHold } from './load-hold.ts';
import { forgetSweep, loadsLeftInSweeps, noteSweep } from './store.ts';
import { SweepLoad, SweepMeter } from './sweep-instruments.ts';
import { switchOff } from './switch-off.ts';

/** Readings for the mean of one step. */
const readingsPerStep = 5;
/** While a step dwells the rail is looked at this often, so that a fall ends it at once. */
const lookMilliseconds = 100;
/** Loads that could not be reached are tried again this often. */
const unsureRetryMilliseconds = 5000;
/** Ended sweeps are kept this long for whoever asks late. */
const keptMilliseconds = 10 * 60_000;

export interface RunningSweep {
  readonly message: RunningSweepMessage;
  readonly events: readonly SweepEvent[];
  /** Tells what has happened so far and what comes; the answer stops listening. */
  readonly listen: (tell: (event: SweepEvent) => void) => () => void;
  readonly stop: () => void;
  readonly ended: Promise<void>;
}

/** Looks while a meter settles, and after an alarm, follow each other this fast. */
const quickMilliseconds = 20;

/** One sweep while it runs: meter, load, and what was seen last. */
class SweepRun {
  private watch: SweepWatch = calmSweep;
  private readonly plan: SweepPlan;
  private readonly meter: SweepMeter;
  private readonly load: SweepLoad;
  private readonly signal: AbortSignal;
  constructor(plan: SweepPlan, meter: SweepMeter, load: SweepLoad, signal: AbortSignal) {
    this.plan = plan;
    this.meter = meter;
    this.load = load;
    this.signal = signal;
  }

  private async paused(milliseconds: number): Promise<void> {
    await wait(Math.max(0, milliseconds), undefined, { signal: this.signal }).catch(() => undefined);
  }

  /** One look; a bad one is looked at again at once. @returns the look, and why the sweep must end */
  private async look(): Promise<SweepLook & { readonly stop: SweepStop | null }> {
    const seen = { volts: await this.meter.volts(), celsius: await this.load.celsius() };
    this.watch = watchSweep(this.watch, this.plan, seen);
    if (this.watch.alarm === null || this.watch.stop !== null) return { ...seen, stop: this.watch.stop };
    await this.paused(quickMilliseconds);
    return this.signal.aborted ? { ...seen, stop: null } : this.look();
  }

  /** Waits until the meter shows what its probes touch. */
  async settle(): Promise<void> {
    const looks: TimedLook[] = [];
    while (!this.signal.aborted) {
      looks.push({ volts: await this.meter.volts(), milliseconds: performance.now() });
      if (hasSettled(this.plan.rail, looks)) return;
      await this.paused(quickMilliseconds);
    }
  }

  /** Watches the rail while the load draws, until the time is over or something is wrong. */
  async dwell(): Promise<SweepStop | null> {
    const until = performance.now() + this.plan.dwellSeconds * 1000;
    while (performance.now() < until && !this.signal.aborted) {
      const { stop } = await this.look();
      if (stop !== null) return stop;
      await this.paused(Math.min(lookMilliseconds, until - performance.now()));
    }
    return null;
  }

  /** The mean of several looks at one load. */
  async read(): Promise<SweepStep | SweepStop> {
    const read: number[] = [];
    let celsius: number | null = null;
    while (read.length < readingsPerStep) {
      const seen = await this.look();
      if (seen.stop !== null) return seen.stop;
      read.push(seen.volts);
      celsius = seen.celsius;
    }
    const volts = read.reduce((sum, value) => sum + value, 0) / read.length;
    const squares = read.reduce((sum, value) => sum + (value - volts) ** 2, 0);
    return {
      amps: await this.load.amps(),
      volts,
      spreadVolts: Math.sqrt(squares / (read.length - 1)),
      celsius,
      at: new Date().toISOString(),
    };
  }

  async steps(tell: (event: SweepEvent) => void): Promise<SweepEnd> {
    for (const [index, amps] of this.plan.amps.entries()) {
      if (this.signal.aborted) break;
      tell({ kind: 'setting', amps });
      await this.load.order(`CURRent ${amps}`);
      if (index === 0) await this.load.order('INPut ON');
      const stop = await this.dwell();
      if (stop !== null) return stop;
      if (this.signal.aborted) break;
      const step = await this.read();
      if (typeof step === 'string') return step;
      tell({ kind: 'step', step });
    }
    return this.signal.aborted ? 'stopped' : 'done';
  }
}

/** How a sweep came to its end. */
interface Over {
  readonly end: SweepEnd;
  /** Whether the load is known to be off. */
  readonly loadOff: boolean;
  /** What should not have happened, where something did. */
  readonly trouble?: unknown;
}

/** Goes through a sweep; however it ends, the load is switched off. */
async function run(
  plan: SweepPlan,
  job: string,
  meter: NetworkInstrument,
  load: NetworkInstrument,
  tell: (event: SweepEvent) => void,
  signal: AbortSignal,
): Promise<Over> {
  const sweepMeter = new SweepMeter(meter, job, plan.rail);
  const sweepLoad = new SweepLoad(load);
  let end: SweepEnd = 'stopped';
  let trouble: unknown;
  try {
    await sweepMeter.prepare();
    await sweepLoad.prepare(plan.amps[0] ?? 0);
    const sweep = new SweepRun(plan, sweepMeter, sweepLoad, signal);
    await sweep.settle();
    tell({ kind: 'begun', amps: plan.amps });
    end = await sweep.steps(tell);
  } catch (error) {
    if (error instanceof InstrumentFailure) end = error.trouble;
    else trouble = error;
  }
  sweepMeter.close();
  return { end, loadOff: await switchOff(load, sweepLoad.link.current), trouble };
}

/**
 * All sweeps of this server: one at a time for each load, every one ended with its load off, also when the server
 * stops.
 */
export class Sweeps {
  private readonly all = new Map<string, RunningSweep>();
  private readonly busyLoads = new Set<string>();
  private readonly switchingOff = new Set<string>();
  private closing = false;
  private readonly pool: pg.Pool;
  private readonly log: Logger;
  private readonly guard: LoadGuard | null;
  /** @param guard outlives this process and switches off what it leaves drawing; null in tests that need none */
  constructor(pool: pg.Pool, log: Logger, guard: LoadGuard | null = null) {
    this.pool = pool;
    this.log = log;
    this.guard = guard;
  }

  /** What runs now. */
  get running(): RunningSweepMessage[] {
    return [...this.all.values()].flatMap((sweep) => (sweep.events.at(-1)?.kind === 'ended' ? [] : [sweep.message]));
  }

  /** Loads whose sweep ended without anybody knowing whether they still draw. */
  async unsure(): Promise<NetworkInstrument[]> {
    const left = (await loadsLeftInSweeps(this.pool)).filter((load) => !this.busyLoads.has(load.id));
    const held = await heldLoads(
      this.pool,
      left.map((load) => load.id),
    );
    return left.filter((load) => !held.has(load.id));
  }

  /**
   * Makes sure that a load is off, or takes somebody's word for it. No sweep begins on it meanwhile.
   * @returns whether it is known to be off; null when it is in a sweep
   */
  async makeSure(load: NetworkInstrument, byHand: boolean): Promise<boolean | null> {
    if (this.busyLoads.has(load.id)) return null;
    // In a sweep of another server process: that one ends it with the load off.
    if (!byHand && (await heldLoads(this.pool, [load.id])).has(load.id)) return null;
    this.switchingOff.add(load.id);
    try {
      if (!byHand && !(await switchOff(load, null))) return false;
      this.guard?.isOff(load);
      await forgetSweep(this.pool, load.id);
      return true;
    } finally {
      this.switchingOff.delete(load.id);
    }
  }

  /**
   * Switches off what an earlier server may have left drawing, all at once, the last known first. Those that cannot be
   * reached stay unsure, are named on every screen, and are tried again until they are off or somebody is sure.
   */
  async switchOffLeftOvers(): Promise<void> {
    const left = await this.unsure();
    const off = await Promise.all(left.map((load) => this.makeSure(load, false)));
    const unsure = left.filter((_, index) => off[index] === false);
    for (const { name, host, port } of unsure) {
      this.log.error({ load: name, host, port }, 'this load was in a sweep and does not answer');
      notice(`The load ${name} at ${host}:${port} was in a sweep and does not answer: switch it off by hand.`);
    }
    if (unsure.length > 0 && !this.closing) setTimeout(() => this.tryAgain(), unsureRetryMilliseconds).unref();
  }

  private tryAgain(): void {
    if (this.closing) return;
    void this.unsure()
      .then(async (left) => {
        const off = await Promise.all(left.map((load) => this.makeSure(load, false)));
        if (off.includes(false) && !this.closing) setTimeout(() => this.tryAgain(), unsureRetryMilliseconds).unref();
      })
      .catch((error: unknown) => this.log.warn({ err: error }, 'loads that are unsure were not looked at'));
  }

  /** Whether a sweep runs, or a load may still draw. */
  async areNeeded(): Promise<boolean> {
    return this.all.size > 0 || (await this.unsure()).length > 0;
  }

  find(id: string): RunningSweep | undefined {
    return this.all.get(id);
  }

  /** Holds a load for a sweep and notes that it may draw; null, and nothing is held, when it cannot be. */
  private async holdNoted(load: NetworkInstrument): Promise<LoadHold | null> {
    let hold: LoadHold | null = null;
    try {
      hold = await holdLoad(this.pool, load.id);
      if (hold !== null) await noteSweep(this.pool, load.id);
    } catch (error) {
      this.busyLoads.delete(load.id);
      await hold?.release();
      throw error;
    }
    if (hold !== null && !this.closing) return hold;
    this.busyLoads.delete(load.id);
    await hold?.release();
    return null;
  }

  /** Lets go of a load whose sweep is over. One that may still draw stays noted, and is looked at again. */
  private async freed(load: NetworkInstrument, hold: LoadHold, { loadOff, trouble }: Over): Promise<void> {
    const failed = (error: unknown) =>
      this.log.error({ err: error, load: load.name }, 'a sweep did not end as it should');
    if (trouble !== undefined) failed(trouble);
    if (loadOff) {
      this.guard?.isOff(load);
      await forgetSweep(this.pool, load.id).catch(failed);
    }
    await hold.release();
    this.busyLoads.delete(load.id);
  }

  /**
   * Null when the load is in another sweep, of whatever server process, or being switched off, or the server is about
   * to stop.
   */
  async start(request: SweepRequest, meter: NetworkInstrument, load: NetworkInstrument): Promise<RunningSweep | null> {
    if (this.closing || this.busyLoads.has(load.id) || this.switchingOff.has(load.id)) return null;
    this.busyLoads.add(load.id);
    const hold = await this.holdNoted(load);
    if (hold === null) return null;
    const id = randomUUID();
    const events: SweepEvent[] = [];
    const listeners = new Set<(event: SweepEvent) => void>();
    const abort = new AbortController();
    const tell = (event: SweepEvent) => {
      events.push(event);
      for (const listener of listeners) listener(event);
    };
    const plan: SweepPlan = {
      rail: request.rail,
      amps: sweepSteps(request.fromAmps, request.toAmps, request.steps),
      dwellSeconds: request.dwellSeconds,
      ...sweepLimits(request.rail),
      hottestCelsius: request.hottestCelsius,
    };
    const watched = this.guard?.mayDraw(load) ?? Promise.resolve();
    const ended = watched
      .then(() => run(plan, request.job, meter, load, tell, abort.signal))
      .catch((trouble: unknown): Over => ({ end: 'stopped', loadOff: false, trouble }))
      .then(async (over) => {
        await this.freed(load, hold, over);
        // Whoever hears of the end may begin the next sweep at once.
        tell({ kind: 'ended', end: over.end, loadOff: over.loadOff });
        setTimeout(() => this.all.delete(id), keptMilliseconds).unref();
      });
    const sweep: RunningSweep = {
      message: {
        id,
        job: request.job,
        rail: request.rail,
        meterId: meter.id,
        loadId: load.id,
        loadName: load.name,
        steps: plan.amps.length,
      },
      events,
      ended,
      stop: () => abort.abort(),
      listen: (listener) => {
        for (const event of events) listener(event);
        listeners.add(listener);
        return () => listeners.delete(listener);
      },
    };
    this.all.set(id, sweep);
    return sweep;
  }

  /** Ends every sweep and waits until the loads are off. */
  async stopAll(): Promise<void> {
    this.closing = true;
    for (const sweep of this.all.values()) sweep.stop();
    await Promise.all([...this.all.values()].map((sweep) => sweep.ended));
  }
}
