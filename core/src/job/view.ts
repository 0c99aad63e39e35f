import {
  diagnose,
  interlocksOf,
  modelOf,
  standingInterlock,
  triedCureId,
  weigh,
  type About,
  type Diagnosis,
  type Interlock,
} from '../diagnose/index.ts';
import type { CandidateRow, SupplyModel } from '../supply/index.ts';
import { bareVerdict, type BareVerdict } from './bare-supply.ts';
import { cablingOf, type Cabling } from './cabling.ts';
import { dangersInWords, type DangerInWords } from './danger-words.ts';
import { cablingSigns, measuredSigns, selectorSigns } from './dangers.ts';
import type { Job } from './job.ts';
import { loadLinesOf, type LoadLines } from './load-lines.ts';
import {
  faultSourceOf,
  measureResult,
  observationsOf,
  type FaultSource,
  type MeasureResult,
  type SourcedObservation,
} from './observations.ts';
import { nextReadingOf, type NextReading } from './next-reading.ts';
import { openPointsOf, type OpenPoint } from './open-points.ts';
import type { Shop } from './shop.ts';
import { candidatesOf, loadView, type LoadView } from './sizing.ts';
import { standingOf, type Standing } from './standing.ts';
import { stationsOf, type Station } from './stations.ts';

/** Everything that follows from a job and its shop. */
export interface JobView extends Diagnosis {
  readonly before: MeasureResult;
  readonly after: MeasureResult;
  readonly lines: { readonly before: LoadLines; readonly after: LoadLines };
  readonly observations: readonly SourcedObservation[];
  /** Checks answered with something this knowledge does not know; they carry no weight. */
  readonly notCounted: readonly string[];
  /** What to measure next before anything is changed; null when nothing is left to read. */
  readonly nextReading: NextReading | null;
  /** What the client's words speak of and nobody asked about: until then nothing is offered that might power it. */
  readonly saidDangers: readonly DangerInWords[];
  /** What the machine has not, by its parts: faults and checks of it are left out. */
  readonly absent: readonly About[];
  /** 1, and one more for each repair that changed nothing. */
  readonly round: number;
  readonly load: LoadView;
  /** Empty too while they are still being judged elsewhere. */
  readonly candidates: readonly CandidateRow[];
  /** How the present supply stands, load and readings together. */
  readonly standing: Standing;
  /** The verdict on a supply that came by itself; null for a machine. */
  readonly bareVerdict: BareVerdict | null;
  readonly chosen: SupplyModel | null;
  readonly cabling: Cabling;
  readonly openPoints: readonly OpenPoint[];
  readonly stations: readonly Station[];
}

/** A supply by itself is read rail by rail, off load; nothing is while a danger stands. */
function nextOfBare(bare: BareVerdict, interlocks: readonly Interlock[]): NextReading | null {
  if (bare.word !== 'cannot-tell' || standingInterlock(interlocks) !== null) return null;
  const rails = bare.missing.flatMap((item) =>
    'subject' in item ? [item.subject] : item.code === 'outlet' ? ['+5sb' as const] : [],
  );
  const subject = rails[0];
  return subject === undefined ? null : { subject, condition: 'off-load', why: { kind: 'record' } };
}

/** The fault part: verdicts, what was observed, who is suspected, what to check next. */
export function faultView(
  job: FaultSource,
  shop: Shop,
  load: LoadView,
): Pick<
  JobView,
  'before' | 'after' | 'chosen' | 'observations' | 'notCounted' | 'nextReading' | keyof Diagnosis | 'absent' | 'round'
> {
  const before = measureResult(job, 'before', job.supply?.label.guide ?? '2.x', shop.instruments);
  const lines = loadLinesOf(job, 'before', before.steadiness, shop.instruments, before.guide);
  const observations = observationsOf(job, before, lines, load.presentAssessment);
  const chosen = shop.supplies.find(({ id }) => id === job.choice?.modelId) ?? null;
  const after = measureResult(job, 'after', chosen?.label.guide ?? job.supply?.label.guide ?? '2.x', shop.instruments);
  const model = modelOf(shop.model, job.parts);
  const { bench, stopProbability, mainsVolts } = shop.settings;
  const signs = [...measuredSigns(job, [before, after]), ...selectorSigns(job, mainsVolts)];
  const found = diagnose(model, observations, { bench, stopProbability, signs });
  return {
    before,
    after,
    chosen,
    observations,
    ...found,
    nextReading: nextReadingOf({
      model,
      observations,
      bench,
      interlocks: found.interlocks,
      nextChecks: found.nextChecks,
      verdicts: before.verdicts,
    }),
    notCounted: weigh(model, observations)
      .notCounted.filter(
        (observation) => observation.outcomeId !== 'unknown' || !model.checkIndex.has(observation.checkId),
      )
      .map((observation) => observation.checkId),
    absent: [...model.absent],
    round:
      1 +
      observations.filter(
        (observation) => triedCureId(observation.checkId) !== null && observation.outcomeId === 'same',
      ).length,
  };
}

/**
 * All of it. The parts may be given where they are already known, so that a change recomputes only what depends on it.
 */
export function viewJob(
  job: Job,
  shop: Shop,
  known: {
    readonly fault?: ReturnType<typeof faultView>;
    readonly load?: LoadView;
    readonly candidates?: readonly CandidateRow[];
  } = {},
): JobView {
  const load = known.load ?? loadView(job, shop);
  const fault = known.fault ?? faultView(faultSourceOf(job), shop, load);
  const candidates = known.candidates ?? candidatesOf(job, shop);
  const { after, chosen } = fault;
  const cabling = cablingOf(job, chosen, shop, load.parts);
  const faultsFound = [job.finding?.faultId, job.finding?.alsoFaultId].flatMap(
    (id) => shop.model.faults.find((candidate) => candidate.id === id) ?? [],
  );
  const plugged = cablingSigns(cabling);
  const interlocks =
    plugged.length === 0 ? fault.interlocks : [...fault.interlocks, ...interlocksOf(shop.model, [], plugged)];
  const bare = bareVerdict(job, fault.before.verdicts, shop.instruments);
  const openPoints = openPointsOf(job, faultsFound, cabling, after.verdicts, load.plannedAssessment, interlocks, bare);
  const lines = {
    before: loadLinesOf(job, 'before', fault.before.steadiness, shop.instruments, fault.before.guide),
    after: loadLinesOf(job, 'after', after.steadiness, shop.instruments, after.guide),
  };
  const standing = standingOf(
    job,
    { before: fault.before, lines, load },
    job.finding?.kind === 'fault' ? (faultsFound.find(({ cure }) => cure.id === 'replace-supply')?.id ?? null) : null,
    shop.instruments,
  );
  const saidDangers = dangersInWords(job, fault.observations);
  const worthReading = bare === null ? fault.nextReading : nextOfBare(bare, interlocks);
  const nextReading = saidDangers.length > 0 ? null : worthReading;
  const parts = {
    ...fault,
    nextReading,
    saidDangers,
    interlocks,
    lines,
    load,
    candidates,
    standing,
    bareVerdict: bare,
    cabling,
    openPoints,
  };
  return { ...parts, stations: stationsOf(job, parts) };
}
