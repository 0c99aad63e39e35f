export { SimulatedBench, suppliesOfJobs } from './bench.ts';
export { serveInstrument, type Fault, type ServedInstrument } from './serve.ts';
export { ScpiInterpreter, done, type ScpiAnswer, type ScpiCommand } from './scpi.ts';
export { type FeedFault, type ListedSupply, priceList, type ServedFeed, servePriceFeed } from './price-feed.ts';
export { pagesOf, type PrinterFault, type ServedPrinter, serveLabelPrinter } from './label-printer.ts';
