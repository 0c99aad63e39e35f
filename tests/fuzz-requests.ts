import fc, { type Arbitrary } from 'fast-check';
import { z } from 'zod';
import {
  actMessageSchema,
  bagAdapterMessageSchema,
  bagCableMessageSchema,
  importMessageSchema,
  instrumentMessageSchema,
  jobFileSchema,
  newJobSchema,
  newNetworkInstrumentSchema,
  newPersonSchema,
  signInSchema,
  pinoutMessageSchema,
  presenceMessageSchema,
  proofMessageSchema,
  settingsMessageSchema,
  shopFileSchema,
  supplyMessageSchema,
  sweepRequestSchema,
  unitMessageSchema,
} from '@fairwatt/contract';
import { hostile, spoiled, valuesOf } from './arbitrary.ts';

/** A request as it goes over the wire. */
export interface FuzzRequest {
  readonly method: string;
  readonly path: string;
  readonly headers: Readonly<Record<string, string>>;
  readonly body: string | Uint8Array | undefined;
}

const technicians = ['mara', 'joss'];
const codes = ['LQ-0142', 'LQ-0143', 'LQ-0146'];
const oddPieces = ['%00', '%ff', '%', '..%2f..', 'LQ-9999', '%F0%9F%92%A1', 'x'.repeat(3000), "'", '0', '-1', '%2e%2e'];
const piece = (good: readonly string[]) =>
  fc.oneof({ weight: 6, arbitrary: fc.constantFrom(...good) }, { weight: 1, arbitrary: fc.constantFrom(...oddPieces) });
const uuid = fc.uuid();

/** Bodies that mostly fit their schema, with people and jobs that are there, and now and then something bad in them. */
function bodyOf(schema: z.ZodType): Arbitrary<string> {
  return fc.tuple(valuesOf(schema), hostile, fc.nat(), fc.nat(9)).map(([value, bad, at, luck]) => {
    const known =
      typeof value === 'object' && value !== null && 'by' in value
        ? { ...value, by: technicians[at % technicians.length] }
        : value;
    const chosen: unknown = luck < 4 ? spoiled(known, bad, at) : known;
    return JSON.stringify(chosen) ?? 'undefined';
  });
}

const broken: Arbitrary<Pick<FuzzRequest, 'headers' | 'body'>> = fc.constantFrom<Pick<FuzzRequest, 'headers' | 'body'>>(
  { headers: { 'content-type': 'application/json' }, body: '{"id":' },
  { headers: { 'content-type': 'application/json' }, body: '' },
  { headers: { 'content-type': 'application/json' }, body: 'null' },
  { headers: { 'content-type': 'application/json' }, body: '[]' },
  { headers: { 'content-type': 'application/json' }, body: '"text"' },
  { headers: { 'content-type': 'application/json', 'content-encoding': 'gzip' }, body: 'this is no gzip' },
  { headers: { 'content-type': 'application/json', 'content-encoding': 'strange' }, body: '{}' },
  { headers: { 'content-type': 'application/json; charset=utf-99' }, body: '{}' },
  { headers: { 'content-type': 'text/plain' }, body: '{}' },
  { headers: { 'content-type': 'multipart/form-data; boundary=x' }, body: '--x--' },
  { headers: { 'content-type': 'application/json' }, body: `${'['.repeat(20_000)}${']'.repeat(20_000)}` },
  { headers: { 'content-type': 'application/json' }, body: new Uint8Array([0xff, 0xfe, 0x7b, 0x7d]) },
  { headers: { 'content-type': 'application/json' }, body: '{"__proto__":{"by":"mara"},"constructor":1}' },
);

const writes: readonly (readonly [method: string, path: readonly (readonly string[])[], schema: z.ZodType])[] = [
  ['POST', [['jobs']], newJobSchema],
  ['POST', [['jobs'], codes, ['acts']], actMessageSchema],
  ['POST', [['jobs'], ['import?by=mara&as=new']], jobFileSchema],
  ['POST', [['jobs'], codes, ['labels'], ['print']], z.strictObject({ by: z.string() })],
  ['PUT', [['shop'], ['settings']], settingsMessageSchema],
  ['PUT', [['shop'], ['instruments']], instrumentMessageSchema],
  ['POST', [['access'], ['people']], newPersonSchema],
  ['POST', [['access'], ['session']], signInSchema],
  ['POST', [['shop'], ['import']], shopFileSchema],
  ['PUT', [['supplies']], supplyMessageSchema],
  ['PUT', [['supplies'], ['units']], unitMessageSchema],
  ['POST', [['supplies'], ['import']], importMessageSchema],
  ['POST', [['supplies'], ['parts'], ['import']], importMessageSchema],
  ['PUT', [['cable-bags'], ['cables']], bagCableMessageSchema],
  ['PUT', [['cable-bags'], ['adapters']], bagAdapterMessageSchema],
  ['PUT', [['cable-bags'], ['pinouts']], pinoutMessageSchema],
  ['PUT', [['cable-bags'], ['proofs']], proofMessageSchema],
  ['POST', [['instruments']], newNetworkInstrumentSchema],
  ['POST', [['instruments'], ['sweeps']], sweepRequestSchema],
  ['POST', [['presence']], presenceMessageSchema],
];

const reads: readonly (readonly (readonly string[])[])[] = [
  [['jobs']],
  [['jobs'], codes],
  [
    ['jobs'],
    codes,
    ['file', 'events', 'photos', 'presence', 'labels.pdf', 'supply-label.pdf', 'cables.csv', 'cables.pdf'],
  ],
  [['jobs'], codes, ['photos', 'logs'], ['00000000-0000-4000-8000-000000000000', 'x']],
  [['jobs'], codes, ['logs'], ['00000000-0000-4000-8000-000000000000'], ['original']],
  [['shop', 'supplies', 'cable-bags', 'record', 'knowledge', 'health', 'label-printer', 'instruments']],
  [['supplies'], ['units', 'parts', 'export?format=csv', 'units/export', 'parts/export', 'prices/feed']],
  [['health'], ['state']],
  [['instruments'], ['sweeps', 'nothing/identity']],
];
const removals: readonly (readonly (readonly string[])[])[] = [
  [['supplies'], ['nothing']],
  [['supplies'], ['units', 'parts'], ['nothing', '00000000-0000-4000-8000-000000000000']],
  [['cable-bags'], ['cables', 'adapters'], ['00000000-0000-4000-8000-000000000000']],
  [['jobs'], codes, ['photos'], ['00000000-0000-4000-8000-000000000000']],
  [['instruments'], ['nothing']],
];

const pathOf = (parts: readonly (readonly string[])[]): Arbitrary<string> =>
  fc.tuple(...parts.map(piece)).map((pieces) => `/${pieces.join('/')}`);
const query = fc.oneof(
  { weight: 3, arbitrary: fc.constant('') },
  {
    weight: 2,
    arbitrary: fc
      .tuple(
        fc.constantFrom('search', 'state', 'page', 'by', 'basedOn', 'stock', 'skip', 'format', 'x', 'id', 'caption'),
        fc.oneof(fc.constantFrom(...oddPieces, 'mara', 'open', '1e9', '2', 'a4-24', '%ED%A0%80'), uuid),
      )
      .map(([key, value]) => `${key}=${value}`),
  },
);
const join = (path: string, extra: string) =>
  extra === '' ? path : `${path}${path.includes('?') ? '&' : '?'}${extra}`;
const json = { 'content-type': 'application/json' };

const writing: Arbitrary<FuzzRequest> = fc.oneof(
  ...writes.map(([method, parts, schema]) =>
    fc.record({ method: fc.constant(method), path: pathOf(parts), headers: fc.constant(json), body: bodyOf(schema) }),
  ),
);
const bad: Arbitrary<FuzzRequest> = fc
  .tuple(fc.constantFrom(...writes), broken)
  .chain(([[method, parts], { headers, body }]) =>
    pathOf(parts).map((path): FuzzRequest => ({ method, path, headers, body })),
  );
const reading: Arbitrary<FuzzRequest> = fc
  .tuple(fc.oneof(...reads.map(pathOf)), query)
  .map(([path, extra]) => ({ method: 'GET', path: join(path, extra), headers: {}, body: undefined }));
const removing: Arbitrary<FuzzRequest> = fc
  .tuple(fc.oneof(...removals.map(pathOf)), query)
  .map(([path, extra]) => ({ method: 'DELETE', path: join(path, extra), headers: {}, body: undefined }));
const picture: Arbitrary<FuzzRequest> = fc
  .tuple(fc.constantFrom(...codes), uuid, fc.uint8Array({ maxLength: 400 }))
  .map(([code, id, bytes]) => ({
    method: 'POST',
    path: `/jobs/${code}/photos?by=mara&id=${id}`,
    headers: { 'content-type': 'image/png' },
    body: bytes,
  }));

/** Requests that know the schemas: most nearly right, some right, some nonsense. */
export const requests: Arbitrary<FuzzRequest> = fc.oneof(
  { weight: 10, arbitrary: writing },
  { weight: 2, arbitrary: bad },
  { weight: 4, arbitrary: reading },
  { weight: 1, arbitrary: removing },
  { weight: 1, arbitrary: picture },
);

/** What came back that must never: a failure of the server, or something of its inside. */
export function fault(request: FuzzRequest, status: number, type: string, text: string): string | null {
  const inside = /node_modules|at .*\.(?:ts|js):\d+|select .* from |insert into|postgres(?:ql)?:\/\/|relation "/i;
  const told =
    `${request.method} ${request.path} ${String(request.body).slice(0, 300)} -> ${status} ` + text.slice(0, 300);
  if (status >= 500) return told;
  if (status >= 400 && !type.startsWith('application/problem+json')) return `no problem document: ${told}`;
  if (status >= 400 && inside.test(text)) return `shows its inside: ${told}`;
  return null;
}
