export * from './model.ts';
export * from './fit.ts';
export * from './rank.ts';
