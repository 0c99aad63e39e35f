import type { StationId } from '@fairwatt/core';

/** The code of each station, fetched once it is asked for. */
export const stationCode = {
  intake: () => import('../stations/intake/intake.tsx'),
  fault: () => import('../stations/fault/fault.tsx'),
  measure: () => import('../stations/measure/measure.tsx'),
  load: () => import('../stations/load/load.tsx'),
  replacement: () => import('../stations/replacement/replacement.tsx'),
  cables: () => import('../stations/cables/cables.tsx'),
  'hand-over': () => import('../stations/hand-over/hand-over.tsx'),
} satisfies Record<StationId, () => Promise<unknown>>;
