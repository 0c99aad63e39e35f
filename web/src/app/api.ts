import { createApi, fetchBaseQuery, type BaseQueryApi, type FetchArgs } from '@reduxjs/toolkit/query/react';
import type { JobFile, Problem } from '@fairwatt/contract';
import { allTags, type Ask } from './endpoints/build.ts';
import { accessEndpoints } from './endpoints/access.ts';
import { cableBagsEndpoints } from './endpoints/cable-bags.ts';
import { instrumentsEndpoints } from './endpoints/instruments.ts';
import { jobsEndpoints } from './endpoints/jobs.ts';
import { papersEndpoints } from './endpoints/papers.ts';
import { shopEndpoints } from './endpoints/shop.ts';
import { suppliesEndpoints } from './endpoints/supplies.ts';
import { keptHeader } from '../offline/kept-answer.ts';
import { kept, mustQueue, parcelOf, shallKeep } from '../offline/kept-request.ts';
import { outbox, type OutboxState } from '../offline/outbox.ts';

/** Where names are picked without a secret, this says whose name is. */
const personHeader = 'fairwatt-person';
const send = fetchBaseQuery({
  baseUrl: '/api',
  timeout: 15_000,
  prepareHeaders: (headers, { getState }) => {
    const { session } = getState() as { readonly session: { readonly technician: string | null } };
    if (session.technician !== null) headers.set(personHeader, session.technician);
  },
});

/** Whether a query has an answer on the screen already. */
const hasAnswer = ({ type, queryCacheKey, getState }: BaseQueryApi): boolean => {
  const { api: queries } = getState() as { readonly api: { readonly queries: Record<string, { data?: unknown }> } };
  return type === 'query' && queryCacheKey !== undefined && queries.queries[queryCacheKey]?.data !== undefined;
};

/**
 * Asks the server. An answer that was kept from earlier never takes the place of one that is on the screen. A change
 * that cannot be sent now, or that has to wait behind others of its kind, goes the road of
 * the outbox and answers null.
 */
const ask: Ask = async (args, query, options) => {
  const keep = (what: FetchArgs) => {
    const { session } = query.getState() as { readonly session: { readonly technician: string | null } };
    query.dispatch(outbox.put(parcelOf(what, query, session.technician ?? '', new Date().toISOString())));
    return kept;
  };
  const { outbox: box } = query.getState() as { readonly outbox: OutboxState };
  if (typeof args === 'object' && query.type === 'mutation' && mustQueue(box, query.endpoint)) return keep(args);
  const result = await send(args, query, options);
  // The session is over: the way in is shown above what is being typed.
  if (result.error?.status === 401) query.dispatch(api.util.invalidateTags(['access']));
  if (typeof args === 'object' && query.type === 'mutation' && shallKeep(query.endpoint, result.error?.status))
    return keep(args);
  if (result.meta?.response?.headers.has(keptHeader) === true && hasAnswer(query))
    return { error: { status: 'FETCH_ERROR', error: 'the server does not answer' } };
  return result;
};

/** Everything that comes from the server. Changes to a job go through the outbox, not through here. */
export const api = createApi({
  reducerPath: 'api',
  baseQuery: ask,
  tagTypes: allTags,
  keepUnusedDataFor: 600,
  endpoints: (build) => ({
    ...accessEndpoints(build),
    ...shopEndpoints(build),
    ...suppliesEndpoints(build),
    ...instrumentsEndpoints(build),
    ...jobsEndpoints(build),
    ...cableBagsEndpoints(build),
    ...papersEndpoints(build),
  }),
});
export const {
  useAccessQuery,
  useMakeOwnerMutation,
  useSignInMutation,
  useSignOutMutation,
  useSignSecondMutation,
  useEnrolDeviceMutation,
  useChangeOwnSecretMutation,
  useHealthQuery,
  useShopQuery,
  useSuppliesQuery,
  useWholeSuppliesQuery,
  useSupplyQuery,
  useKnowledgeQuery,
  useRecordQuery,
  useNetworkInstrumentsQuery,
  useAddNetworkInstrumentMutation,
  useRemoveNetworkInstrumentMutation,
  useLazyIdentifyQuery,
  useTimePowerGoodMutation,
  useStartSweepMutation,
  useStopSweepMutation,
  useSweepsQuery,
  useLoadOffMutation,
  useLeaveOutMutation,
  useChangeSettingsMutation,
  useChangeInstrumentMutation,
  useJobsQuery,
  useUsualMachinesQuery,
  useJobQuery,
  useJobEventsQuery,
  usePresentQuery,
  useBePresentMutation,
  useCreateJobMutation,
  useImportJobMutation,
  useImportShopMutation,
  useChangeSupplyMutation,
  useRemoveSupplyMutation,
  useImportFileMutation,
  useUnitsQuery,
  useChangeUnitMutation,
  useRemoveUnitMutation,
  useOwnPartsQuery,
  useKeepOwnPartMutation,
  useRemoveOwnPartMutation,
  useCableBagsQuery,
  useChangeBagCableMutation,
  useRemoveBagCableMutation,
  useChangeBagAdapterMutation,
  useRemoveBagAdapterMutation,
  usePhotosQuery,
  useAddPhotoMutation,
  useRemovePhotoMutation,
  usePrintLabelsMutation,
  useLabelPrinterQuery,
  useSetLabelPrinterMutation,
  useChangePinoutMutation,
  useChangeProofMutation,
  usePriceFeedQuery,
  useSetPriceFeedMutation,
  useFetchPricesMutation,
} = api;
export type { JobFile };

/** What came from the server in pieces that do not go together. */
const isTorn = (error: unknown): error is { readonly error: string } =>
  typeof error === 'object' && error !== null && 'status' in error && error.status === 'CUSTOM_ERROR';

/** The problem document behind a failed request, or one made for a server that did not answer. */
export function problemOf(error: unknown): Problem {
  if (
    typeof error === 'object' &&
    error !== null &&
    'data' in error &&
    typeof error.data === 'object' &&
    error.data !== null &&
    'title' in error.data
  )
    return error.data as Problem;
  if (isTorn(error)) return { type: '/problems/away', title: error.error, status: 0 };
  return { type: '/problems/away', title: 'The server does not answer', status: 0 };
}
