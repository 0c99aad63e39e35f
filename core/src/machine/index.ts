export * from './part.ts';
export * from './part-classes.ts';
export * from './supply-label.ts';
