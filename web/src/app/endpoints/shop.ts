import type { Knowledge, ShopSettings } from '@fairwatt/core';
import type { Health, InstrumentMessage, RecordMessage } from '@fairwatt/contract';
import { writeAsShop } from '../../controls/clock.ts';
import type { Build, ShopData } from './build.ts';

/** What comes of a shop is written as that shop writes from then on, before anything of it is drawn. */
function heard(shop: ShopData): ShopData {
  writeAsShop(shop.settings);
  return shop;
}

/** The shop itself: its settings, instruments, knowledge, record and health. */
export const shopEndpoints = (build: Build) => ({
  health: build.query<Health, void>({ query: () => '/health/state', keepUnusedDataFor: 5 }),
  shop: build.query<ShopData, void>({ query: () => '/shop', transformResponse: heard, providesTags: ['shop'] }),
  knowledge: build.query<Knowledge, void>({ query: () => '/knowledge' }),
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
  importShop: build.mutation<ShopData, string>({
    query: (body) => ({ url: '/shop/import', method: 'POST', body, headers: { 'content-type': 'application/json' } }),
    invalidatesTags: ['shop'],
  }),
});
