import type { FetchBaseQueryError } from '@reduxjs/toolkit/query/react';
import type { SupplyModel } from '@fairwatt/core';
import type {
  ImportMessage,
  ImportReport,
  OwnPart,
  SupplyMessage,
  SupplySummary,
  Unit,
  UnitMessage,
} from '@fairwatt/contract';
import { importRows } from '../import-rows.ts';
import { fetchOne, fetchWhole } from '../whole-supplies.ts';
import type { Build } from './build.ts';

const torn: FetchBaseQueryError = {
  status: 'CUSTOM_ERROR',
  error: 'The supplies and their cables do not go together yet',
};

/** Supplies, their units and prices, and the shop’s own parts. */
export const suppliesEndpoints = (build: Build) => ({
  supplies: build.query<SupplySummary[], void>({ query: () => '/supplies', providesTags: ['supplies'] }),
  wholeSupplies: build.query<SupplyModel[], void>({
    queryFn: (_of, _query, _extra, get) => fetchWhole<FetchBaseQueryError>(async (path) => get(path), torn),
    providesTags: ['supplies'],
  }),
  supply: build.query<SupplyModel, string>({
    queryFn: (id, _query, _extra, get) => fetchOne<FetchBaseQueryError>(id, async (path) => get(path), torn),
    providesTags: ['supplies'],
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
});
