import { randomUUID } from 'node:crypto';
import { setTimeout as wait } from 'node:timers/promises';
import type pg from 'pg';
import type { Logger } from 'pino';
import { sweepLimits, sweepMustStop, sweepSteps, type SweepPlan } from '@fairwatt/core';
import type { NetworkInstrument, RunningSweepMessage, SweepEnd, SweepEvent, SweepRequest } from '@fairwatt/contract';
import { prepareStandIn } from './live.ts';
import { InstrumentFailure, ScpiLink } from './scpi-link.ts';
import { forgetSweep, loadsLeftInSweeps, noteSweep } from './store.ts';

/** Readings for the mean of one step. */
const readingsPerStep = 5;
/** While a step dwells the rail is looked at this often, so that a fall ends it at once. */
const lookMilliseconds = 100;
const offAttempts = 4;
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

/** Switches the load off and makes sure; a link that broke is opened anew. */
async function switchOff(load: NetworkInstrument, known: ScpiLink | null): Promise<boolean> {
  for (let attempt = 0; attempt < offAttempts; attempt += 1) {
    let link: ScpiLink | null = attempt === 0 ? known : null;
    try {
      link ??= await ScpiLink.open(load.host, load.port);
      await link.order('INPut OFF');
      const drawing = await link.askFigure('INPut?');
      link.close();
      if (drawing === 0) return true;
    } catch (error) {
      link?.close();
      if (!(error instanceof InstrumentFailure)) throw error;
      await wait(200);
    }
  }
  return false;
}

/** @returns whether the load is known to be off */
async function run(
  plan: SweepPlan,
  job: string,
  meter: NetworkInstrument,
  load: NetworkInstrument,
  tell: (event: SweepEvent) => void,
  signal: AbortSignal,
): Promise<boolean> {
  let meterLink: ScpiLink | null = null;
  let loadLink: ScpiLink | null = null;
  let end: SweepEnd = 'done';
  let loadOff: boolean;
  const paused = async (milliseconds: number) => {
    await wait(milliseconds, undefined, { signal }).catch(() => undefined);
  };
  try {
    meterLink = await ScpiLink.open(meter.host, meter.port);
    loadLink = await ScpiLink.open(load.host, load.port);
    await prepareStandIn(meterLink, await meterLink.ask('*IDN?'), job, plan.rail);
    await loadLink.ask('*IDN?');
    await loadLink.order('INPut OFF');
    await loadLink.order(`CURRent ${plan.amps[0]}`);
    const look = async () => {
      const volts = await meterLink!.askFigure('MEASure:VOLTage:DC?');
      const celsius = await loadLink!.askFigure('MEASure:TEMPerature?').catch((error: unknown) => {
        if (error instanceof InstrumentFailure && error.trouble === 'refused') return null;
        throw error;
      });
      return { volts, celsius, stop: sweepMustStop(plan, volts, celsius) };
    };
    tell({ kind: 'begun', amps: plan.amps });
    let on = false;
    steps: for (const amps of plan.amps) {
      if (signal.aborted) break;
      tell({ kind: 'setting', amps });
      await loadLink.order(`CURRent ${amps}`);
      if (!on) {
        await loadLink.order('INPut ON');
        on = true;
      }
      const until = performance.now() + plan.dwellSeconds * 1000;
      while (performance.now() < until && !signal.aborted) {
        const { stop } = await look();
        if (stop !== null) {
          end = stop;
          break steps;
        }
        await paused(Math.min(lookMilliseconds, Math.max(0, until - performance.now())));
      }
      if (signal.aborted) break;
      const read: number[] = [];
      let celsius: number | null = null;
      for (let count = 0; count < readingsPerStep; count += 1) {
        const seen = await look();
        if (seen.stop !== null) {
          end = seen.stop;
          break steps;
        }
        read.push(seen.volts);
        celsius = seen.celsius;
      }
      const volts = read.reduce((sum, value) => sum + value, 0) / read.length;
      const drawn = await loadLink.askFigure('MEASure:CURRent?');
      tell({
        kind: 'step',
        step: {
          amps: drawn,
          volts,
          spreadVolts: Math.sqrt(read.reduce((sum, value) => sum + (value - volts) ** 2, 0) / (read.length - 1)),
          celsius,
          at: new Date().toISOString(),
        },
      });
    }
    if (signal.aborted) end = 'stopped';
  } catch (error) {
    if (!(error instanceof InstrumentFailure)) throw error;
    end = error.trouble;
  } finally {
    meterLink?.close();
    loadOff = await switchOff(load, loadLink);
    tell({ kind: 'ended', end, loadOff });
  }
  return loadOff;
}

/** All sweeps of this server: one at a time for each load, every one ended with its load off, also when the server stops. */
export class Sweeps {
  private readonly all = new Map<string, RunningSweep>();
  private readonly busyLoads = new Set<string>();
  private readonly switchingOff = new Set<string>();
  private closing = false;
  private readonly pool: pg.Pool;
  private readonly log: Logger;
  constructor(pool: pg.Pool, log: Logger) {
    this.pool = pool;
    this.log = log;
  }

  /** What runs now. */
  get running(): RunningSweepMessage[] {
    return [...this.all.values()].flatMap((sweep) => (sweep.events.at(-1)?.kind === 'ended' ? [] : [sweep.message]));
  }

  /** Loads whose sweep ended without anybody knowing whether they still draw. */
  async unsure(): Promise<NetworkInstrument[]> {
    return (await loadsLeftInSweeps(this.pool)).filter((load) => !this.busyLoads.has(load.id));
  }

  /**
   * Makes sure that a load is off, or takes somebody's word for it. No sweep begins on it meanwhile.
   * @returns whether it is known to be off; null when it is in a sweep
   */
  async makeSure(load: NetworkInstrument, byHand: boolean): Promise<boolean | null> {
    if (this.busyLoads.has(load.id)) return null;
    this.switchingOff.add(load.id);
    try {
      if (!byHand && !(await switchOff(load, null))) return false;
      await forgetSweep(this.pool, load.id);
      return true;
    } finally {
      this.switchingOff.delete(load.id);
    }
  }

  /**
   * Switches off what an earlier server may have left drawing, because it was killed or could not reach its load.
   * Loads that cannot be reached stay unsure.
   */
  async switchOffLeftOvers(): Promise<void> {
    for (const load of await this.unsure()) {
      if ((await this.makeSure(load, false)) === false)
        this.log.error(
          { load: load.name, host: load.host, port: load.port },
          'this load was in a sweep and does not answer: switch it off by hand',
        );
    }
  }

  find(id: string): RunningSweep | undefined {
    return this.all.get(id);
  }

  /** Null when the load is in another sweep or being switched off, or the server is about to stop. */
  async start(request: SweepRequest, meter: NetworkInstrument, load: NetworkInstrument): Promise<RunningSweep | null> {
    if (this.closing || this.busyLoads.has(load.id) || this.switchingOff.has(load.id)) return null;
    this.busyLoads.add(load.id);
    try {
      await noteSweep(this.pool, load.id);
    } catch (error) {
      this.busyLoads.delete(load.id);
      throw error;
    }
    if (this.closing) {
      this.busyLoads.delete(load.id);
      return null;
    }
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
    const ended = run(plan, request.job, meter, load, tell, abort.signal)
      .then(async (loadOff) => {
        if (loadOff) await forgetSweep(this.pool, load.id);
      })
      .catch((error: unknown) => {
        // The load stays noted, and is looked at again at the next start.
        this.log.error({ err: error, load: load.name }, 'a sweep did not end as it should');
      })
      .finally(() => {
        this.busyLoads.delete(load.id);
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
