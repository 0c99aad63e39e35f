export * from './demand.ts';
export * from './assess.ts';
export * from './schools.ts';
