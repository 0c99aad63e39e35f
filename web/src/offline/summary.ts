import { createSelector } from '@reduxjs/toolkit';
import { isKeepable } from './kept-request.ts';
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

interface WithRequests {
  readonly api: {
    readonly mutations: Readonly<
      Record<
        string,
        { readonly status: string; readonly endpointName?: string; readonly originalArgs?: unknown } | undefined
      >
    >;
  };
}

/** How many requests of a job beside its acts, such as pictures, the server has not answered yet. */
export const onTheWay = (state: WithRequests, code: string): number =>
  Object.values(state.api.mutations).filter(
    (request) =>
      request?.status === 'pending' &&
      isKeepable(request.endpointName ?? '') &&
      (request.originalArgs as { readonly code?: unknown } | undefined)?.code === code,
  ).length;

/** What was refused beside the acts of a job: those are shown at their job. */
export const refusedRequests = createSelector([parcelsOf], (parcels) =>
  parcels.filter((parcel) => parcel.kind === 'request' && parcel.state === 'refused'),
);

/** Whose changes wait for them to sign in, with how many: those of everybody but the one who is in. */
export const heldFor = createSelector(
  [parcelsOf, (_state: WithOutbox, person: string) => person],
  (parcels, person) => {
    const counts = new Map<string, number>();
    for (const { by, state } of parcels)
      if (state === 'waiting' && by !== person) counts.set(by, (counts.get(by) ?? 0) + 1);
    return [...counts].map(([by, count]) => ({ by, count }));
  },
);
