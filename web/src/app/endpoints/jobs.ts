import { original } from '@reduxjs/toolkit';
import { copyWithStructuralSharing } from '@reduxjs/toolkit/query';
import type { Job } from '@fairwatt/core';
import type { JobEvents, JobList, JobListQuery, UsualMachine, NewJobMessage, Present } from '@fairwatt/contract';
import type { Build } from './build.ts';

/** Jobs, and who is at them. */
export const jobsEndpoints = (build: Build) => ({
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
  // An answer that was on its way while a change was confirmed is older than what is known, and is let go. What did not
  // change stays the same object, so that nothing is reckoned or drawn anew for it.
  job: build.query<Job, string>({
    query: (code) => `/jobs/${encodeURIComponent(code)}`,
    merge: (known, came) =>
      came.revision < known.revision ? known : copyWithStructuralSharing(original<unknown>(known), came),
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
  signSecond: build.mutation<Job, { code: string; name: string; secret: string; message: unknown }>({
    query: ({ code, ...body }) => ({ url: `/jobs/${encodeURIComponent(code)}/acts/second`, method: 'POST', body }),
    invalidatesTags: ['jobs', 'record'],
  }),
});
