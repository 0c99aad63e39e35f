export * from './dangers.ts';
export * from './figures.ts';
export * from './words.ts';
export * from './measuring.ts';
export * from './sizing.ts';
export * from './supply-names.ts';
export * from './crossing.ts';
export * from './cabling.ts';
