export * from './demand.ts';
export * from './outputs.ts';
export * from './assess.ts';
export * from './schools.ts';
export * from './measured.ts';
export * from './draws.ts';
