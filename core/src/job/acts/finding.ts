import type { ActContext } from '../act.ts';
import { fittingOf, laidAsideFor } from '../fitting.ts';
import type { NotedOutcome } from '../job.ts';
import { standingOutcome } from '../subject.ts';
import { refuse, type ActOf, type Doers, type Doing } from './doing.ts';

/** A second fault is one that the knowledge has, beside a first that is another. */
const isSecondFault = (
  { kind, faultId, alsoFaultId }: NonNullable<ActOf<'set-finding'>['finding']>,
  knows: ActContext['knows'],
): boolean =>
  kind === 'fault' && faultId !== null && alsoFaultId != null && alsoFaultId !== faultId && knows.fault(alsoFaultId);

/** A check has one outcome that stands; the one before is taken back by it. */
function noteOutcome(act: ActOf<'note-outcome'>, on: Doing) {
  const { id, checkId, outcomeId, instead, instrumentId = null } = act;
  const { job, knows } = on;
  if (job.outcomes.some((outcome) => outcome.id === id)) return refuse({ code: 'duplicate', subject: `outcome:${id}` });
  if (!knows.outcome(checkId, outcomeId))
    return refuse({ code: 'unknown-reference', path: 'outcomeId', value: outcomeId });
  if (instead !== undefined && instead !== standingOutcome(job, checkId))
    return refuse({ code: 'stale', subject: `check:${checkId}`, basedOn: 0, current: job.revision });
  if (instrumentId !== null && !knows.instrument(instrumentId))
    return refuse({ code: 'unknown-reference', path: 'instrumentId', value: instrumentId });
  const noted: NotedOutcome = { id, checkId, outcomeId, instrumentId, takenBackAt: null, ...on.signed };
  const earlier = job.outcomes.map((outcome) =>
    outcome.checkId === checkId && outcome.takenBackAt === null ? { ...outcome, takenBackAt: on.at } : outcome,
  );
  return on.done({ outcomes: [...earlier, noted] });
}

function takeBackOutcome({ id }: ActOf<'take-back-outcome'>, on: Doing) {
  const { outcomes } = on.job;
  if (!outcomes.some((outcome) => outcome.id === id)) return refuse({ code: 'not-found', subject: `outcome:${id}` });
  return on.done({
    outcomes: outcomes.map((outcome) =>
      outcome.id === id && outcome.takenBackAt === null ? { ...outcome, takenBackAt: on.at } : outcome,
    ),
  });
}

/** A correction strikes the reading that it replaces, and replaces only what stands. */
function takeReading({ kind, reading }: ActOf<'take-reading' | 'correct-reading'>, on: Doing) {
  const { readings, choice, revision } = on.job;
  const { id, instrumentId, replaces } = reading;
  if (readings.some((one) => one.id === id)) return refuse({ code: 'duplicate', subject: `reading:${id}` });
  if (!on.knows.instrument(instrumentId))
    return refuse({ code: 'unknown-reference', path: 'reading.instrumentId', value: instrumentId });
  if (kind === 'correct-reading' ? !readings.some((one) => one.id === replaces) : replaces !== null)
    return refuse({ code: 'unknown-reference', path: 'reading.replaces', value: replaces ?? '' });
  if (readings.some((one) => one.id === replaces && one.struckAt !== null))
    return refuse({ code: 'stale', subject: `reading:${replaces}`, basedOn: 0, current: revision });
  const kept = readings.map((one) =>
    one.id === replaces && one.struckAt === null ? { ...one, struckAt: on.at } : one,
  );
  const fitting = reading.phase === 'after' ? fittingOf(choice) : null;
  return on.done({ readings: [...kept, { ...reading, ...on.signed, struckAt: null, fitting }] });
}

function strikeReading({ kind, id }: ActOf<'strike-reading' | 'restore-reading'>, on: Doing) {
  const { readings } = on.job;
  if (!readings.some((reading) => reading.id === id)) return refuse({ code: 'not-found', subject: `reading:${id}` });
  const struckAt = kind === 'strike-reading' ? on.at : null;
  return on.done({ readings: readings.map((reading) => (reading.id === id ? { ...reading, struckAt } : reading)) });
}

function setFinding({ finding, basedOn }: ActOf<'set-finding'>, on: Doing) {
  const unknown = (path: string, value: string) => refuse({ code: 'unknown-reference', path, value });
  if (finding !== null && finding.faultId !== null && !on.knows.fault(finding.faultId))
    return unknown('finding.faultId', finding.faultId);
  if (finding?.alsoFaultId != null && !isSecondFault(finding, on.knows))
    return unknown('finding.alsoFaultId', finding.alsoFaultId);
  const signed = { ...on.signed, version: on.revision };
  const set = finding === null ? null : { ...finding, alsoFaultId: finding.alsoFaultId ?? null, ...signed };
  return on.stale(basedOn, on.job.finding?.version ?? 0) ?? on.done({ finding: set });
}

/** What was ticked for another choice is laid aside, and comes back with it. */
function setChoice({ choice, basedOn }: ActOf<'set-choice'>, on: Doing) {
  if (choice?.kind === 'replace' && (choice.modelId === null || !on.knows.supply(choice.modelId)))
    return refuse({ code: 'unknown-reference', path: 'choice.modelId', value: choice.modelId ?? '' });
  const set = choice === null ? null : { ...choice, ...on.signed, version: on.revision };
  return on.stale(basedOn, on.job.choice?.version ?? 0) ?? on.done({ ...laidAsideFor(on.job, choice), choice: set });
}

/** What was looked at and measured, what was found, and what is to be done about it. */
export const findingActs: Doers<
  | 'note-outcome'
  | 'take-back-outcome'
  | 'take-reading'
  | 'correct-reading'
  | 'strike-reading'
  | 'restore-reading'
  | 'put-probe'
  | 'drop-probe'
  | 'put-log'
  | 'drop-log'
  | 'set-finding'
  | 'set-choice'
> = {
  'note-outcome': noteOutcome,
  'take-back-outcome': takeBackOutcome,
  'take-reading': takeReading,
  'correct-reading': takeReading,
  'strike-reading': strikeReading,
  'restore-reading': strikeReading,
  'put-probe': ({ probe, basedOn }, on) =>
    on.putById('probes', { ...probe, ...on.signed, version: on.revision }, basedOn),
  'drop-probe': ({ probeId, basedOn }, on) => on.dropById('probes', probeId, basedOn),
  'put-log': ({ log, basedOn }, on) => on.putById('logs', { ...log, ...on.signed, version: on.revision }, basedOn),
  'drop-log': ({ logId, basedOn }, on) => on.dropById('logs', logId, basedOn),
  'set-finding': setFinding,
  'set-choice': setChoice,
};
