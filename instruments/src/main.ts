import { SimulatedBench } from './bench.ts';
import { serveInstrument } from './serve.ts';

// Starts the stand-in meter and load on loopback and prints their ports; ends with its parent or by a signal.
const bench = new SimulatedBench(() => performance.now());
const meter = await serveInstrument(() => bench.meter(), { answerMilliseconds: 12 });
const load = await serveInstrument(() => bench.load(), { answerMilliseconds: 4 });
process.stdout.write(`ready meter=${meter.port} load=${load.port}\n`);
const stop = () => { void Promise.all([meter.close(), load.close()]).then(() => process.exit(0)); };
process.once('SIGINT', stop);
process.once('SIGTERM', stop);
process.once('disconnect', stop);
