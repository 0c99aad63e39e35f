export * from './figures.ts';
export * from './words.ts';
