import { fittingOf, inletKindOf } from '../fitting.ts';
import { cableAt } from '../record-harness.ts';
import { refuse, type ActOf, type Doers, type Doing } from './doing.ts';

const unknown = (path: string, value: string) => refuse({ code: 'unknown-reference', path, value });

/** No inlet has two plugs in the record. */
function putCable({ cable, basedOn }: ActOf<'put-cable'>, on: Doing) {
  const known = on.inletIds();
  const lost = cable.plugs.find((plug) => plug.inletId !== null && !known.has(plug.inletId));
  if (lost !== undefined) return unknown('cable.plugs', lost.inletId ?? '');
  const others = on.job.cables.filter(({ id }) => id !== cable.id);
  const taken = new Set(others.flatMap(({ plugs }) => plugs.flatMap((plug) => plug.inletId ?? [])));
  const own = cable.plugs.flatMap((plug) => plug.inletId ?? []);
  const twice = own.find((id, index) => taken.has(id) || own.indexOf(id) !== index);
  if (twice !== undefined) return refuse({ code: 'duplicate', subject: `inlet:${twice}` });
  return on.putById('cables', { ...cable, version: on.revision }, basedOn);
}

/** Two inlets exchange their plugs, on one cable or on two. */
function swapInlets(act: ActOf<'swap-inlets'>, on: Doing) {
  const { inletId: first, otherInletId: second } = act;
  const { cables } = on.job;
  const cable = cables.find(({ id }) => id === act.cableId);
  if (cable === undefined) return refuse({ code: 'not-found', subject: on.subject });
  const old = on.stale(act.basedOn, cable.version);
  if (old !== null) return old;
  if (cableAt([cable], first) === null || first === second) return unknown('inletId', first);
  if (!on.inletIds().has(second) || (cableAt(cables, second)?.id ?? null) !== act.otherCableId)
    return unknown('otherInletId', second);
  const exchanged = (inletId: string | null) => (inletId === first ? second : inletId === second ? first : inletId);
  return on.done({
    cables: cables.map((one) =>
      one.plugs.some(({ inletId }) => inletId !== exchanged(inletId))
        ? {
            ...one,
            plugs: one.plugs.map((plug) => ({ ...plug, inletId: exchanged(plug.inletId) })),
            likely: undefined,
            version: on.revision,
          }
        : one,
    ),
  });
}

function putSeat({ seat, basedOn }: ActOf<'put-seat'>, on: Doing) {
  const { inletId, piece = '' } = seat;
  if (!on.inletIds().has(inletId)) return unknown('seat.inletId', inletId);
  const item = {
    ...{ ...seat, piece, ...on.signed, version: on.revision, rechecked: null },
    inletKind: inletKindOf(on.job, inletId),
  };
  return on.put('seats', item, basedOn, (one) => one.inletId === inletId);
}

function putPin({ pin, basedOn }: ActOf<'put-pin'>, on: Doing) {
  if (!on.inletIds().has(pin.inletId)) return unknown('pin.inletId', pin.inletId);
  const item = { ...pin, ...on.signed, version: on.revision };
  return on.put('pins', item, basedOn, ({ inletId }) => inletId === pin.inletId);
}

function layCable({ cable, way, basedOn }: ActOf<'lay-cable'>, on: Doing) {
  const fitting = fittingOf(on.job.choice);
  const item = { fitting, cable, way, version: on.revision, ...on.signed };
  return on.put('laidWays', item, basedOn, (laid) => laid.cable === cable && laid.fitting === fitting);
}

/** The harness as it was recorded, as it is to be, and the steps in between. */
export const cableActs: Doers<
  | 'put-cable'
  | 'drop-cable'
  | 'swap-inlets'
  | 'put-seat'
  | 'put-pin'
  | 'drop-pin'
  | 'recheck-seats'
  | 'tick-step'
  | 'untick-step'
  | 'order-steps'
  | 'lay-cable'
> = {
  'put-cable': putCable,
  'drop-cable': ({ cableId, basedOn }, on) => on.dropById('cables', cableId, basedOn),
  'swap-inlets': swapInlets,
  'put-seat': putSeat,
  'put-pin': putPin,
  'drop-pin': ({ inletId, basedOn }, on) => on.drop('pins', basedOn, (pin) => pin.inletId === inletId),
  'recheck-seats': ({ inletIds }, on) =>
    on.done({
      seats: on.job.seats.map((seat) => (inletIds.includes(seat.inletId) ? { ...seat, rechecked: on.signed } : seat)),
    }),
  // Two people ticking the same step mean the same.
  'tick-step': ({ stepId }, on) =>
    on.job.steps.some((step) => step.stepId === stepId)
      ? on.done({})
      : on.done({ steps: [...on.job.steps, { stepId, ...on.signed }] }),
  'untick-step': ({ stepId }, on) => on.done({ steps: on.job.steps.filter((step) => step.stepId !== stepId) }),
  'order-steps': ({ phase, stepIds, basedOn }, on) =>
    on.put('stepOrders', { phase, stepIds, version: on.revision }, basedOn, (one) => one.phase === phase),
  'lay-cable': layCable,
};
