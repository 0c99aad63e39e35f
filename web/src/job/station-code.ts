import type { StationId } from '@fairwatt/core';
import { piece, type Piece } from '../controls/beside.tsx';

/** Each station, its code fetched once it is asked for. */
export const stationCode = {
  intake: piece(() => import('../stations/intake/intake.tsx')),
  fault: piece(() => import('../stations/fault/fault.tsx')),
  measure: piece(() => import('../stations/measure/measure.tsx')),
  load: piece(() => import('../stations/load/load.tsx')),
  replacement: piece(() => import('../stations/replacement/replacement.tsx')),
  cables: piece(() => import('../stations/cables/cables.tsx')),
  'hand-over': piece(() => import('../stations/hand-over/hand-over.tsx')),
} satisfies Record<StationId, Piece<object>>;
