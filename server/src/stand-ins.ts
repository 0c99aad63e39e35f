import type { Pool } from 'pg';
import type { NetworkInstrument } from '@fairwatt/contract';
import { putNetworkInstrument } from './instruments/store.ts';
import { readLabelPrinter, writeLabelPrinter } from './label-printer.ts';
import { readPriceFeed, writePriceFeed } from './supplies/prices.ts';

const here = (port: string | undefined) => `http://127.0.0.1:${port}`;

const instrument = (role: NetworkInstrument['role'], port: string | undefined): NetworkInstrument => ({
  id: `stand-in-${role}`,
  name: `Stand-in ${role}`,
  role,
  host: '127.0.0.1',
  port: Number(port),
  instrumentId: role === 'meter' ? 'bench-meter' : null,
});

/**
 * Enters the stand-ins that the start command has begun, at the ports of this start.
 * @param ports `meter=1 load=2 prices=3 printer=4`; anything else says that there are none
 */
export async function enterStandIns(pool: Pool, ports: string): Promise<void> {
  const found = /^meter=(\d+) load=(\d+) prices=(\d+) printer=(\d+)$/.exec(ports);
  if (found === null) return;
  const [, meter, load, prices, labels] = found;
  await putNetworkInstrument(pool, instrument('meter', meter), null);
  await putNetworkInstrument(pool, instrument('load', load), null);
  // Only where the shop has no address of its own: the stand-in's port is another at every start.
  const feed = await readPriceFeed(pool);
  if (feed === null || /^http:\/\/127\.0\.0\.1:\d+\/price-list\.csv/.test(feed.url))
    await writePriceFeed(pool, `${here(prices)}/price-list.csv`);
  const printer = await readLabelPrinter(pool);
  if (printer === null || /^http:\/\/127\.0\.0\.1:\d+\/print$/.test(printer))
    await writeLabelPrinter(pool, `${here(labels)}/print`);
}
