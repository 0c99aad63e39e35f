export * from './source.ts';
export * from './rails.ts';
export * from './signals.ts';
export * from './shapes.ts';
export * from './excursions.ts';
export * from './efficiency.ts';
export * from './limits.ts';
export * from './connectors.ts';
