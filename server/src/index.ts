export { createApp, type AppParts } from './app.ts';
export { ChangeFeed } from './changes/feed.ts';
export { Sweeps } from './instruments/sweep.ts';
export { putNetworkInstrument } from './instruments/store.ts';
export { InstrumentFailure, ScpiLink } from './instruments/scpi-link.ts';
export { createPool } from './database/pool.ts';
export { migrate } from './database/migrate.ts';
export { loadDemo } from './demo.ts';
export { BrokenKnowledge, loadModel, shippedKnowledge } from './knowledge.ts';
