export * from './standards/index.ts';
export * from './machine/index.ts';
export * from './measure/index.ts';
export * from './diagnose/index.ts';
export * from './load/index.ts';
export * from './cable/index.ts';
export * from './supply/index.ts';
