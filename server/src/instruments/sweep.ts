import { randomUUID } from 'node:crypto';
import { setTimeout as wait } from 'node:timers/promises';
import { sweepLimits, sweepMustStop, sweepSteps, type SweepPlan } from '@fairwatt/core';
import type { NetworkInstrument, SweepEnd, SweepEvent, SweepRequest } from '@fairwatt/contract';
import { prepareStandIn } from './live.ts';
import { InstrumentFailure, ScpiLink } from './scpi-link.ts';

/** Readings for the mean of one step. */
const readingsPerStep = 5;
/** While a step dwells the rail is looked at this often, so that a fall ends it at once. */
const lookMilliseconds = 100;
const offAttempts = 4;
/** Ended sweeps are kept this long for whoever asks late. */
const keptMilliseconds = 10 * 60_000;

export interface RunningSweep {
  readonly id: string;
  readonly loadId: string;
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

async function run(plan: SweepPlan, job: string, meter: NetworkInstrument, load: NetworkInstrument, tell: (event: SweepEvent) => void, signal: AbortSignal): Promise<void> {
  let meterLink: ScpiLink | null = null;
  let loadLink: ScpiLink | null = null;
  let end: SweepEnd = 'done';
  const paused = async (milliseconds: number) => { await wait(milliseconds, undefined, { signal }).catch(() => undefined); };
  try {
    meterLink = await ScpiLink.open(meter.host, meter.port);
    loadLink = await ScpiLink.open(load.host, load.port);
    await prepareStandIn(meterLink, await meterLink.ask('*IDN?'), job, plan.rail);
    await loadLink.ask('*IDN?');
    await loadLink.order('INPut OFF');
    await loadLink.order(`CURRent ${plan.amps[0]}`);
    const look = async () => {
      const volts = await meterLink!.askFigure('MEASure:VOLTage:DC?');
      const celsius = await loadLink!.askFigure('MEASure:TEMPerature?').catch((error: unknown) => { if (error instanceof InstrumentFailure && error.trouble === 'refused') return null; throw error; });
      return { volts, celsius, stop: sweepMustStop(plan, volts, celsius) };
    };
    tell({ kind: 'begun', amps: plan.amps });
    let on = false;
    steps: for (const amps of plan.amps) {
      if (signal.aborted) break;
      tell({ kind: 'setting', amps });
      await loadLink.order(`CURRent ${amps}`);
      if (!on) { await loadLink.order('INPut ON'); on = true; }
      const until = performance.now() + plan.dwellSeconds * 1000;
      while (performance.now() < until && !signal.aborted) {
        const { stop } = await look();
        if (stop !== null) { end = stop; break steps; }
        await paused(Math.min(lookMilliseconds, Math.max(0, until - performance.now())));
      }
      if (signal.aborted) break;
      const read: number[] = [];
      let celsius: number | null = null;
      for (let count = 0; count < readingsPerStep; count += 1) {
        const seen = await look();
        if (seen.stop !== null) { end = seen.stop; break steps; }
        read.push(seen.volts);
        celsius = seen.celsius;
      }
      const volts = read.reduce((sum, value) => sum + value, 0) / read.length;
      const drawn = await loadLink.askFigure('MEASure:CURRent?');
      tell({ kind: 'step', step: { amps: drawn, volts, spreadVolts: Math.sqrt(read.reduce((sum, value) => sum + (value - volts) ** 2, 0) / (read.length - 1)), celsius, at: new Date().toISOString() } });
    }
    if (signal.aborted) end = 'stopped';
  } catch (error) {
    if (!(error instanceof InstrumentFailure)) throw error;
    end = error.trouble;
  } finally {
    meterLink?.close();
    tell({ kind: 'ended', end, loadOff: await switchOff(load, loadLink) });
  }
}

/** All sweeps of this server: one at a time for each load, every one ended with its load off, also when the server stops. */
export class Sweeps {
  private readonly all = new Map<string, RunningSweep>();
  private readonly busyLoads = new Set<string>();

  find(id: string): RunningSweep | undefined { return this.all.get(id); }

  /** Null when the load is in another sweep. */
  start(request: SweepRequest, meter: NetworkInstrument, load: NetworkInstrument): RunningSweep | null {
    if (this.busyLoads.has(load.id)) return null;
    this.busyLoads.add(load.id);
    const id = randomUUID();
    const events: SweepEvent[] = [];
    const listeners = new Set<(event: SweepEvent) => void>();
    const abort = new AbortController();
    const tell = (event: SweepEvent) => { events.push(event); for (const listener of listeners) listener(event); };
    const plan: SweepPlan = { rail: request.rail, amps: sweepSteps(request.fromAmps, request.toAmps, request.steps), dwellSeconds: request.dwellSeconds, ...sweepLimits(request.rail), hottestCelsius: request.hottestCelsius };
    const ended = run(plan, request.job, meter, load, tell, abort.signal).finally(() => {
      this.busyLoads.delete(load.id);
      setTimeout(() => this.all.delete(id), keptMilliseconds).unref();
    });
    const sweep: RunningSweep = {
      id, loadId: load.id, events, ended, stop: () => abort.abort(),
      listen: (listener) => { for (const event of events) listener(event); listeners.add(listener); return () => listeners.delete(listener); },
    };
    this.all.set(id, sweep);
    return sweep;
  }

  /** Ends every sweep and waits until the loads are off. */
  async stopAll(): Promise<void> {
    for (const sweep of this.all.values()) sweep.stop();
    await Promise.all([...this.all.values()].map((sweep) => sweep.ended));
  }
}
