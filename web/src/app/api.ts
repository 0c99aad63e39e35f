import {
  createApi,
  fetchBaseQuery,
  type BaseQueryApi,
  type BaseQueryFn,
  type FetchArgs,
  type FetchBaseQueryError,
} from '@reduxjs/toolkit/query/react';
import type { Instrument, Job, Knowledge, ShopSettings, SupplyModel } from '@fairwatt/core';
import type {
  Access,
  OwnerMessage,
  BagAdapter,
  BagCable,
  CableBags,
  Health,
  ImportMessage,
  ImportReport,
  InstrumentMessage,
  InstrumentTrouble,
  JobEvents,
  JobFile,
  JobList,
  JobListQuery,
  UsualMachine,
  NetworkInstrument,
  NewJobMessage,
  OwnPart,
  Photo,
  Pinout,
  Present,
  Problem,
  RecordMessage,
  SupplyMessage,
  SupplySummary,
  SweepRequest,
  SweepsMessage,
  Technician,
  Unit,
  UnitMessage,
} from '@fairwatt/contract';
import { importRows } from './import-rows.ts';
import { fetchOne, fetchWhole } from './whole-supplies.ts';
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
const ask: BaseQueryFn<string | FetchArgs, unknown, FetchBaseQueryError> = async (args, query, options) => {
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

const torn: FetchBaseQueryError = {
  status: 'CUSTOM_ERROR',
  error: 'The supplies and their cables do not go together yet',
};

export interface ShopData {
  readonly settings: ShopSettings;
  readonly settingsVersion: number;
  readonly technicians: readonly Technician[];
  readonly instruments: readonly Instrument[];
}

/** Everything that is fetched, by kind. */
export const allTags = [
  'jobs',
  'shop',
  'supplies',
  'record',
  'instruments',
  'units',
  'parts',
  'feed',
  'bags',
  'photos',
  'printer',
  'sweeps',
  'job',
  'presence',
  'access',
  'people',
] as const;

/** Everything that comes from the server. Changes to a job go through the outbox, not through here. */
export const api = createApi({
  reducerPath: 'api',
  baseQuery: ask,
  tagTypes: allTags,
  keepUnusedDataFor: 600,
  endpoints: (build) => ({
    access: build.query<Access, void>({ query: () => '/access', providesTags: ['access'] }),
    makeOwner: build.mutation<unknown, OwnerMessage>({
      query: (body) => ({ url: '/access/owner', method: 'POST', body }),
    }),
    signIn: build.mutation<unknown, { name: string; secret: string }>({
      query: (body) => ({ url: '/access/session', method: 'POST', body }),
    }),
    signSecond: build.mutation<Job, { code: string; name: string; secret: string; message: unknown }>({
      query: ({ code, ...body }) => ({ url: `/jobs/${encodeURIComponent(code)}/acts/second`, method: 'POST', body }),
      invalidatesTags: ['jobs', 'record'],
    }),
    signOut: build.mutation<unknown, void>({ query: () => ({ url: '/access/session', method: 'DELETE' }) }),
    enrolDevice: build.mutation<{ name: string }, { code: string }>({
      query: (body) => ({ url: '/access/device', method: 'POST', body }),
    }),
    changeOwnSecret: build.mutation<unknown, { was: string; secret: string }>({
      query: (body) => ({ url: '/access/secret', method: 'PUT', body }),
    }),
    health: build.query<Health, void>({ query: () => '/health/state', keepUnusedDataFor: 5 }),
    shop: build.query<ShopData, void>({ query: () => '/shop', providesTags: ['shop'] }),
    supplies: build.query<SupplySummary[], void>({ query: () => '/supplies', providesTags: ['supplies'] }),
    wholeSupplies: build.query<SupplyModel[], void>({
      queryFn: (_of, _query, _extra, get) => fetchWhole<FetchBaseQueryError>(async (path) => get(path), torn),
      providesTags: ['supplies'],
    }),
    supply: build.query<SupplyModel, string>({
      queryFn: (id, _query, _extra, get) => fetchOne<FetchBaseQueryError>(id, async (path) => get(path), torn),
      providesTags: ['supplies'],
    }),
    knowledge: build.query<Knowledge, void>({ query: () => '/knowledge' }),
    networkInstruments: build.query<NetworkInstrument[], void>({
      query: () => '/instruments',
      providesTags: ['instruments'],
    }),
    addNetworkInstrument: build.mutation<NetworkInstrument[], { by: string; instrument: NetworkInstrument }>({
      query: (body) => ({ url: '/instruments', method: 'POST', body }),
      invalidatesTags: ['instruments'],
    }),
    removeNetworkInstrument: build.mutation<NetworkInstrument[], { by: string; id: string }>({
      query: ({ id, by }) => ({ url: `/instruments/${encodeURIComponent(id)}`, params: { by }, method: 'DELETE' }),
      invalidatesTags: ['instruments'],
    }),
    identify: build.query<{ identity: string | null; trouble: InstrumentTrouble | null }, string>({
      query: (id) => `/instruments/${encodeURIComponent(id)}/identity`,
    }),
    timePowerGood: build.mutation<
      { milliseconds: number | null; trouble: InstrumentTrouble | null },
      { id: string; job: string }
    >({
      query: ({ id, job }) => ({
        url: `/instruments/${encodeURIComponent(id)}/power-good`,
        method: 'POST',
        body: { job },
      }),
    }),
    sweeps: build.query<SweepsMessage, void>({ query: () => '/instruments/sweeps', providesTags: ['sweeps'] }),
    loadOff: build.mutation<{ loadOff: boolean }, { id: string; by: string; byHand: boolean }>({
      query: ({ id, ...body }) => ({ url: `/instruments/${encodeURIComponent(id)}/off`, method: 'POST', body }),
      invalidatesTags: ['sweeps'],
    }),
    startSweep: build.mutation<{ id: string }, SweepRequest>({
      query: (body) => ({ url: '/instruments/sweeps', method: 'POST', body }),
    }),
    stopSweep: build.mutation<unknown, string>({
      query: (id) => ({ url: `/instruments/sweeps/${id}/stop`, method: 'POST' }),
    }),
    record: build.query<RecordMessage, void>({ query: () => '/record', providesTags: ['record'] }),
    leaveOut: build.mutation<RecordMessage, { code: string; by: string; leftOut: boolean; was: boolean }>({
      query: ({ code, ...body }) => ({ url: `/record/jobs/${encodeURIComponent(code)}`, method: 'PUT', body }),
      invalidatesTags: ['record', 'jobs'],
    }),
    changeSettings: build.mutation<ShopData | null, { by: string; basedOn: number; settings: ShopSettings }>({
      query: (body) => ({ url: '/shop/settings', method: 'PUT', body }),
      invalidatesTags: ['shop'],
    }),
    changeInstrument: build.mutation<ShopData, InstrumentMessage>({
      query: (body) => ({ url: '/shop/instruments', method: 'PUT', body }),
      invalidatesTags: ['shop'],
    }),
    jobs: build.query<JobList, JobListQuery>({
      query: ({ after, before, inCharge, ...params }) => ({
        url: '/jobs',
        params: {
          ...params,
          ...(inCharge === '' ? {} : { inCharge }),
          ...(after === null ? {} : { after }),
          ...(before === null ? {} : { before }),
        },
      }),
      providesTags: ['jobs'],
    }),
    usualMachines: build.query<readonly UsualMachine[], void>({
      query: () => '/jobs/usual-machines',
      providesTags: ['jobs'],
    }),
    // An answer that was on its way while a change was confirmed is older than what is known, and is let go.
    job: build.query<Job, string>({
      query: (code) => `/jobs/${encodeURIComponent(code)}`,
      merge: (known, came) => (came.revision < known.revision ? known : came),
      providesTags: (_job, _error, code) => [{ type: 'job', id: code }],
    }),
    jobEvents: build.query<JobEvents, string>({
      query: (code) => `/jobs/${encodeURIComponent(code)}/events`,
      providesTags: (_events, _error, code) => [{ type: 'job', id: code }, 'jobs'],
    }),
    present: build.query<Present, string>({
      query: (code) => `/jobs/${encodeURIComponent(code)}/presence`,
      providesTags: ['presence'],
    }),
    bePresent: build.mutation<null, { tab: string; by: string; code: string | null }>({
      // Kept alive, so that whoever leaves or loads the page again is not still there as somebody else.
      query: (body) => ({ url: '/presence', method: 'POST', body, keepalive: true }),
    }),
    createJob: build.mutation<Job | null, NewJobMessage>({
      query: (body) => ({ url: '/jobs', method: 'POST', body }),
      invalidatesTags: ['jobs'],
    }),
    importJob: build.mutation<Job, { file: string; by: string; as: 'same' | 'new' }>({
      query: ({ file, by, as }) => ({
        url: '/jobs/import',
        params: { by, as },
        method: 'POST',
        body: file,
        headers: { 'content-type': 'application/json' },
      }),
      invalidatesTags: ['jobs'],
    }),
    importShop: build.mutation<ShopData, string>({
      query: (body) => ({ url: '/shop/import', method: 'POST', body, headers: { 'content-type': 'application/json' } }),
      invalidatesTags: ['shop'],
    }),
    changeSupply: build.mutation<SupplyModel | null, SupplyMessage>({
      query: (body) => ({ url: '/supplies', method: 'PUT', body }),
      invalidatesTags: ['supplies', 'units'],
    }),
    removeSupply: build.mutation<unknown, { id: string; by: string }>({
      query: ({ id, by }) => ({ url: `/supplies/${encodeURIComponent(id)}`, params: { by }, method: 'DELETE' }),
      invalidatesTags: ['supplies'],
    }),
    importFile: build.mutation<
      ImportReport,
      {
        path: '/supplies/import' | '/supplies/parts/import' | '/supplies/prices';
        onProgress?: (rows: number, of: number) => void;
      } & ImportMessage
    >({
      queryFn: async ({ path, onProgress, ...body }) => importRows(path, body, onProgress),
      invalidatesTags: (_report, _error, { dryRun }) => (dryRun === true ? [] : ['supplies', 'units', 'parts']),
    }),
    units: build.query<Unit[], void>({ query: () => '/supplies/units', providesTags: ['units'] }),
    changeUnit: build.mutation<Unit[], UnitMessage>({
      query: (body) => ({ url: '/supplies/units', method: 'PUT', body }),
      invalidatesTags: ['units', 'supplies'],
    }),
    removeUnit: build.mutation<Unit[], { id: string; by: string; basedOn: number }>({
      query: ({ id, ...params }) => ({ url: `/supplies/units/${id}`, params, method: 'DELETE' }),
      invalidatesTags: ['units', 'supplies'],
    }),
    ownParts: build.query<OwnPart[], void>({ query: () => '/supplies/parts', providesTags: ['parts'] }),
    keepOwnPart: build.mutation<OwnPart[], { by: string; part: OwnPart }>({
      query: (body) => ({ url: '/supplies/parts', method: 'PUT', body }),
      invalidatesTags: ['parts'],
    }),
    removeOwnPart: build.mutation<OwnPart[], { id: string; by: string }>({
      query: ({ id, by }) => ({ url: `/supplies/parts/${encodeURIComponent(id)}`, params: { by }, method: 'DELETE' }),
      invalidatesTags: ['parts'],
    }),
    cableBags: build.query<CableBags, void>({ query: () => '/cable-bags', providesTags: ['bags'] }),
    changeBagCable: build.mutation<CableBags, { by: string; basedOn: number; cable: BagCable }>({
      query: (body) => ({ url: '/cable-bags/cables', method: 'PUT', body }),
      invalidatesTags: ['bags'],
    }),
    removeBagCable: build.mutation<CableBags, { id: string; by: string }>({
      query: ({ id, by }) => ({ url: `/cable-bags/cables/${id}`, params: { by }, method: 'DELETE' }),
      invalidatesTags: ['bags'],
    }),
    changeBagAdapter: build.mutation<CableBags, { by: string; basedOn: number; adapter: BagAdapter }>({
      query: (body) => ({ url: '/cable-bags/adapters', method: 'PUT', body }),
      invalidatesTags: ['bags'],
    }),
    removeBagAdapter: build.mutation<CableBags, { id: string; by: string }>({
      query: ({ id, by }) => ({ url: `/cable-bags/adapters/${id}`, params: { by }, method: 'DELETE' }),
      invalidatesTags: ['bags'],
    }),
    photos: build.query<Photo[], string>({
      query: (code) => `/jobs/${encodeURIComponent(code)}/photos`,
      providesTags: ['photos'],
    }),
    addPhoto: build.mutation<
      Photo[] | null,
      { code: string; id: string; by: string; caption: string; cableId?: string; leadId?: string; picture: Blob }
    >({
      query: ({ code, picture, ...params }) => ({
        url: `/jobs/${encodeURIComponent(code)}/photos`,
        params,
        method: 'POST',
        body: picture,
        headers: { 'content-type': picture.type },
      }),
      invalidatesTags: ['photos'],
    }),
    removePhoto: build.mutation<Photo[], { code: string; id: string; by: string }>({
      query: ({ code, id, by }) => ({
        url: `/jobs/${encodeURIComponent(code)}/photos/${id}`,
        params: { by },
        method: 'DELETE',
      }),
      invalidatesTags: ['photos'],
    }),
    printLabels: build.mutation<
      { job: string; labels: number },
      { code: string; by: string; what: 'cables' | 'supply' }
    >({
      query: ({ code, ...body }) => ({
        url: `/jobs/${encodeURIComponent(code)}/labels/print`,
        method: 'POST',
        body,
      }),
    }),
    labelPrinter: build.query<{ url: string } | null, void>({
      query: () => '/label-printer',
      providesTags: ['printer'],
    }),
    setLabelPrinter: build.mutation<{ url: string }, { by: string; url: string }>({
      query: (body) => ({ url: '/label-printer', method: 'PUT', body }),
      invalidatesTags: ['printer'],
    }),
    changePinout: build.mutation<CableBags, { by: string; basedOn: number; pinout: Pinout }>({
      query: (body) => ({ url: '/cable-bags/pinouts', method: 'PUT', body }),
      invalidatesTags: ['bags'],
    }),
    changeProof: build.mutation<
      CableBags,
      {
        by: string;
        cableId: string;
        modelId: string;
        note: string;
        proved: boolean;
        walks: readonly { readonly job: string; readonly probeId: string }[];
      }
    >({ query: (body) => ({ url: '/cable-bags/proofs', method: 'PUT', body }), invalidatesTags: ['bags'] }),
    priceFeed: build.query<{ url: string; fetchedAt: string | null; report: ImportReport | null } | null, void>({
      query: () => '/supplies/prices/feed',
      providesTags: ['feed'],
    }),
    setPriceFeed: build.mutation<unknown, { by: string; url: string }>({
      query: (body) => ({ url: '/supplies/prices/feed', method: 'PUT', body }),
      invalidatesTags: ['feed'],
    }),
    fetchPrices: build.mutation<ImportReport, { by: string }>({
      query: (body) => ({ url: '/supplies/prices/fetch', method: 'POST', body }),
      invalidatesTags: ['feed', 'supplies'],
    }),
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
