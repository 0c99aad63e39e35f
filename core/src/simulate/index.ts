export * from './random.ts';
export * from './search.ts';
export * from './our-order.ts';
export * from './disturb.ts';
export * from './exact.ts';
export * from './supply.ts';
export * from './rail-worlds.ts';
