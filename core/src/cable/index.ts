export * from './kit.ts';
export * from './routing.ts';
export * from './score.ts';
export * from './plan.ts';
export { planFamily } from './plan-family.ts';
export * from './crossing.ts';
