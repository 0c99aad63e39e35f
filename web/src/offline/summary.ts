import { createSelector } from '@reduxjs/toolkit';
import type { OutboxState } from './outbox.ts';

interface WithOutbox {
  readonly outbox: OutboxState;
}
const parcelsOf = (state: WithOutbox) => state.outbox.parcels;

/** How many changes of a job, or of everything, are on their way, and how many wait for somebody's decision. */
export const unsentOf = createSelector(
  [parcelsOf, (_state: WithOutbox, code: string | null) => code],
  (parcels, code) => {
    const own = parcels.filter((parcel) => code === null || parcel.code === code);
    return {
      waiting: own.filter((parcel) => parcel.state !== 'refused').length,
      refused: own.filter((parcel) => parcel.state === 'refused').length,
    };
  },
);

/** What was refused beside the acts of a job: those are shown at their job. */
export const refusedRequests = createSelector([parcelsOf], (parcels) =>
  parcels.filter((parcel) => parcel.kind === 'request' && parcel.state === 'refused'),
);
