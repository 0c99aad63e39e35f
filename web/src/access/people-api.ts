import type {
  Audit,
  Device,
  Enrolment,
  Network,
  Person,
  Role,
  SessionShown,
  Signing,
  Standing,
} from '@fairwatt/contract';
import { api } from '../app/api.ts';

/** What an owner looks at and changes of people, devices and sessions, and where each is signed in. */
export const {
  usePeopleQuery,
  useAddPersonMutation,
  useChangePersonMutation,
  useGiveSecretMutation,
  useEndSessionsMutation,
  useSessionsQuery,
  useEndSessionMutation,
  useDevicesQuery,
  useAskForDeviceMutation,
  useEndDeviceMutation,
  useChangeSigningMutation,
  useAuditQuery,
  useNetworkQuery,
} = api.injectEndpoints({
  endpoints: (build) => ({
    people: build.query<Person[], void>({ query: () => '/access/people', providesTags: ['people'] }),
    addPerson: build.mutation<Person[], { name: string; role: Role; secret: string | null }>({
      query: (body) => ({ url: '/access/people', method: 'POST', body }),
      invalidatesTags: ['people', 'shop', 'access'],
    }),
    changePerson: build.mutation<Person[], { id: string; name: string; role: Standing; basedOn: number }>({
      query: ({ id, ...body }) => ({ url: `/access/people/${encodeURIComponent(id)}`, method: 'PUT', body }),
      invalidatesTags: ['people', 'shop', 'access'],
    }),
    giveSecret: build.mutation<Person[], { id: string; secret: string }>({
      query: ({ id, ...body }) => ({ url: `/access/people/${encodeURIComponent(id)}/secret`, method: 'PUT', body }),
      invalidatesTags: ['people', 'access'],
    }),
    endSessions: build.mutation<Person[], string>({
      query: (id) => ({ url: `/access/people/${encodeURIComponent(id)}/sessions`, method: 'DELETE' }),
      invalidatesTags: ['people'],
    }),
    sessions: build.query<SessionShown[], void>({
      query: () => '/access/sessions',
      keepUnusedDataFor: 0,
      providesTags: ['people', 'access'],
    }),
    endSession: build.mutation<SessionShown[], string>({
      query: (id) => ({ url: `/access/sessions/${id}`, method: 'DELETE' }),
      invalidatesTags: ['people'],
    }),
    devices: build.query<Device[], void>({ query: () => '/access/devices', providesTags: ['people'] }),
    askForDevice: build.mutation<Enrolment, { name: string }>({
      query: (body) => ({ url: '/access/devices', method: 'POST', body }),
      invalidatesTags: ['people'],
    }),
    endDevice: build.mutation<Device[], string>({
      query: (id) => ({ url: `/access/devices/${id}`, method: 'DELETE' }),
      invalidatesTags: ['people'],
    }),
    changeSigning: build.mutation<unknown, { signing: Signing }>({
      query: (body) => ({ url: '/access/signing', method: 'PUT', body }),
      invalidatesTags: ['access', 'people'],
    }),
    network: build.query<Network, void>({ query: () => '/access/network' }),
    audit: build.query<Audit, number | null>({
      query: (before) => (before === null ? '/access/audit' : `/access/audit?before=${before}`),
      keepUnusedDataFor: 0,
      providesTags: ['people'],
    }),
  }),
});
