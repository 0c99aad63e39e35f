import type { Photo } from '@fairwatt/contract';
import type { Build } from './build.ts';

/** Pictures and labels. */
export const papersEndpoints = (build: Build) => ({
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
  printLabels: build.mutation<{ job: string; labels: number }, { code: string; by: string; what: 'cables' | 'supply' }>(
    {
      query: ({ code, ...body }) => ({
        url: `/jobs/${encodeURIComponent(code)}/labels/print`,
        method: 'POST',
        body,
      }),
    },
  ),
  labelPrinter: build.query<{ url: string } | null, void>({
    query: () => '/label-printer',
    providesTags: ['printer'],
  }),
  setLabelPrinter: build.mutation<{ url: string }, { by: string; url: string }>({
    query: (body) => ({ url: '/label-printer', method: 'PUT', body }),
    invalidatesTags: ['printer'],
  }),
});
