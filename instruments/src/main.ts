import { readFile } from 'node:fs/promises';
import { SimulatedBench } from './bench.ts';
import { serveLabelPrinter } from './label-printer.ts';
import { servePriceFeed, type ListedSupply } from './price-feed.ts';
import { serveInstrument } from './serve.ts';

// Starts the stand-in meter, load, price list and label printer on loopback and prints their ports; ends with its
// parent or by a signal.
const bench = new SimulatedBench(() => performance.now());
const { supplies } = JSON.parse(await readFile(new URL('../../demo/supplies.json', import.meta.url), 'utf8')) as {
  supplies: readonly { id: string; name: string; price: { minor: number; currency: string } }[];
};
const listed = supplies.map(({ id, name, price }): ListedSupply => ({
  id,
  name,
  minor: price.minor,
  currency: price.currency,
}));
const meter = await serveInstrument(() => bench.meter(), { answerMilliseconds: 12 });
const load = await serveInstrument(() => bench.load(), { answerMilliseconds: 4 });
const prices = await servePriceFeed(listed, () => new Date().toISOString().slice(0, 10));
const printer = await serveLabelPrinter();
process.stdout.write(`ready meter=${meter.port} load=${load.port} prices=${prices.port} printer=${printer.port}\n`);
const stop = () => {
  void Promise.all([meter.close(), load.close(), prices.close(), printer.close()]).then(() => process.exit(0));
};
process.once('SIGINT', stop);
process.once('SIGTERM', stop);
process.once('disconnect', stop);
