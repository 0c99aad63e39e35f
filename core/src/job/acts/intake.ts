import type { Job, JobPart, Sheet, SheetField } from '../job.ts';
import { dropped, refuse, written, type ActOf, type Doers, type Doing } from './doing.ts';

/**
 * Plugs, pins and ticks of inlets that are no longer there go with them; a cable that loses a plug's inlet is a new
 * version.
 */
function tidied(job: Job, parts: readonly JobPart[], revision: number): Partial<Job> {
  const known = new Set(parts.flatMap((part) => part.inlets.map((inlet) => inlet.id)));
  const lost = (id: string | null) => id !== null && !known.has(id);
  return {
    parts,
    seats: job.seats.filter((seat) => known.has(seat.inletId)),
    pins: job.pins.filter((pin) => known.has(pin.inletId)),
    cables: job.cables.map((cable) =>
      cable.plugs.some((plug) => lost(plug.inletId))
        ? {
            ...cable,
            version: revision,
            plugs: cable.plugs.map((plug) => (lost(plug.inletId) ? { ...plug, inletId: null } : plug)),
          }
        : cable,
    ),
  };
}

const withParts = (on: Doing, result: ReturnType<typeof written<JobPart>>) =>
  'code' in result ? refuse(result) : on.done(tidied(on.job, result.list, on.revision));

/** Only the fields that an act names are written, and only where each was seen as it is. */
function editSheet({ changes, basedOn }: ActOf<'edit-sheet'>, on: Doing) {
  const { sheet } = on.job;
  const given = Object.fromEntries(Object.entries(changes).filter(([, value]) => value !== undefined)) as Partial<
    Omit<Sheet, 'version' | 'fieldRevisions'>
  >;
  const fields = Object.keys(given) as SheetField[];
  const newest = Math.max(...fields.map((field) => sheet.fieldRevisions[field] ?? 0));
  if (newest > basedOn) return refuse({ code: 'stale', subject: 'sheet', basedOn, current: newest });
  const fieldRevisions = {
    ...sheet.fieldRevisions,
    ...Object.fromEntries(fields.map((field) => [field, on.revision])),
  };
  return on.done({ sheet: { ...sheet, ...given, version: on.revision, fieldRevisions } });
}

function putPart({ part, basedOn }: ActOf<'put-part'>, on: Doing) {
  const { parts } = on.job;
  const others = new Set(
    parts.filter(({ id }) => id !== part.id).flatMap(({ inlets }) => inlets.map((inlet) => inlet.id)),
  );
  const twice = part.inlets.find(
    ({ id }, index) => others.has(id) || part.inlets.findIndex((other) => other.id === id) !== index,
  );
  if (twice !== undefined) return refuse({ code: 'duplicate', subject: `inlet:${twice.id}` });
  const item = { ...part, version: on.revision };
  return withParts(
    on,
    written(parts, item, ({ id }) => id === part.id, basedOn, on.subject),
  );
}

/** What the machine is, and what stands beside it: the sheet, parts, the present supply, other leads, notes. */
export const intakeActs: Doers<
  | 'edit-sheet'
  | 'put-part'
  | 'drop-part'
  | 'put-supply'
  | 'drop-supply'
  | 'put-lead'
  | 'drop-lead'
  | 'mark-leads'
  | 'put-note'
  | 'drop-note'
> = {
  'edit-sheet': editSheet,
  'put-part': putPart,
  'drop-part': ({ partId, basedOn }, on) =>
    withParts(
      on,
      dropped(on.job.parts, ({ id }) => id === partId, basedOn, on.subject),
    ),
  'put-supply': ({ supply, basedOn }, on) =>
    on.stale(basedOn, on.job.supply?.version ?? 0) ?? on.done({ supply: { ...supply, version: on.revision } }),
  'drop-supply': ({ basedOn }, on) =>
    on.job.supply === null
      ? refuse({ code: 'not-found', subject: 'supply' })
      : (on.stale(basedOn, on.job.supply.version) ?? on.done({ supply: null })),
  'put-lead': ({ lead, basedOn }, on) => on.putById('leads', { ...lead, ...on.signed, version: on.revision }, basedOn),
  'drop-lead': ({ leadId, basedOn }, on) => on.dropById('leads', leadId, basedOn),
  'mark-leads': ({ leadIds, state }, on) => {
    const marked = new Set(leadIds);
    return on.done({
      leads: on.job.leads.map((lead) =>
        marked.has(lead.id)
          ? { ...lead, ...(lead.state === state ? {} : { state, ...on.signed }), version: on.revision }
          : lead,
      ),
    });
  },
  'put-note': ({ note, basedOn }, on) => on.putById('notes', { ...note, ...on.signed, version: on.revision }, basedOn),
  'drop-note': ({ noteId, basedOn }, on) => on.dropById('notes', noteId, basedOn),
};
