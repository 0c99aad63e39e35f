export * from './instrument.ts';
export * from './reading.ts';
export * from './verdict.ts';
export * from './steadiness.ts';
export * from './quick-entry.ts';
export * from './student.ts';
export * from './load-line.ts';
export * from './probe.ts';
