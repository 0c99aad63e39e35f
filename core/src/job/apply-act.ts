import type { Act, ActContext, ActResult, Refusal } from './act.ts';
import { fittingOf, inletKindOf, laidAsideFor } from './fitting.ts';
import type { Job, JobPart, NotedOutcome, Sheet, SheetField, SignOff } from './job.ts';
import { jobLimits, overfull } from './limits.ts';
import { proofSubject, standingProof } from './proofs.ts';
import { cableAt } from './record-harness.ts';
import { standingOutcome, subjectOf } from './subject.ts';

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

const refuse = (refusal: Refusal): ActResult => ({ ok: false, refusal });

interface Versioned {
  readonly version: number;
}

/** A list with one thing written, seen at this version: in the place of what is the same, else behind the others. */
function written<T extends Versioned>(
  list: readonly T[],
  item: T,
  same: (one: T) => boolean,
  basedOn: number,
  subject: string,
): { readonly list: T[] } | Refusal {
  const index = list.findIndex(same);
  const current = index < 0 ? 0 : list[index]!.version;
  if (current !== basedOn) return { code: 'stale', subject, basedOn, current };
  return { list: index < 0 ? [...list, item] : list.map((one, position) => (position === index ? item : one)) };
}

function dropped<T extends Versioned>(
  list: readonly T[],
  same: (one: T) => boolean,
  basedOn: number,
  subject: string,
): { readonly list: T[] } | Refusal {
  const found = list.find(same);
  if (found === undefined) return { code: 'not-found', subject };
  if (found.version !== basedOn) return { code: 'stale', subject, basedOn, current: found.version };
  return { list: list.filter((one) => !same(one)) };
}

/** Lists of things that are told apart by an id of their own. */
type ById = 'cables' | 'probes' | 'logs' | 'leads' | 'notes';
/** Lists that an act writes one thing of. */
type Written = ById | 'seats' | 'pins' | 'stepOrders' | 'proofs' | 'laidWays';

/** A second fault is one that the knowledge has, beside a first that is another. */
const isSecondFault = (
  { kind, faultId, alsoFaultId }: NonNullable<Extract<Act, { kind: 'set-finding' }>['finding']>,
  { knows }: ActContext,
): boolean =>
  kind === 'fault' && faultId !== null && alsoFaultId != null && alsoFaultId !== faultId && knows.fault(alsoFaultId);

/**
 * Applies an act to a job: the one place that says what an act does, for server, screen and import alike.
 * A job that is closed or put away takes only `reopen`. References to parts of the job or the shop must exist. Each act
 * that is done gives the job the next revision, which is the version of what it changed.
 */
export function applyAct(job: Job, act: Act, context: ActContext): ActResult {
  if (job.state !== 'open' && act.kind !== 'reopen') return refuse({ code: job.state });
  const result = applied(job, act, context);
  if (!result.ok) return result;
  const list = overfull(job, result.job);
  return list === null ? result : refuse({ code: 'limit', list, most: jobLimits[list] });
}

function applied(job: Job, act: Act, context: ActContext): ActResult {
  const revision = job.revision + 1;
  const signed = { by: context.by, at: context.at };
  const done = (changes: Partial<Job>): ActResult => ({
    ok: true,
    job: { ...job, ...changes, revision, updatedAt: context.at, updatedBy: context.by },
  });
  const subject = subjectOf(act);
  const withList = <K extends Written>(key: K, result: { readonly list: Job[K][number][] } | Refusal): ActResult =>
    'code' in result ? refuse(result) : done({ [key]: result.list });
  const listOf = <K extends Written>(key: K) => job[key] as readonly Job[K][number][];
  const put = <K extends Written>(
    key: K,
    item: Job[K][number],
    basedOn: number,
    same: (one: Job[K][number]) => boolean,
  ): ActResult => withList(key, written(listOf(key), item, same, basedOn, subject));
  const drop = <K extends Written>(key: K, basedOn: number, same: (one: Job[K][number]) => boolean): ActResult =>
    withList(key, dropped(listOf(key), same, basedOn, subject));
  const putById = <K extends ById>(key: K, item: Job[K][number], basedOn: number): ActResult =>
    put(key, item, basedOn, (one) => one.id === item.id);
  const dropById = (key: ById, id: string, basedOn: number): ActResult => drop(key, basedOn, (one) => one.id === id);
  const withParts = (result: { readonly list: JobPart[] } | Refusal): ActResult =>
    'code' in result ? refuse(result) : done(tidied(job, result.list, revision));
  const stale = (basedOn: number, current: number): ActResult | null =>
    basedOn === current ? null : refuse({ code: 'stale', subject, basedOn, current });
  const inletIds = () => new Set(job.parts.flatMap((part) => part.inlets.map((inlet) => inlet.id)));
  switch (act.kind) {
    case 'edit-sheet': {
      const given = Object.fromEntries(
        Object.entries(act.changes).filter(([, value]) => value !== undefined),
      ) as Partial<Omit<Sheet, 'version' | 'fieldRevisions'>>;
      const fields = Object.keys(given) as SheetField[];
      const newest = Math.max(...fields.map((field) => job.sheet.fieldRevisions[field] ?? 0));
      if (newest > act.basedOn)
        return refuse({ code: 'stale', subject: 'sheet', basedOn: act.basedOn, current: newest });
      const fieldRevisions = {
        ...job.sheet.fieldRevisions,
        ...Object.fromEntries(fields.map((field) => [field, revision])),
      };
      return done({ sheet: { ...job.sheet, ...given, version: revision, fieldRevisions } });
    }
    case 'put-part': {
      const others = new Set(
        job.parts.filter((part) => part.id !== act.part.id).flatMap((part) => part.inlets.map((inlet) => inlet.id)),
      );
      const twice = act.part.inlets.find(
        (inlet, index) => others.has(inlet.id) || act.part.inlets.findIndex((other) => other.id === inlet.id) !== index,
      );
      if (twice !== undefined) return refuse({ code: 'duplicate', subject: `inlet:${twice.id}` });
      return withParts(
        written(job.parts, { ...act.part, version: revision }, ({ id }) => id === act.part.id, act.basedOn, subject),
      );
    }
    case 'drop-part':
      return withParts(dropped(job.parts, ({ id }) => id === act.partId, act.basedOn, subject));
    case 'put-supply':
      return stale(act.basedOn, job.supply?.version ?? 0) ?? done({ supply: { ...act.supply, version: revision } });
    case 'drop-supply':
      return job.supply === null
        ? refuse({ code: 'not-found', subject: 'supply' })
        : (stale(act.basedOn, job.supply.version) ?? done({ supply: null }));
    case 'note-outcome': {
      if (job.outcomes.some((outcome) => outcome.id === act.id))
        return refuse({ code: 'duplicate', subject: `outcome:${act.id}` });
      if (!context.knows.outcome(act.checkId, act.outcomeId))
        return refuse({ code: 'unknown-reference', path: 'outcomeId', value: act.outcomeId });
      if (act.instead !== undefined && act.instead !== standingOutcome(job, act.checkId))
        return refuse({ code: 'stale', subject: `check:${act.checkId}`, basedOn: 0, current: job.revision });
      const instrumentId = act.instrumentId ?? null;
      if (instrumentId !== null && !context.knows.instrument(instrumentId))
        return refuse({ code: 'unknown-reference', path: 'instrumentId', value: instrumentId });
      const noted: NotedOutcome = {
        id: act.id,
        checkId: act.checkId,
        outcomeId: act.outcomeId,
        instrumentId,
        takenBackAt: null,
        ...signed,
      };
      const earlier = job.outcomes.map((outcome) =>
        outcome.checkId === act.checkId && outcome.takenBackAt === null
          ? { ...outcome, takenBackAt: context.at }
          : outcome,
      );
      return done({ outcomes: [...earlier, noted] });
    }
    case 'take-back-outcome':
      if (!job.outcomes.some((outcome) => outcome.id === act.id))
        return refuse({ code: 'not-found', subject: `outcome:${act.id}` });
      return done({
        outcomes: job.outcomes.map((outcome) =>
          outcome.id === act.id && outcome.takenBackAt === null ? { ...outcome, takenBackAt: context.at } : outcome,
        ),
      });
    case 'take-reading':
    case 'correct-reading': {
      if (job.readings.some((reading) => reading.id === act.reading.id))
        return refuse({ code: 'duplicate', subject: `reading:${act.reading.id}` });
      if (!context.knows.instrument(act.reading.instrumentId))
        return refuse({ code: 'unknown-reference', path: 'reading.instrumentId', value: act.reading.instrumentId });
      const { replaces } = act.reading;
      if (act.kind === 'correct-reading' ? !job.readings.some((reading) => reading.id === replaces) : replaces !== null)
        return refuse({ code: 'unknown-reference', path: 'reading.replaces', value: replaces ?? '' });
      if (job.readings.some((reading) => reading.id === replaces && reading.struckAt !== null))
        return refuse({ code: 'stale', subject: `reading:${replaces}`, basedOn: 0, current: job.revision });
      const kept = job.readings.map((reading) =>
        reading.id === replaces && reading.struckAt === null ? { ...reading, struckAt: context.at } : reading,
      );
      const fitting = act.reading.phase === 'after' ? fittingOf(job.choice) : null;
      return done({ readings: [...kept, { ...act.reading, ...signed, struckAt: null, fitting }] });
    }
    case 'strike-reading':
    case 'restore-reading': {
      if (!job.readings.some((reading) => reading.id === act.id))
        return refuse({ code: 'not-found', subject: `reading:${act.id}` });
      const struckAt = act.kind === 'strike-reading' ? context.at : null;
      return done({
        readings: job.readings.map((reading) => (reading.id === act.id ? { ...reading, struckAt } : reading)),
      });
    }
    case 'put-probe':
      return putById('probes', { ...act.probe, ...signed, version: revision }, act.basedOn);
    case 'drop-probe':
      return dropById('probes', act.probeId, act.basedOn);
    case 'put-log':
      return putById('logs', { ...act.log, ...signed, version: revision }, act.basedOn);
    case 'drop-log':
      return dropById('logs', act.logId, act.basedOn);
    case 'set-finding':
      if (act.finding !== null && act.finding.faultId !== null && !context.knows.fault(act.finding.faultId))
        return refuse({ code: 'unknown-reference', path: 'finding.faultId', value: act.finding.faultId });
      if (act.finding?.alsoFaultId != null && !isSecondFault(act.finding, context))
        return refuse({ code: 'unknown-reference', path: 'finding.alsoFaultId', value: act.finding.alsoFaultId });
      return (
        stale(act.basedOn, job.finding?.version ?? 0) ??
        done({
          finding:
            act.finding === null
              ? null
              : { ...act.finding, alsoFaultId: act.finding.alsoFaultId ?? null, ...signed, version: revision },
        })
      );
    case 'set-choice':
      if (act.choice?.kind === 'replace' && (act.choice.modelId === null || !context.knows.supply(act.choice.modelId)))
        return refuse({ code: 'unknown-reference', path: 'choice.modelId', value: act.choice.modelId ?? '' });
      return (
        stale(act.basedOn, job.choice?.version ?? 0) ??
        done({
          ...laidAsideFor(job, act.choice),
          choice: act.choice === null ? null : { ...act.choice, ...signed, version: revision },
        })
      );
    case 'put-cable': {
      const known = inletIds();
      const lost = act.cable.plugs.find((plug) => plug.inletId !== null && !known.has(plug.inletId));
      if (lost !== undefined)
        return refuse({ code: 'unknown-reference', path: 'cable.plugs', value: lost.inletId ?? '' });
      const taken = new Set(
        job.cables
          .filter((cable) => cable.id !== act.cable.id)
          .flatMap((cable) => cable.plugs.flatMap((plug) => plug.inletId ?? [])),
      );
      const own = act.cable.plugs.flatMap((plug) => plug.inletId ?? []);
      const twice = own.find((id, index) => taken.has(id) || own.indexOf(id) !== index);
      if (twice !== undefined) return refuse({ code: 'duplicate', subject: `inlet:${twice}` });
      return putById('cables', { ...act.cable, version: revision }, act.basedOn);
    }
    case 'drop-cable':
      return dropById('cables', act.cableId, act.basedOn);
    case 'swap-inlets': {
      const { inletId: first, otherInletId: second } = act;
      const cable = job.cables.find(({ id }) => id === act.cableId);
      if (cable === undefined) return refuse({ code: 'not-found', subject });
      const old = stale(act.basedOn, cable.version);
      if (old !== null) return old;
      if (cableAt([cable], first) === null || first === second)
        return refuse({ code: 'unknown-reference', path: 'inletId', value: first });
      if (!inletIds().has(second) || (cableAt(job.cables, second)?.id ?? null) !== act.otherCableId)
        return refuse({ code: 'unknown-reference', path: 'otherInletId', value: second });
      const exchanged = (inletId: string | null) => (inletId === first ? second : inletId === second ? first : inletId);
      return done({
        cables: job.cables.map((one) =>
          one.plugs.some(({ inletId }) => inletId !== exchanged(inletId))
            ? {
                ...one,
                plugs: one.plugs.map((plug) => ({ ...plug, inletId: exchanged(plug.inletId) })),
                likely: undefined,
                version: revision,
              }
            : one,
        ),
      });
    }
    case 'put-seat':
      if (!inletIds().has(act.seat.inletId))
        return refuse({ code: 'unknown-reference', path: 'seat.inletId', value: act.seat.inletId });
      return put(
        'seats',
        {
          ...act.seat,
          piece: act.seat.piece ?? '',
          ...signed,
          version: revision,
          rechecked: null,
          inletKind: inletKindOf(job, act.seat.inletId),
        },
        act.basedOn,
        ({ inletId }) => inletId === act.seat.inletId,
      );
    case 'put-pin':
      if (!inletIds().has(act.pin.inletId))
        return refuse({ code: 'unknown-reference', path: 'pin.inletId', value: act.pin.inletId });
      return put(
        'pins',
        { ...act.pin, ...signed, version: revision },
        act.basedOn,
        ({ inletId }) => inletId === act.pin.inletId,
      );
    case 'drop-pin':
      return drop('pins', act.basedOn, ({ inletId }) => inletId === act.inletId);
    case 'recheck-seats':
      return done({
        seats: job.seats.map((seat) => (act.inletIds.includes(seat.inletId) ? { ...seat, rechecked: signed } : seat)),
      });
    case 'tick-step':
      // Two people ticking the same step mean the same.
      return job.steps.some((step) => step.stepId === act.stepId)
        ? done({})
        : done({ steps: [...job.steps, { stepId: act.stepId, ...signed }] });
    case 'untick-step':
      return done({ steps: job.steps.filter((step) => step.stepId !== act.stepId) });
    case 'order-steps':
      return put(
        'stepOrders',
        { phase: act.phase, stepIds: act.stepIds, version: revision },
        act.basedOn,
        ({ phase }) => phase === act.phase,
      );
    case 'lay-cable': {
      const fitting = fittingOf(job.choice);
      return put(
        'laidWays',
        { fitting, cable: act.cable, way: act.way, version: revision, ...signed },
        act.basedOn,
        (laid) => laid.cable === act.cable && laid.fitting === fitting,
      );
    }
    case 'put-lead':
      return putById('leads', { ...act.lead, ...signed, version: revision }, act.basedOn);
    case 'drop-lead':
      return dropById('leads', act.leadId, act.basedOn);
    case 'put-note':
      return putById('notes', { ...act.note, ...signed, version: revision }, act.basedOn);
    case 'drop-note':
      return dropById('notes', act.noteId, act.basedOn);
    case 'mark-leads': {
      const marked = new Set(act.leadIds);
      return done({
        leads: job.leads.map((lead) =>
          marked.has(lead.id)
            ? { ...lead, ...(lead.state === act.state ? {} : { state: act.state, ...signed }), version: revision }
            : lead,
        ),
      });
    }
    case 'note-proof': {
      const { item, holds, note } = act;
      const of = proofSubject(job, item);
      return put(
        'proofs',
        { item, subject: of, version: revision, holds, note, ...signed },
        act.basedOn,
        (proof) => proof.item === item && proof.subject === of,
      );
    }
    case 'drop-proof': {
      const standing = standingProof(job, act.item);
      return drop('proofs', act.basedOn, (proof) => proof === standing);
    }
    case 'sign-off': {
      if (job.signOffs.some((item) => item.point === act.point))
        return refuse({ code: 'duplicate', subject: `sign-off:${act.point}` });
      const item: SignOff = { id: act.id, point: act.point, reason: act.reason, ...signed };
      return done({ signOffs: [...job.signOffs, item] });
    }
    case 'withdraw-sign-off':
      if (!job.signOffs.some((item) => item.id === act.id))
        return refuse({ code: 'not-found', subject: `sign-off:${act.id}` });
      return done({ signOffs: job.signOffs.filter((item) => item.id !== act.id) });
    case 'close': {
      const open = context.unansweredPoints(job);
      if (open > 0) return refuse({ code: 'open-points', count: open });
      return stale(act.basedOn, job.stateVersion) ?? done({ state: 'closed', stateVersion: revision, closed: signed });
    }
    case 'reopen':
      return (
        stale(act.basedOn, job.stateVersion) ??
        done({ state: 'open', stateVersion: revision, closed: null, putAway: null })
      );
    case 'put-away':
      return (
        stale(act.basedOn, job.stateVersion) ??
        done({ state: 'away', stateVersion: revision, putAway: { ...signed, reason: act.reason } })
      );
  }
}
