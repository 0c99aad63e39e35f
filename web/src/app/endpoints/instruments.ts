import type { InstrumentTrouble, NetworkInstrument, SweepRequest, SweepsMessage } from '@fairwatt/contract';
import type { Build } from './build.ts';

/** Instruments on the network, and what is run with them. */
export const instrumentsEndpoints = (build: Build) => ({
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
});
