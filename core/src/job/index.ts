export * from './job.ts';
export * from './shop.ts';
export * from './observations.ts';
export * from './cabling.ts';
export * from './open-points.ts';
export * from './stations.ts';
export * from './view.ts';
export * from './act.ts';
