import type { Verdict } from '../measure/index.ts';
import type { LoadFinding } from '../load/index.ts';
import type { ChoiceKind, FindingKind, Job } from './job.ts';
import type { BareVerdict } from './bare-supply.ts';
import { isWrongConnector, unanswered } from './open-points.ts';
import type { JobView } from './view.ts';

export type StationId = 'intake' | 'fault' | 'measure' | 'load' | 'replacement' | 'cables' | 'hand-over';
export const stationIds = [
  'intake',
  'fault',
  'measure',
  'load',
  'replacement',
  'cables',
  'hand-over',
] as const satisfies readonly StationId[];

/** `untouched`, `in-hand`, `needs-you` (something is wrong or undecided), `settled`. */
export type StationState = 'untouched' | 'in-hand' | 'needs-you' | 'settled';
export const stationStates = [
  'untouched',
  'in-hand',
  'needs-you',
  'settled',
] as const satisfies readonly StationState[];

/** A station's result in one line, as data. */
export type StationLine =
  | { readonly code: 'not-started' }
  | { readonly code: 'complaint'; readonly outcomeId: string | null; readonly parts: number }
  | { readonly code: 'suspect'; readonly faultId: string; readonly probability: number; readonly proved: boolean }
  | { readonly code: 'found'; readonly kind: FindingKind; readonly faultId: string | null }
  | { readonly code: 'rail'; readonly verdict: Verdict }
  | { readonly code: 'rail-sags'; readonly rail: string; readonly workVolts: number }
  | { readonly code: 'all-pass'; readonly count: number }
  | { readonly code: 'load-no-supply'; readonly watts: number }
  | {
      readonly code: 'load';
      readonly watts: number;
      readonly ratingWatts: number;
      readonly deciding: LoadFinding | null;
      readonly word: string;
    }
  | { readonly code: 'candidates'; readonly fitting: number; readonly onShelf: number }
  | { readonly code: 'chosen'; readonly modelId: string | null; readonly kind: ChoiceKind }
  | { readonly code: 'recorded'; readonly cables: number }
  | { readonly code: 'seated'; readonly seated: number; readonly all: number }
  | { readonly code: 'open'; readonly count: number }
  | { readonly code: 'ready' }
  | { readonly code: 'closed' }
  /** A supply by itself has no such station. */
  | { readonly code: 'not-needed' }
  | { readonly code: 'bare-supply'; readonly ratingWatts: number }
  | { readonly code: 'bare'; readonly word: BareVerdict['word']; readonly loaded: boolean };

export interface Station {
  readonly id: StationId;
  readonly state: StationState;
  readonly line: StationLine;
}

type Parts = Omit<JobView, 'stations'>;
const untouched = (id: StationId): Station => ({ id, state: 'untouched', line: { code: 'not-started' } });

function intake(job: Job): Station {
  const { sheet } = job;
  if (sheet.button === null && job.parts.length === 0 && job.supply === null) return untouched('intake');
  const complete = sheet.button !== null && job.parts.length > 0 && job.supply !== null;
  return {
    id: 'intake',
    state: complete ? 'settled' : 'in-hand',
    line: { code: 'complaint', outcomeId: sheet.button, parts: job.parts.length },
  };
}

function fault(job: Job, parts: Parts): Station {
  if (job.finding !== null) {
    const state = job.finding.kind === 'fault' && !job.finding.confirmed ? 'needs-you' : 'settled';
    return { id: 'fault', state, line: { code: 'found', kind: job.finding.kind, faultId: job.finding.faultId } };
  }
  const leader = parts.suspects[0];
  if (parts.conclusion.state === 'untouched' || leader === undefined) return untouched('fault');
  const proved =
    parts.conclusion.state === 'offered' || parts.conclusion.state === 'well' || parts.conclusion.state === 'outside';
  return {
    id: 'fault',
    state: proved ? 'needs-you' : 'in-hand',
    line: { code: 'suspect', faultId: leader.faultId, probability: leader.probability, proved },
  };
}

function measure(parts: Parts): Station {
  const { verdicts, steadiness } = parts.after.verdicts.length > 0 ? parts.after : parts.before;
  if (verdicts.length === 0) return untouched('measure');
  const failed = verdicts.find((verdict) => verdict.word === 'fail');
  const sags = steadiness.find((item) => item.word === 'sags');
  if (sags !== undefined && sags.workVolts !== null)
    return {
      id: 'measure',
      state: 'needs-you',
      line: { code: 'rail-sags', rail: sags.rail, workVolts: sags.workVolts },
    };
  if (failed !== undefined) return { id: 'measure', state: 'needs-you', line: { code: 'rail', verdict: failed } };
  const unclear =
    verdicts.find((verdict) => verdict.word === 'cannot-tell') ??
    verdicts.find((verdict) => verdict.word === 'marginal');
  if (unclear !== undefined) return { id: 'measure', state: 'in-hand', line: { code: 'rail', verdict: unclear } };
  return { id: 'measure', state: 'settled', line: { code: 'all-pass', count: verdicts.length } };
}

function load(job: Job, parts: Parts): Station {
  if (job.parts.length === 0) return untouched('load');
  const watts = parts.load.planned.sustainedWatts;
  const assessment = parts.load.plannedAssessment;
  if (job.supply === null || assessment === null)
    return { id: 'load', state: 'in-hand', line: { code: 'load-no-supply', watts } };
  const answered = job.choice !== null;
  const state: StationState =
    assessment.word === 'enough' || answered ? 'settled' : assessment.word === 'cannot-tell' ? 'in-hand' : 'needs-you';
  return {
    id: 'load',
    state,
    line: {
      code: 'load',
      watts,
      ratingWatts: job.supply.label.ratingWatts,
      deciding: assessment.deciding,
      word: assessment.word,
    },
  };
}

function replacement(job: Job, parts: Parts): Station {
  if (job.choice !== null)
    return {
      id: 'replacement',
      state: 'settled',
      line: { code: 'chosen', modelId: job.choice.modelId, kind: job.choice.kind },
    };
  if (parts.candidates.length === 0) return untouched('replacement');
  const fitting = parts.candidates.filter((candidate) => candidate.fits);
  const asked = parts.openPoints.some((point) => point.code === 'no-choice');
  return {
    id: 'replacement',
    state: asked ? 'needs-you' : 'untouched',
    line: {
      code: 'candidates',
      fitting: fitting.length,
      onShelf: fitting.filter((candidate) => candidate.model.onShelf > 0).length,
    },
  };
}

function cables(job: Job, parts: Parts): Station {
  const { basis, rows } = parts.cabling;
  if (basis === 'none') return untouched('cables');
  const seated = rows.filter((row) => row.state === 'seated').length;
  const all = rows.filter((row) => row.state !== 'stays').length;
  const recorded = { code: 'recorded', cables: job.cables.length } as const;
  if (seated === 0 && job.choice === null) return { id: 'cables', state: 'in-hand', line: recorded };
  if (all === 0) return { id: 'cables', state: 'settled', line: recorded };
  const open = unanswered(parts.openPoints).some(isWrongConnector);
  return {
    id: 'cables',
    state: open ? 'needs-you' : seated === all ? 'settled' : 'in-hand',
    line: { code: 'seated', seated, all },
  };
}

function handOver(job: Job, parts: Parts, begun: boolean): Station {
  if (job.state === 'closed') return { id: 'hand-over', state: 'settled', line: { code: 'closed' } };
  if (!begun) return untouched('hand-over');
  const open = unanswered(parts.openPoints).length;
  return { id: 'hand-over', state: 'in-hand', line: open > 0 ? { code: 'open', count: open } : { code: 'ready' } };
}

/** Of a supply by itself only what it is, what it reads, and what becomes of it. */
function bareStations(job: Job, parts: Parts, bare: BareVerdict): Station[] {
  const read = parts.before.verdicts.length > 0;
  const notNeeded = (id: StationId): Station => ({ id, state: 'untouched', line: { code: 'not-needed' } });
  const state: StationState = bare.word === 'good' ? 'settled' : bare.word === 'failed' ? 'needs-you' : 'in-hand';
  return [
    job.supply === null
      ? untouched('intake')
      : { id: 'intake', state: 'settled', line: { code: 'bare-supply', ratingWatts: job.supply.label.ratingWatts } },
    notNeeded('fault'),
    read || bare.word === 'failed'
      ? {
          id: 'measure',
          state,
          line: { code: 'bare', word: bare.word, loaded: bare.word === 'good' && bare.loaded },
        }
      : untouched('measure'),
    notNeeded('load'),
    notNeeded('replacement'),
    notNeeded('cables'),
    handOver(job, parts, read || job.sheet.oldSupply !== null),
  ];
}

/** The seven stations in the order of the work. */
export function stationsOf(job: Job, parts: Parts): Station[] {
  if (parts.bareVerdict !== null) return bareStations(job, parts, parts.bareVerdict);
  const list = [
    intake(job),
    fault(job, parts),
    measure(parts),
    load(job, parts),
    replacement(job, parts),
    cables(job, parts),
  ];
  return [...list, handOver(job, parts, job.finding !== null || job.choice !== null)];
}
