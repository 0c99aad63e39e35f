import type { BagAdapter, BagCable, CableBags, Pinout } from '@fairwatt/contract';
import type { Build } from './build.ts';

/** Cables, adapters and pinouts out of the bags. */
export const cableBagsEndpoints = (build: Build) => ({
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
});
