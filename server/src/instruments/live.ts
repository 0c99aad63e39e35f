import { setTimeout as wait } from 'node:timers/promises';
import { autoHold, hasMoved, hasSettled, type Held, type RailName, type TimedLook } from '@fairwatt/core';
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
): Promise<void> {
  if (!identity.startsWith('Fair Watt,Stand-in')) return;
  if (job !== null) await link.order(`SIMulate:JOB ${job}`);
  if (rail !== null) await link.order(`SIMulate:RAIL ${rail}`);
}

/**
 * Reads a meter until it is told to stop: figures, what stands still, and what goes wrong. A meter in trouble is tried
 * again; nothing of a broken answer is passed on.
 */
export async function watchMeter(
  meter: NetworkInstrument,
  rail: RailName,
  job: string,
  tell: (event: LiveEvent) => void,
  signal: AbortSignal,
): Promise<void> {
  const now = () => new Date().toISOString();
  while (!signal.aborted) {
    let link: ScpiLink | null = null;
    try {
      link = await ScpiLink.open(meter.host, meter.port);
      const identity = await link.ask('*IDN?');
      tell({ kind: 'identity', text: identity.slice(0, 120) });
      await prepareStandIn(link, identity, job, rail);
      const last: number[] = [];
      // A moved probe shows after some moments only; until then nothing can be held.
      let settling: TimedLook[] | null = [];
      let held: Held | null = null;
      let due = performance.now();
      while (!signal.aborted) {
        const volts = await link.askFigure('MEASure:VOLTage:DC?').catch((error: unknown) => {
          if (!(error instanceof InstrumentFailure) || error.trouble !== 'out-of-range') throw error;
          tell({ kind: 'trouble', at: now(), trouble: 'out-of-range' });
          return null;
        });
        if (volts !== null) {
          tell({ kind: 'reading', at: now(), volts });
          if (settling !== null) {
            settling.push({ milliseconds: performance.now(), volts });
            if (hasSettled(rail, settling)) settling = null;
          } else last.push(volts);
          if (last.length > 40) last.shift();
          if (held !== null && hasMoved(rail, held, last)) held = null;
          // One hold for each time that it comes to rest.
          if (held === null) {
            held = autoHold(rail, last);
            if (held !== null)
              tell({
                kind: 'held',
                at: now(),
                volts: held.meanVolts,
                spreadVolts: held.spreadVolts,
                count: held.count,
              });
          }
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
