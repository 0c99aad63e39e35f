export { SimulatedBench, suppliesOfJobs } from './bench.ts';
export { serveInstrument, type Fault, type ServedInstrument } from './serve.ts';
export { ScpiInterpreter, done, type ScpiAnswer, type ScpiCommand } from './scpi.ts';
export * from './price-feed.ts';
export * from './label-printer.ts';
