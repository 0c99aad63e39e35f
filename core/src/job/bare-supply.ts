import type { Instrument, Subject, Verdict } from '../measure/index.ts';
import { railNames, type RailName } from '../standards/index.ts';
import type { Job } from './job.ts';
import { tooHigh } from './dangers.ts';
import { convicting } from './standing.ts';

/** What a supply that came by itself still needs before anything can be said of it. */
export type BareMissing =
  | { readonly code: 'label' }
  /** Nothing came when it was started, and standby was not read: the outlet may be dead. */
  | { readonly code: 'outlet' }
  | { readonly code: 'read'; readonly subject: RailName }
  /** Read, and it cannot be told, or it failed once. */
  | { readonly code: 'again'; readonly subject: Subject };

/** The verdict on a supply that came without a machine. `loaded`: each main rail was read under load as well. */
export type BareVerdict =
  | { readonly word: 'failed'; readonly why: 'reading' | 'no-start'; readonly verdict: Verdict | null }
  | { readonly word: 'good'; readonly loaded: boolean; readonly marginal: boolean }
  | { readonly word: 'cannot-tell'; readonly missing: readonly BareMissing[] };

const mainRails: readonly RailName[] = ['+12', '+5', '+3.3'];

/** The rails that have to be read: those of its label, and where that names none, the main three and standby. */
function railsOf({ supply }: Pick<Job, 'supply'>): readonly RailName[] {
  const named = new Set(supply?.label.rails.map(({ rail }) => rail) ?? []);
  return named.size === 0 ? [...mainRails, '+5sb'] : railNames.filter((rail) => named.has(rail) && rail !== '-12');
}

/**
 * What the readings say of a supply that came by itself; null for a machine. It has failed where a reading convicts it
 * or is too high, or where it did not start although its standby is there. It is good only where every rail was read
 * and none is in doubt, and then only for the load at which it was read.
 */
export function bareVerdict(
  job: Pick<Job, 'sheet' | 'supply' | 'outcomes'>,
  verdicts: readonly Verdict[],
  instruments: readonly Instrument[],
): BareVerdict | null {
  if (!job.sheet.bareSupply) return null;
  // What is too high is not read again to be sure.
  const failed = verdicts.find(tooHigh) ?? convicting(verdicts, instruments);
  if (failed !== null) return { word: 'failed', why: 'reading', verdict: failed };
  const of = (rail: RailName) => verdicts.filter(({ subject }) => subject === rail);
  const start = job.outcomes.findLast(({ checkId, takenBackAt }) => checkId === 'm-offload' && takenBackAt === null);
  if (start !== undefined && start.outcomeId !== 'starts')
    return of('+5sb').some(({ word }) => word === 'pass' || word === 'marginal')
      ? { word: 'failed', why: 'no-start', verdict: null }
      : { word: 'cannot-tell', missing: [{ code: 'outlet' }] };
  const rails = railsOf(job);
  const unsure = verdicts.filter(({ word }) => word === 'fail' || word === 'cannot-tell');
  const missing: BareMissing[] = [
    ...(job.supply === null ? [{ code: 'label' as const }] : []),
    ...rails.filter((rail) => of(rail).length === 0).map((subject) => ({ code: 'read' as const, subject })),
    ...[...new Set(unsure.map(({ subject }) => subject))].map((subject) => ({ code: 'again' as const, subject })),
  ];
  if (missing.length > 0) return { word: 'cannot-tell', missing };
  const loaded = rails
    .filter((rail) => mainRails.includes(rail))
    .every((rail) => of(rail).some(({ condition }) => condition === 'work'));
  return { word: 'good', loaded, marginal: verdicts.some(({ word }) => word === 'marginal') };
}

/** The words on a supply's label that leaves the bench: what became of it, and why. */
export interface SupplyMark {
  readonly name: string;
  readonly ratingWatts: number | null;
  readonly word: 'failed' | 'kept' | 'given-back' | 'unmarked';
  readonly note: string;
  readonly bare: BareVerdict | null;
}

/** The mark of the supply that came: the one taken out of a machine, or the one that came by itself. */
export const supplyMark = (job: Pick<Job, 'sheet' | 'supply'>, bare: BareVerdict | null): SupplyMark => ({
  name: job.supply?.name ?? '',
  ratingWatts: job.supply?.label.ratingWatts ?? null,
  word: job.sheet.oldSupply ?? 'unmarked',
  note: job.sheet.oldSupplyNote,
  bare,
});
