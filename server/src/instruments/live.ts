import { setTimeout as wait } from 'node:timers/promises';
import { atOnce, look, type RailName } from '@fairwatt/core';
import type { LiveEvent, NetworkInstrument } from '@fairwatt/contract';
import { InstrumentFailure, ScpiLink } from './scpi-link.ts';

/** A reading is due this often: at most 50 a second. */
const beatMilliseconds = 20;
const retryMilliseconds = 1500;

/** The stand-ins are told which job's supply lies on the bench and where the probes are; a real instrument is not. */
export async function prepareStandIn(
  link: ScpiLink,
  identity: string,
  job: string | null,
  rail: RailName | null,
  moving = false,
): Promise<void> {
  if (!identity.startsWith('Fair Watt,Stand-in')) return;
  if (job !== null) await link.order(`SIMulate:JOB ${job}`);
  if (rail !== null) await link.order(`SIMulate:${moving ? 'MOVE' : 'RAIL'} ${rail}`);
}

/**
 * Reads a meter until it is told to stop: figures, what stands still, and what goes wrong. A meter in trouble is tried
 * again; nothing of a broken answer is passed on.
 * @param moving the probe is on its way to the rail
 */
export async function watchMeter(
  meter: NetworkInstrument,
  rail: RailName,
  job: string,
  tell: (event: LiveEvent) => void,
  signal: AbortSignal,
  moving = false,
): Promise<void> {
  const now = () => new Date().toISOString();
  while (!signal.aborted) {
    let link: ScpiLink | null = null;
    try {
      link = await ScpiLink.open(meter.host, meter.port);
      const identity = await link.ask('*IDN?');
      tell({ kind: 'identity', text: identity.slice(0, 120) });
      await prepareStandIn(link, identity, job, rail, moving);
      let state = atOnce;
      let due = performance.now();
      while (!signal.aborted) {
        const volts = await link.askFigure('MEASure:VOLTage:DC?').catch((error: unknown) => {
          if (!(error instanceof InstrumentFailure) || error.trouble !== 'out-of-range') throw error;
          tell({ kind: 'trouble', at: now(), trouble: 'out-of-range' });
          return null;
        });
        if (volts !== null) {
          tell({ kind: 'reading', at: now(), volts });
          const seen = look(state, rail, { milliseconds: performance.now(), volts });
          state = seen.state;
          if (seen.rests !== null)
            tell({
              kind: 'held',
              at: now(),
              volts: seen.rests.meanVolts,
              spreadVolts: seen.rests.spreadVolts,
              count: seen.rests.count,
            });
        }
        // From beat to beat, so that a timer's lateness does not add up; a slow meter's missed beats are not made up
        // for.
        due = Math.max(due + beatMilliseconds, performance.now() - beatMilliseconds);
        await wait(Math.max(1, due - performance.now()), undefined, { signal }).catch(() => undefined);
      }
    } catch (error) {
      if (!(error instanceof InstrumentFailure)) throw error;
      if (!signal.aborted) tell({ kind: 'trouble', at: now(), trouble: error.trouble });
      await wait(retryMilliseconds, undefined, { signal }).catch(() => undefined);
    } finally {
      link?.close();
    }
  }
}

/** A supply takes up to half a second to its rails and as long again to power-good; a meter may wait for it. */
const powerGoodTimeoutMilliseconds = 6000;

/**
 * The time from the rails being good to power-good, by a meter that can time an interval between two inputs.
 * @returns milliseconds
 * @throws InstrumentFailure `refused` when the meter cannot, `out-of-range` when no power-good came
 */
export async function timePowerGood(meter: NetworkInstrument, job: string): Promise<number> {
  const link = await ScpiLink.open(meter.host, meter.port, powerGoodTimeoutMilliseconds);
  try {
    await prepareStandIn(link, await link.ask('*IDN?'), job, null);
    const seconds = await link.askFigure('MEASure:TINTerval?');
    if (seconds <= 0 || seconds > powerGoodTimeoutMilliseconds / 1000) throw new InstrumentFailure('out-of-range');
    return seconds * 1000;
  } finally {
    link.close();
  }
}
