import {
  normal,
  railVolts,
  runSupply,
  seeded,
  simulatedSupplies,
  startSupply,
  type RunningSupply,
  type SimulatedSupplyName,
} from '@fairwatt/core/simulate';
import { railNames, type RailName } from '@fairwatt/core';
import { done, notANumber, outOfRange, ScpiInterpreter, type ScpiAnswer } from './scpi.ts';

/** Which supply lies on the stand-in bench for which demo job. */
export const suppliesOfJobs: Readonly<Record<string, SimulatedSupplyName>> = {
  'LQ-0142': 'weak',
  'LQ-0143': 'healthy',
  'LQ-0144': 'hot',
  'LQ-0145': 'healthy',
  'LQ-0146': 'intermittent',
};

const ranges = [0.6, 6, 60] as const;
const mostAmps = 60;
const mostDeadManSeconds = 3600;
/** The meter's input settles towards what is at its probes with this time constant. */
const settlingSeconds = 0.03;
/**
 * So long a probe is in the air on its way to the next pin, and until the meter was read so often: whoever lifts it
 * looks at the meter, however slowly that is read.
 */
const inAirMilliseconds = 700;
const inAirLooks = 6;

/** A supply on the bench with a meter and an electronic load at it. Time comes in as milliseconds. */
export class SimulatedBench {
  private readonly random = seeded(20_261_125);
  private readonly now: () => number;
  private running: RunningSupply = startSupply(simulatedSupplies.healthy);
  private last: number;
  private rail: RailName = '+12';
  /** The probes are in somebody's hands until then. */
  private inAirUntil = -Infinity;
  private looksInAir = 0;
  private range: number | null = null;
  private setAmps = 0;
  private inputOn = false;
  /** The load switches itself off when it hears nothing for this long; null when it waits for ever. */
  private deadMan: { readonly seconds: number; readonly heardAt: number } | null = null;
  /** What the meter's input has settled to, and when; null until it was read. */
  private input: { readonly volts: number; readonly at: number } | null = null;

  constructor(now: () => number) {
    this.now = now;
    this.last = now();
  }

  put(name: SimulatedSupplyName): void {
    this.running = startSupply(simulatedSupplies[name]);
    this.last = this.now();
  }

  /** The load has been spoken to. */
  private heard(): void {
    this.expire();
    if (this.deadMan !== null) this.deadMan = { ...this.deadMan, heardAt: this.now() };
  }

  private expire(): void {
    if (this.deadMan !== null && this.now() - this.deadMan.heardAt > this.deadMan.seconds * 1000) this.inputOn = false;
  }

  private step(): RunningSupply {
    this.expire();
    const now = this.now();
    this.running = runSupply(this.running, (now - this.last) / 1000, this.inputOn ? this.setAmps : 0);
    this.last = now;
    return this.running;
  }

  /** A moved probe or a changed load shows after some moments only, as at a real input. */
  private settled(volts: number): number {
    const at = this.now();
    const shown =
      this.input === null
        ? volts
        : volts + (this.input.volts - volts) * Math.exp(-(at - this.input.at) / 1000 / settlingSeconds);
    this.input = { volts: shown, at };
    return shown;
  }

  /** Whether the probe is in the air at this look of the meter. */
  private lookInAir(): boolean {
    const inAir = this.now() < this.inAirUntil || this.looksInAir > 0;
    this.looksInAir = Math.max(0, this.looksInAir - 1);
    return inAir;
  }

  private select(argument: string): ScpiAnswer {
    const range = Number(argument);
    if (argument === '' || /^(def|auto)/i.test(argument)) {
      this.range = null;
      return done;
    }
    if (Number.isNaN(range)) return notANumber;
    const found = ranges.find((candidate) => candidate >= range);
    if (found === undefined) return outOfRange;
    this.range = found;
    return done;
  }

  /**
   * What stands between bench and simulation only: which supply, which rail the probes are on. Named apart from the
   * standard.
   */
  private simulation() {
    return [
      {
        spelling: 'SIMulate:SUPPly',
        run: (argument: string): ScpiAnswer => {
          if (!(argument in simulatedSupplies)) return outOfRange;
          this.put(argument as SimulatedSupplyName);
          return done;
        },
      },
      {
        spelling: 'SIMulate:JOB',
        run: (argument: string): ScpiAnswer => {
          this.put(suppliesOfJobs[argument] ?? 'healthy');
          return done;
        },
      },
      {
        spelling: 'SIMulate:RAIL',
        run: (argument: string): ScpiAnswer => {
          const rail = railNames.find((name) => name === argument);
          if (rail === undefined) return outOfRange;
          this.rail = rail;
          return done;
        },
      },
      // As when somebody lifts the probe, finds the next pin and touches it.
      {
        spelling: 'SIMulate:MOVE',
        run: (argument: string): ScpiAnswer => {
          const rail = railNames.find((name) => name === argument);
          if (rail === undefined) return outOfRange;
          this.rail = rail;
          this.inAirUntil = this.now() + inAirMilliseconds;
          this.looksInAir = inAirLooks;
          return done;
        },
      },
    ];
  }

  meter(): ScpiInterpreter {
    const measure = (argument: string): ScpiAnswer => {
      if (argument !== '') {
        const selected = this.select(argument);
        if ('error' in selected) return selected;
      }
      const touched = railVolts(this.step(), this.rail, this.random);
      const volts = this.settled(this.lookInAir() ? 0 : touched);
      const range = this.range ?? ranges.find((candidate) => candidate >= Math.abs(volts)) ?? mostAmps;
      // Overload is shown the standard way, as 9.9E37.
      if (Math.abs(volts) > range) return { text: volts > 0 ? '9.9E37' : '-9.9E37' };
      const digit = range / 60_000;
      return { text: (Math.round(volts / digit) * digit).toExponential(6) };
    };
    return new ScpiInterpreter(
      'Fair Watt,Stand-in meter,0001,1.0',
      [
        { spelling: 'MEASure:VOLTage:DC?', run: measure },
        { spelling: 'READ?', run: () => measure('') },
        // From the rails being good to power-good, as a meter with a time interval function gives it; 9.9E37 when
        // nothing comes.
        {
          spelling: 'MEASure:TINTerval?',
          run: () => {
            const running = this.step();
            return {
              text: running.off
                ? '9.9E37'
                : ((running.supply.powerGoodMilliseconds / 1000) * (1 + 0.002 * normal(this.random))).toExponential(6),
            };
          },
        },
        { spelling: 'CONFigure:VOLTage:DC', run: (argument) => this.select(argument) },
        { spelling: 'VOLTage:DC:RANGe', run: (argument) => this.select(argument) },
        { spelling: 'VOLTage:DC:RANGe?', run: () => ({ text: String(this.range ?? 0) }) },
        ...this.simulation(),
      ],
      () => {
        this.range = null;
      },
    );
  }

  load(): ScpiInterpreter {
    return new ScpiInterpreter(
      'Fair Watt,Stand-in electronic load,0002,1.0',
      [
        {
          spelling: 'CURRent',
          run: (argument) => {
            const amps = Number(argument);
            if (argument === '' || Number.isNaN(amps)) return notANumber;
            if (amps < 0 || amps > mostAmps) return outOfRange;
            this.step();
            this.setAmps = amps;
            return done;
          },
        },
        { spelling: 'CURRent?', run: () => ({ text: this.setAmps.toFixed(3) }) },
        {
          spelling: 'INPut',
          run: (argument) => {
            if (!/^(on|off|0|1)$/i.test(argument)) return notANumber;
            this.step();
            this.inputOn = /^(on|1)$/i.test(argument);
            return done;
          },
        },
        { spelling: 'INPut?', run: () => ({ text: this.inputOn ? '1' : '0' }) },
        {
          spelling: 'MEASure:CURRent?',
          run: () => {
            const running = this.step();
            return { text: (running.off || !this.inputOn ? 0 : running.amps).toFixed(3) };
          },
        },
        {
          spelling: 'SYSTem:WATChdog',
          run: (argument) => {
            const seconds = Number(argument);
            if (argument === '' || Number.isNaN(seconds)) return notANumber;
            if (seconds < 0 || seconds > mostDeadManSeconds) return outOfRange;
            this.deadMan = seconds === 0 ? null : { seconds, heardAt: this.now() };
            return done;
          },
        },
        { spelling: 'SYSTem:WATChdog?', run: () => ({ text: String(this.deadMan?.seconds ?? 0) }) },
        { spelling: 'MEASure:VOLTage?', run: () => ({ text: railVolts(this.step(), '+12', this.random).toFixed(3) }) },
        { spelling: 'MEASure:TEMPerature?', run: () => ({ text: this.step().celsius.toFixed(1) }) },
        ...this.simulation(),
      ],
      () => {
        this.step();
        this.inputOn = false;
        this.setAmps = 0;
        this.deadMan = null;
      },
      () => this.heard(),
    );
  }

  /** Whether the load draws, for whoever checks that it was left off. */
  get drawing(): boolean {
    this.expire();
    return this.inputOn;
  }
}
