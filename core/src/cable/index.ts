export * from './kit.ts';
export * from './routing.ts';
export * from './score.ts';
export * from './plan.ts';
