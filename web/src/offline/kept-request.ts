import type { BaseQueryApi, FetchArgs } from '@reduxjs/toolkit/query';
import type { OutboxState } from './outbox.ts';
import { nextOrder, thisTab, type RequestParcel } from './parcel.ts';

/**
 * Changes beside the acts that are kept while the server is away and sent when it is back, with what they are in words
 * and what has to be fetched anew afterwards. Each says as a whole what shall be, or carries an id, so that sending it
 * twice does it once.
 */
const keepable: Readonly<Record<string, { readonly title: string; readonly tags: readonly string[] }>> = {
  createJob: { title: 'A new job', tags: ['jobs'] },
  addPhoto: { title: 'A picture', tags: ['photos'] },
  removePhoto: { title: 'A picture taken out', tags: ['photos'] },
  changeSettings: { title: 'The settings', tags: ['shop'] },
  changeInstrument: { title: 'An instrument', tags: ['shop'] },
  changeUnit: { title: 'A unit on the shelf', tags: ['units', 'supplies'] },
  removeUnit: { title: 'A unit taken from the shelf', tags: ['units', 'supplies'] },
  changeSupply: { title: 'A supply', tags: ['supplies', 'units'] },
  removeSupply: { title: 'A supply taken out', tags: ['supplies'] },
  keepOwnPart: { title: "A part of the shop's own", tags: ['parts'] },
  removeOwnPart: { title: "A part of the shop's own taken out", tags: ['parts'] },
  changeBagCable: { title: 'A cable in the bags', tags: ['bags'] },
  removeBagCable: { title: 'A cable taken out of the bags', tags: ['bags'] },
  changeBagAdapter: { title: 'An adapter in the bags', tags: ['bags'] },
  removeBagAdapter: { title: 'An adapter taken out of the bags', tags: ['bags'] },
  changePinout: { title: 'What a socket gives', tags: ['bags'] },
  changeProof: { title: 'A proof by probe', tags: ['bags'] },
  leaveOut: { title: 'A job left out of the record', tags: ['record', 'jobs'] },
};

/** Whether this changes what the shop keeps, and is on its way until it was answered. */
export const isKeepable = (endpoint: string): boolean => endpoint in keepable;

/** What a mutation that was kept answers in place of the server: nothing yet. */
export const kept = { data: null } as const;

/** Whether an answer means that the server is away just now. */
export const isAway = (status: unknown): boolean =>
  status === 'FETCH_ERROR' || status === 'TIMEOUT_ERROR' || (typeof status === 'number' && status > 500);

/** Whether a change has to wait behind others of its kind that are unsent. */
export const mustQueue = (outbox: OutboxState, endpoint: string): boolean =>
  endpoint in keepable && outbox.parcels.some((parcel) => parcel.kind === 'request' && parcel.state === 'waiting');

/** Whether an answer means that the change is to be kept. */
export const shallKeep = (endpoint: string, status: unknown): boolean => endpoint in keepable && isAway(status);

/** A request that is sealed from the start. */
function sealed(
  by: string,
  at: string,
  what: Pick<RequestParcel, 'code' | 'title' | 'method' | 'path' | 'body' | 'contentType' | 'tags'>,
): RequestParcel {
  return {
    kind: 'request',
    id: crypto.randomUUID(),
    by,
    at,
    tab: thisTab,
    order: nextOrder(Date.parse(at)),
    state: 'waiting',
    refused: null,
    failures: 0,
    ...what,
  };
}

function contentTypeOf(body: unknown): string {
  if (body instanceof Blob) return body.type;
  return typeof body === 'string' ? 'text/csv' : 'application/json';
}

/** A mutation as a parcel. */
export function parcelOf(args: FetchArgs, { endpoint }: BaseQueryApi, by: string, at: string): RequestParcel {
  const { title = endpoint, tags = [] } = keepable[endpoint] ?? {};
  const entries = Object.entries((args.params ?? {}) as Record<string, unknown>)
    .filter(([, value]) => value !== undefined)
    .map(([key, value]): [string, string] => [key, String(value)]);
  const query = entries.length === 0 ? '' : `?${new URLSearchParams(entries).toString()}`;
  const raw: unknown = args.body;
  const asItIs = raw instanceof Blob || typeof raw === 'string';
  return sealed(by, at, {
    code: /^\/jobs\/([A-Z]{2}-\d+)\//.exec(args.url)?.[1] ?? null,
    title,
    method: (args.method ?? 'POST') as RequestParcel['method'],
    path: `${args.url}${query}`,
    body: raw === undefined ? null : asItIs ? raw : JSON.stringify(raw),
    contentType: contentTypeOf(raw),
    tags,
  });
}

/** A log's own file, which follows the log itself on the same road. */
export const originalParcel = (code: string, logId: string, text: string, by: string): RequestParcel =>
  sealed(by, new Date().toISOString(), {
    code,
    title: "A log's file",
    method: 'PUT',
    path: `/jobs/${encodeURIComponent(code)}/logs/${logId}/original`,
    body: text,
    contentType: 'text/csv',
    tags: [],
  });
