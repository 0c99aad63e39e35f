import { z } from 'zod';
import type { Act } from '@fairwatt/core';
import { codePrefix, id, line, text, uuid } from './primitives.ts';

// Who may do what: one matrix of roles by endpoint and by act, for the server, the screens and the page of
// docs/access.md.

/** What people are in a shop. */
export const roles = ['owner', 'technician', 'trainee', 'counter', 'viewer'] as const;
export type Role = (typeof roles)[number];
/** `none` is a name only: somebody of another shop, or who has left. Such a one signs nothing and never signs in. */
export const standings = [...roles, 'none'] as const;
export type Standing = (typeof standings)[number];

export const roleText: Readonly<Record<Standing, { readonly name: string; readonly may: string }>> = {
  owner: { name: 'Owner', may: 'everything, and says who may do what' },
  technician: { name: 'Technician', may: 'the whole work on a machine, and the shelves' },
  trainee: { name: 'Trainee', may: 'records; findings, sign-offs and closing need a second person' },
  counter: { name: 'Counter', may: 'clients, intake and papers' },
  viewer: { name: 'Viewer', may: 'reads' },
  none: { name: 'A name only', may: 'nothing: of another shop, or gone' },
};

/** Kinds of doing, each allowed to some roles. */
export const permissions = {
  read: { roles: ['owner', 'technician', 'trainee', 'counter', 'viewer'], what: 'read jobs, shelves and papers' },
  safety: { roles: ['owner', 'technician', 'trainee', 'counter', 'viewer'], what: 'end a sweep, switch a load off' },
  intake: { roles: ['owner', 'technician', 'trainee', 'counter'], what: 'take machines in, enter clients and parts' },
  record: { roles: ['owner', 'technician', 'trainee'], what: 'record what was seen, measured and plugged' },
  judge: { roles: ['owner', 'technician'], what: 'enter findings, sign off, close and reopen' },
  power: { roles: ['owner', 'technician'], what: 'let instruments load or start a supply' },
  stock: { roles: ['owner', 'technician'], what: 'change supplies, cable bags, parts and prices' },
  carry: { roles: ['owner', 'technician'], what: 'take whole files out and bring them in' },
  own: { roles: ['owner'], what: 'people, devices, settings, addresses of services; put jobs away' },
} as const satisfies Readonly<Record<string, { readonly roles: readonly Role[]; readonly what: string }>>;
export type Permission = keyof typeof permissions;

export const roleMay = (role: Standing, permission: Permission): boolean =>
  (permissions[permission].roles as readonly Standing[]).includes(role);

/** Which kind of doing each act on a job is. */
export const actPermissions: Readonly<Record<Act['kind'], Permission>> = {
  'edit-sheet': 'intake',
  'put-part': 'intake',
  'drop-part': 'intake',
  'put-supply': 'intake',
  'drop-supply': 'intake',
  'note-outcome': 'record',
  'take-back-outcome': 'record',
  'take-reading': 'record',
  'correct-reading': 'record',
  'strike-reading': 'record',
  'restore-reading': 'record',
  'put-probe': 'record',
  'drop-probe': 'record',
  'put-log': 'record',
  'drop-log': 'record',
  'set-choice': 'record',
  'put-cable': 'record',
  'drop-cable': 'record',
  'swap-inlets': 'record',
  'put-pin': 'record',
  'drop-pin': 'record',
  'put-seat': 'record',
  'recheck-seats': 'record',
  'tick-step': 'record',
  'untick-step': 'record',
  'lay-cable': 'record',
  'order-steps': 'record',
  'put-lead': 'record',
  'drop-lead': 'record',
  'mark-leads': 'record',
  'put-note': 'intake',
  'drop-note': 'intake',
  'note-proof': 'record',
  'drop-proof': 'record',
  'set-finding': 'judge',
  'sign-off': 'judge',
  'withdraw-sign-off': 'judge',
  close: 'judge',
  reopen: 'judge',
  'put-away': 'own',
};

export const auditKinds = [
  'owner-made',
  'signed-in',
  'sign-in-refused',
  'locked',
  'signed-out',
  'sessions-ended',
  'second-signed',
  'secret-changed',
  'person-added',
  'person-changed',
  'device-asked',
  'device-enrolled',
  'device-ended',
  'signing-changed',
  'settings-changed',
  'address-changed',
  'exported',
  'imported',
  'deleted',
] as const;
export type AuditKind = (typeof auditKinds)[number];

export type Method = 'GET' | 'POST' | 'PUT' | 'DELETE';
/** `anyone` needs no sign-in: what the way in itself needs. */
export interface Endpoint {
  readonly method: Method;
  readonly path: string;
  readonly needs: Permission | 'anyone';
  /** What the audit calls it, where an owner wants to look it up later. */
  readonly told?: AuditKind;
}
const endpoint = (method: Method, path: string, needs: Endpoint['needs'], told?: AuditKind): Endpoint => ({
  method,
  path,
  needs,
  ...(told === undefined ? {} : { told }),
});

/** Every endpoint under /api; one that is not here is not answered. Where two fit, the first holds. */
export const endpoints: readonly Endpoint[] = [
  endpoint('GET', '/health', 'anyone'),
  endpoint('GET', '/health/state', 'read'),
  endpoint('GET', '/access', 'anyone'),
  endpoint('POST', '/access/owner', 'anyone'),
  endpoint('POST', '/access/session', 'anyone'),
  endpoint('DELETE', '/access/session', 'anyone'),
  endpoint('POST', '/access/device', 'anyone'),
  endpoint('PUT', '/access/secret', 'read'),
  endpoint('GET', '/access/sessions', 'read'),
  endpoint('DELETE', '/access/sessions/:id', 'read'),
  endpoint('GET', '/access/people', 'own'),
  endpoint('POST', '/access/people', 'own'),
  endpoint('PUT', '/access/people/:id', 'own'),
  endpoint('PUT', '/access/people/:id/secret', 'own'),
  endpoint('DELETE', '/access/people/:id/sessions', 'own'),
  endpoint('GET', '/access/devices', 'own'),
  endpoint('POST', '/access/devices', 'own'),
  endpoint('DELETE', '/access/devices/:id', 'own'),
  endpoint('PUT', '/access/signing', 'own'),
  endpoint('GET', '/access/audit', 'own'),
  endpoint('GET', '/access/network', 'own'),
  endpoint('GET', '/events', 'read'),
  endpoint('POST', '/presence', 'read'),
  endpoint('GET', '/knowledge', 'read'),
  endpoint('GET', '/shop', 'read'),
  endpoint('PUT', '/shop/settings', 'own', 'settings-changed'),
  endpoint('PUT', '/shop/instruments', 'own', 'settings-changed'),
  endpoint('POST', '/shop/import', 'own', 'imported'),
  endpoint('GET', '/supplies', 'read'),
  endpoint('GET', '/supplies/kits', 'read'),
  endpoint('GET', '/supplies/models/:id', 'read'),
  endpoint('PUT', '/supplies', 'stock'),
  endpoint('GET', '/supplies/export', 'carry', 'exported'),
  endpoint('POST', '/supplies/import', 'stock', 'imported'),
  endpoint('GET', '/supplies/units', 'read'),
  endpoint('PUT', '/supplies/units', 'stock'),
  endpoint('GET', '/supplies/units/export', 'carry', 'exported'),
  endpoint('DELETE', '/supplies/units/:id', 'stock', 'deleted'),
  endpoint('GET', '/supplies/parts', 'read'),
  endpoint('PUT', '/supplies/parts', 'stock'),
  endpoint('GET', '/supplies/parts/export', 'carry', 'exported'),
  endpoint('POST', '/supplies/parts/import', 'stock', 'imported'),
  endpoint('DELETE', '/supplies/parts/:id', 'stock', 'deleted'),
  endpoint('POST', '/supplies/prices', 'stock', 'imported'),
  endpoint('GET', '/supplies/prices/feed', 'read'),
  endpoint('PUT', '/supplies/prices/feed', 'own', 'address-changed'),
  endpoint('POST', '/supplies/prices/fetch', 'stock'),
  endpoint('DELETE', '/supplies/:id', 'stock', 'deleted'),
  endpoint('GET', '/cable-bags', 'read'),
  endpoint('PUT', '/cable-bags/cables', 'stock'),
  endpoint('DELETE', '/cable-bags/cables/:id', 'stock', 'deleted'),
  endpoint('PUT', '/cable-bags/adapters', 'stock'),
  endpoint('DELETE', '/cable-bags/adapters/:id', 'stock', 'deleted'),
  endpoint('PUT', '/cable-bags/pinouts', 'stock'),
  endpoint('PUT', '/cable-bags/proofs', 'stock'),
  endpoint('GET', '/instruments', 'read'),
  endpoint('POST', '/instruments', 'own', 'address-changed'),
  endpoint('GET', '/instruments/sweeps', 'read'),
  endpoint('POST', '/instruments/sweeps', 'power'),
  endpoint('GET', '/instruments/sweeps/:id/events', 'read'),
  endpoint('POST', '/instruments/sweeps/:id/stop', 'safety'),
  endpoint('DELETE', '/instruments/:id', 'own', 'deleted'),
  endpoint('GET', '/instruments/:id/identity', 'record'),
  endpoint('GET', '/instruments/:id/live', 'record'),
  endpoint('POST', '/instruments/:id/power-good', 'power'),
  endpoint('POST', '/instruments/:id/off', 'safety'),
  endpoint('GET', '/record', 'read'),
  endpoint('PUT', '/record/jobs/:code', 'own', 'settings-changed'),
  endpoint('GET', '/label-printer', 'read'),
  endpoint('PUT', '/label-printer', 'own', 'address-changed'),
  endpoint('GET', '/jobs', 'read'),
  endpoint('POST', '/jobs', 'intake'),
  endpoint('POST', '/jobs/import', 'carry', 'imported'),
  endpoint('GET', '/jobs/usual-machines', 'read'),
  endpoint('GET', '/jobs/:code', 'read'),
  endpoint('GET', '/jobs/:code/file', 'carry', 'exported'),
  endpoint('GET', '/jobs/:code/events', 'read'),
  endpoint('GET', '/jobs/:code/presence', 'read'),
  endpoint('POST', '/jobs/:code/acts', 'intake'),
  endpoint('POST', '/jobs/:code/acts/together', 'intake'),
  endpoint('POST', '/jobs/:code/acts/second', 'record', 'second-signed'),
  endpoint('GET', '/jobs/:code/logs/:id/original', 'read'),
  endpoint('PUT', '/jobs/:code/logs/:id/original', 'record'),
  endpoint('GET', '/jobs/:code/photos', 'read'),
  endpoint('POST', '/jobs/:code/photos', 'record'),
  endpoint('GET', '/jobs/:code/photos/:id', 'read'),
  endpoint('DELETE', '/jobs/:code/photos/:id', 'record', 'deleted'),
  endpoint('GET', '/jobs/:code/labels.pdf', 'read'),
  endpoint('GET', '/jobs/:code/supply-label.pdf', 'read'),
  endpoint('GET', '/jobs/:code/cables.pdf', 'read'),
  endpoint('GET', '/jobs/:code/cables.csv', 'read'),
  endpoint('POST', '/jobs/:code/labels/print', 'record'),
];

const patterns = endpoints.map((one) => ({
  one,
  pattern: new RegExp(`^${one.path.replace(/[.]/g, '\\.').replace(/:[a-z]+/gi, '[^/]+')}/?$`, 'i'),
}));

/** The endpoint that a request is for; null for none. HEAD is answered as GET is. */
export function endpointOf(method: string, path: string): Endpoint | null {
  const asked = method === 'HEAD' ? 'GET' : method;
  return patterns.find(({ one, pattern }) => one.method === asked && pattern.test(path))?.one ?? null;
}

/**
 * How people sign: each with a secret of their own, or, on this machine alone, by picking a name. A shop starts with
 * secrets; the demo's invented people are picked.
 */
export const signings = ['secret', 'picked'] as const;
export type Signing = (typeof signings)[number];

const pinPattern = /^\d{6}$/;
/** Whether a secret is a PIN, which is enough on an enrolled device only. */
export const isPin = (secret: string): boolean => pinPattern.test(secret);
const sameDigits = /^(\d)\1{5}$/;
const stairs = '01234567890 09876543210';

/** A secret somebody may choose: six digits that are no stairs and not all the same, or a passphrase of 12 and more. */
export const newSecretSchema = text(200)
  .refine((secret) => isPin(secret) || secret.length >= 12, 'six digits, or at least 12 characters')
  .refine(
    (secret) => !isPin(secret) || !(sameDigits.test(secret) || stairs.includes(secret)),
    'six digits that are harder to guess',
  );
const givenSecret = text(200);

/** The one-time code of the console, for the first owner or one who is locked out. */
const code = z
  .string()
  .transform((value) => value.toUpperCase().replace(/[^A-Z0-9]/g, ''))
  .refine((value) => value.length === 10, 'ten letters and digits');

export const ownerMessageSchema = z.strictObject({
  code,
  /** Somebody who is here already, or a new name. */
  person: id.nullable(),
  name: text(60).transform((name) => name.trim()),
  secret: newSecretSchema,
  device: line(60),
  /** What the first one says of a shop; null, or an empty word, leaves what stands. */
  shop: z
    .strictObject({ name: text(80).transform((name) => name.trim()), codePrefix: z.union([z.literal(''), codePrefix]) })
    .nullable()
    .default(null),
});
export type OwnerMessage = z.input<typeof ownerMessageSchema>;
export const signInSchema = z.strictObject({ name: line(60), secret: givenSecret });
export const enrolSchema = z.strictObject({ code });
export const ownSecretSchema = z.strictObject({ was: givenSecret, secret: newSecretSchema });
export const newPersonSchema = z.strictObject({
  name: line(60).transform((name) => name.trim()),
  role: z.enum(roles),
  secret: newSecretSchema.nullable(),
});
export const changePersonSchema = z.strictObject({
  name: line(60).transform((name) => name.trim()),
  role: z.enum(standings),
  basedOn: z.int().min(0),
});
export const givenSecretSchema = z.strictObject({ secret: newSecretSchema });
export const newDeviceSchema = z.strictObject({ name: line(60) });
export const signingSchema = z.strictObject({ signing: z.enum(signings) });

/** What a browser is told about itself before anything else. */
export const accessSchema = z.strictObject({
  signing: z.enum(signings),
  /** No owner can sign in yet: the code of the console makes one. */
  ownerless: z.boolean(),
  /** The name of this device where it is enrolled. */
  device: z.string().nullable(),
  person: z.strictObject({ id, name: z.string(), role: z.enum(roles) }).nullable(),
  /** Who can sign in here, told to enrolled devices only; while no owner can sign in, those who are to be owners. */
  names: z.array(z.strictObject({ id, name: z.string(), pin: z.boolean() })),
  shop: z.string(),
});
export type Access = z.infer<typeof accessSchema>;

export const personSchema = z.strictObject({
  id,
  name: z.string(),
  role: z.enum(standings),
  version: z.int(),
  secret: z.enum(['pin', 'passphrase']).nullable(),
  failures: z.int(),
  locked: z.boolean(),
  sessions: z.int(),
});
export type Person = z.infer<typeof personSchema>;
export const peopleSchema = z.array(personSchema);

/** Somebody who is signed in at some browser. The id tells sessions apart and lets nobody in. */
export const sessionSchema = z.strictObject({
  id: z.string().regex(/^[0-9a-f]{32}$/, 'is not the id of a session'),
  person: z.string(),
  /** The enrolled device; null for another browser. */
  device: z.string().nullable(),
  begunAt: z.string(),
  endsAt: z.string(),
  /** The session that asks. */
  here: z.boolean(),
});
export type SessionShown = z.infer<typeof sessionSchema>;
export const sessionsSchema = z.array(sessionSchema);

export const deviceSchema = z.strictObject({
  id: uuid,
  name: z.string(),
  enrolledBy: z.string(),
  enrolledAt: z.string().nullable(),
  seenAt: z.string().nullable(),
});
export type Device = z.infer<typeof deviceSchema>;
export const devicesSchema = z.array(deviceSchema);
/** What a device is enrolled with: a code for ten minutes, once; `path` opens it on the device. */
export const enrolmentSchema = z.strictObject({ code: z.string(), path: z.string(), until: z.string() });
export type Enrolment = z.infer<typeof enrolmentSchema>;

/** Where phones and other benches reach the shop; null while only this machine is answered. */
export const networkSchema = z
  .strictObject({
    urls: z.array(z.string()).min(1),
    /** SHA-256 of the authority that phones install; null where the certificate is from elsewhere. */
    fingerprint: z.string().nullable(),
    /** Where that authority is fetched, on each of the addresses. */
    rootPath: z.string(),
  })
  .nullable();
export type Network = z.infer<typeof networkSchema>;

export const auditQuerySchema = z.strictObject({ before: z.coerce.number().int().min(1).optional() });
export const auditSchema = z.strictObject({
  lines: z.array(
    z.strictObject({
      id: z.int(),
      at: z.string(),
      by: z.string().nullable(),
      device: z.string().nullable(),
      kind: z.enum(auditKinds),
      about: z.string(),
    }),
  ),
  more: z.boolean(),
});
export type Audit = z.infer<typeof auditSchema>;
