import type { BaseQueryFn, EndpointBuilder, FetchArgs, FetchBaseQueryError } from '@reduxjs/toolkit/query/react';
import type { Instrument, ShopSettings } from '@fairwatt/core';
import type { Technician } from '@fairwatt/contract';

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

export type Ask = BaseQueryFn<string | FetchArgs, unknown, FetchBaseQueryError>;

/** What makes an endpoint. */
export type Build = EndpointBuilder<Ask, (typeof allTags)[number], 'api'>;
