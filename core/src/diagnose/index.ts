export * from './knowledge.ts';
export * from './repair.ts';
export * from './model.ts';
export * from './remaining-time.ts';
export * from './next-check.ts';
export * from './explain.ts';
export * from './conclusion.ts';
