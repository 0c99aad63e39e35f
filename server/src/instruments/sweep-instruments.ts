import type { RailName } from '@fairwatt/core';
import type { InstrumentTrouble, NetworkInstrument } from '@fairwatt/contract';
import { prepareStandIn } from './live.ts';
import { InstrumentFailure, ScpiLink } from './scpi-link.ts';

/** An instrument of a sweep that does not answer well within this time is silent. */
const answerMilliseconds = 800;
/** A load that knows how switches itself off when it hears nothing for this long, in seconds. */
const deadManSeconds = 5;

/** Asks the load to switch itself off when it hears nothing more. One that does not speak of it is left as it is. */
async function setDeadMan(load: ScpiLink): Promise<void> {
  await load.order(`SYSTem:WATChdog ${deadManSeconds}`).catch((error: unknown) => {
    if (!(error instanceof InstrumentFailure && error.trouble === 'refused')) throw error;
  });
}

/** A link that is opened anew, once, for a question that came to nothing in a way that may be chance. */
class SteadyLink {
  private link: ScpiLink | null = null;
  private readonly instrument: NetworkInstrument;
  private readonly mayBeChance: (trouble: InstrumentTrouble) => boolean;
  constructor(instrument: NetworkInstrument, mayBeChance: (trouble: InstrumentTrouble) => boolean) {
    this.instrument = instrument;
    this.mayBeChance = mayBeChance;
  }

  /** The link as it is now; null where none is open. */
  get current(): ScpiLink | null {
    return this.link;
  }

  private async open(): Promise<ScpiLink> {
    this.link = await ScpiLink.open(this.instrument.host, this.instrument.port, answerMilliseconds);
    return this.link;
  }

  /** @throws InstrumentFailure the first one, when the second asking fails as well */
  async ask<T>(question: (link: ScpiLink) => Promise<T>): Promise<T> {
    const once = async () => question(this.link ?? (await this.open()));
    try {
      return await once();
    } catch (error) {
      if (!(error instanceof InstrumentFailure) || !this.mayBeChance(error.trouble)) throw error;
      this.close();
      return once().catch((again: unknown) => {
        throw again instanceof InstrumentFailure ? error : again;
      });
    }
  }

  close(): void {
    this.link?.close();
    this.link = null;
  }
}

/**
 * The meter of a sweep. What it does not answer, or not rightly, is asked once more: one lost answer is no reason to
 * end a sweep, two are. An overload is an answer.
 */
export class SweepMeter {
  private readonly link: SteadyLink;
  private readonly job: string;
  private readonly rail: RailName;
  constructor(meter: NetworkInstrument, job: string, rail: RailName) {
    this.link = new SteadyLink(meter, (trouble) => trouble !== 'out-of-range');
    this.job = job;
    this.rail = rail;
  }

  /** @throws InstrumentFailure */
  prepare(): Promise<void> {
    return this.link.ask(async (link) => prepareStandIn(link, await link.ask('*IDN?'), this.job, this.rail));
  }

  /** @throws InstrumentFailure */
  volts(): Promise<number> {
    return this.link.ask((link) => link.askFigure('MEASure:VOLTage:DC?'));
  }

  close(): void {
    this.link.close();
  }
}

/**
 * The load of a sweep. One answer may be lost; a load that cuts its link or answers wrongly ends the sweep at once. An
 * order that is given twice does what one does.
 */
export class SweepLoad {
  readonly link: SteadyLink;
  constructor(load: NetworkInstrument) {
    this.link = new SteadyLink(load, (trouble) => trouble === 'silent');
  }

  /** @throws InstrumentFailure */
  async prepare(firstAmps: number): Promise<void> {
    await this.link.ask((link) => link.ask('*IDN?'));
    await this.order('INPut OFF');
    await this.order(`CURRent ${firstAmps}`);
    await this.link.ask(setDeadMan);
  }

  /** @throws InstrumentFailure */
  order(order: string): Promise<void> {
    return this.link.ask((link) => link.order(order));
  }

  /** @throws InstrumentFailure */
  amps(): Promise<number> {
    return this.link.ask((link) => link.askFigure('MEASure:CURRent?'));
  }

  /** Null for a load that knows none. @throws InstrumentFailure */
  celsius(): Promise<number | null> {
    return this.link
      .ask((link) => link.askFigure('MEASure:TEMPerature?'))
      .catch((error: unknown) => {
        if (error instanceof InstrumentFailure && error.trouble === 'refused') return null;
        throw error;
      });
  }
}
