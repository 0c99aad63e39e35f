export * from './model.ts';
export * from './running-cost.ts';
export * from './fit.ts';
export * from './rank.ts';
