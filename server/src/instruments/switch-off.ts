import { setTimeout as wait } from 'node:timers/promises';
import { InstrumentFailure, ScpiLink } from './scpi-link.ts';

const attempts = 4;
const pauseMilliseconds = 200;

/** Where an instrument is. */
export interface Address {
  readonly host: string;
  readonly port: number;
}

/**
 * Switches a load off and makes sure; a link that broke is opened anew.
 * @returns whether it is known to be off
 */
export async function switchOff({ host, port }: Address, known: ScpiLink | null): Promise<boolean> {
  for (let attempt = 0; attempt < attempts; attempt += 1) {
    let link: ScpiLink | null = attempt === 0 ? known : null;
    try {
      link ??= await ScpiLink.open(host, port);
      await link.order('INPut OFF');
      const drawing = await link.askFigure('INPut?');
      link.close();
      if (drawing === 0) return true;
    } catch (error) {
      link?.close();
      if (!(error instanceof InstrumentFailure)) throw error;
      await wait(pauseMilliseconds);
    }
  }
  return false;
}
