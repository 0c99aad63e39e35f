import { boundToBe } from '../bound-to-be.ts';
import {
  barring,
  machineRuns,
  nearMinutes,
  rankChecks,
  worthOf,
  type Bench,
  type Interlock,
  type Model,
  type NextCheck,
  worthMinutes,
} from '../diagnose/index.ts';
import type { Condition, Subject, Verdict } from '../measure/index.ts';
import type { SourcedObservation } from './observations.ts';

/** Why a reading is the next one. */
export type NextReadingReason =
  /** Without it nothing else can be there: standby, on a machine that shows no life. */
  | { readonly kind: 'first' }
  /** It answers a check that nothing answers yet. */
  | { readonly kind: 'tells'; readonly checkId: string; readonly savesMinutes: number }
  /** It says of a rail what its neighbours have said of theirs. */
  | { readonly kind: 'completes'; readonly checkId: string; readonly savesMinutes: number }
  /** What was read cannot tell; so many more with the same instrument would, null where only another one would. */
  | {
      readonly kind: 'settles';
      readonly checkId: string;
      readonly repeats: number | null;
      readonly savesMinutes: number;
    }
  /** Nothing hangs on it; it stands in the record of before and after. */
  | { readonly kind: 'record' };

export interface NextReading {
  readonly subject: Subject;
  readonly condition: Condition;
  readonly why: NextReadingReason;
}

/** What the choice stands on: the search as it is, and what was read before anything was changed. */
export interface ReadingFooting {
  readonly model: Model;
  readonly observations: readonly SourcedObservation[];
  readonly bench: Bench;
  readonly interlocks: readonly Interlock[];
  readonly nextChecks: readonly NextCheck[];
  readonly verdicts: readonly Verdict[];
}

const mainRails = ['+12', '+5', '+3.3'] as const;

/** Where the readings of a check are taken; a machine that does not run is read off load. */
function placesOf(checkId: string, runs: boolean | null): readonly Pick<NextReading, 'subject' | 'condition'>[] {
  const light: Condition = runs === false ? 'off-load' : 'idle';
  const railsAt = (condition: Condition) => mainRails.map((subject) => ({ subject, condition }));
  switch (checkId) {
    case 'm-standby':
      return [{ subject: '+5sb', condition: light }];
    case 'm-rails-off':
      return railsAt(light);
    case 'm-rails-work':
      return railsAt('work');
    case 'm-steady':
      return runs === false ? [] : (['idle', 'work'] as const).map((condition) => ({ subject: '+12', condition }));
    case 'm-pg':
      return [{ subject: 'power-good', condition: light }];
    default:
      return [];
  }
}
const measured = ['m-standby', 'm-rails-off', 'm-rails-work', 'm-steady', 'm-pg'] as const;

/** A verdict on one place; a rail read off load stands for idle and the other way round. */
const verdictAt = (verdicts: readonly Verdict[], { subject, condition }: Pick<NextReading, 'subject' | 'condition'>) =>
  verdicts.find(
    (verdict) =>
      verdict.subject === subject &&
      (verdict.condition === condition || (condition !== 'work' && verdict.condition !== 'work')),
  );

/** What knowing the answer to a check is worth, in minutes, were it not answered yet; null where it is not offered. */
function worthUnanswered({ model, observations, bench, interlocks }: ReadingFooting, checkId: string): number | null {
  const without = observations.filter((observation) => observation.checkId !== checkId);
  const found = rankChecks(model, without, bench, interlocks).find((check) => check.checkId === checkId);
  return found === undefined ? null : worthOf(found);
}

/** The reading that a check would be answered or settled by, with what that is worth. */
function readingFor(footing: ReadingFooting, checkId: string, runs: boolean | null): NextReading | null {
  const { verdicts, nextChecks, observations } = footing;
  const places = placesOf(checkId, runs);
  const unread = places.find((place) => verdictAt(verdicts, place) === undefined);
  const offered = nextChecks.find((check) => check.checkId === checkId);
  if (offered !== undefined) {
    const place = unread ?? places.at(-1);
    return place === undefined ? null : { ...place, why: { kind: 'tells', checkId, savesMinutes: worthOf(offered) } };
  }
  const derived = observations.find((observation) => observation.checkId === checkId);
  if (derived?.source !== 'measure') return null;
  const doubtful = places
    .map((place) => ({ place, verdict: verdictAt(verdicts, place) }))
    .find(({ verdict }) => verdict?.word === 'cannot-tell' && verdict.reason !== 'not-started');
  if (doubtful === undefined && unread === undefined) return null;
  const worth = worthUnanswered(footing, checkId);
  if (worth === null) return null;
  if (doubtful?.verdict !== undefined)
    return {
      subject: doubtful.place.subject,
      condition: doubtful.verdict.condition,
      why: { kind: 'settles', checkId, repeats: doubtful.verdict.settlingRepeats, savesMinutes: worth },
    };
  // Of three rails that answer together, each left unread keeps a third of what the answer is worth.
  const open = places.filter((place) => verdictAt(verdicts, place) === undefined).length;
  return unread === undefined
    ? null
    : { ...unread, why: { kind: 'completes', checkId, savesMinutes: (worth * open) / places.length } };
}

/** Its voltage was read or noted, or its light is lit. */
const standbyIsKnown = ({ verdicts, observations }: ReadingFooting): boolean =>
  verdicts.some(({ subject }) => subject === '+5sb') ||
  observations.some(
    ({ checkId, outcomeId }) => checkId === 'm-standby' || (checkId === 'look-standby-light' && outcomeId === 'lit'),
  );

const saves = ({ why }: NextReading): number => (why.kind === 'record' || why.kind === 'first' ? 0 : why.savesMinutes);

/**
 * The reading that would bring the search on most, by what the answer of its check is worth; where nothing hangs on
 * any,
 * the next of those that the record of before and after shows; null when all are there, and while nothing may be
 * powered.
 */
export function nextReadingOf(footing: ReadingFooting): NextReading | null {
  if (barring(footing.interlocks, 'supply') !== null) return null;
  const runs = machineRuns(footing.model, footing.observations);
  if (runs === false && !standbyIsKnown(footing))
    return { ...boundToBe(placesOf('m-standby', runs)[0], 'place for standby'), why: { kind: 'first' } };
  const found = measured
    .flatMap((checkId) => readingFor(footing, checkId, runs) ?? [])
    .filter((reading) => saves(reading) >= worthMinutes);
  const most = Math.max(...found.map(saves));
  // Between near equals as the search has them: the safer first, then the quicker.
  const rank = ({ why }: NextReading) =>
    why.kind === 'record' || why.kind === 'first'
      ? 0
      : footing.nextChecks.findIndex(({ checkId }) => checkId === why.checkId);
  const [best] = found.filter((reading) => most - saves(reading) <= nearMinutes).sort((a, b) => rank(a) - rank(b));
  return best ?? recordReading(footing.verdicts, runs);
}

/**
 * The next reading that the record of before and after shows: main rails light and at work, standby on a dead machine.
 */
export function recordReading(verdicts: readonly Verdict[], runs: boolean | null): NextReading | null {
  const places =
    runs === false
      ? placesOf('m-standby', runs)
      : [...placesOf('m-rails-off', runs), ...placesOf('m-rails-work', runs)];
  const place = places.find((candidate) => verdictAt(verdicts, candidate) === undefined);
  return place === undefined ? null : { ...place, why: { kind: 'record' } };
}
