import type { Access, OwnerMessage } from '@fairwatt/contract';
import type { Build } from './build.ts';

/** Who works here, and the ways in. */
export const accessEndpoints = (build: Build) => ({
  access: build.query<Access, void>({ query: () => '/access', providesTags: ['access'] }),
  makeOwner: build.mutation<unknown, OwnerMessage>({
    query: (body) => ({ url: '/access/owner', method: 'POST', body }),
  }),
  signIn: build.mutation<unknown, { name: string; secret: string }>({
    query: (body) => ({ url: '/access/session', method: 'POST', body }),
  }),
  signOut: build.mutation<unknown, void>({ query: () => ({ url: '/access/session', method: 'DELETE' }) }),
  enrolDevice: build.mutation<{ name: string }, { code: string }>({
    query: (body) => ({ url: '/access/device', method: 'POST', body }),
  }),
  changeOwnSecret: build.mutation<unknown, { was: string; secret: string }>({
    query: (body) => ({ url: '/access/secret', method: 'PUT', body }),
  }),
});
