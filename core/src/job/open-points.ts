import type { Verdict } from '../measure/index.ts';
import type { LoadAssessment } from '../load/index.ts';
import type { Fault, Interlock } from '../diagnose/index.ts';
import type { BareVerdict } from './bare-supply.ts';
import type { Cabling } from './cabling.ts';
import type { Job, SignOff } from './job.ts';
import { openLeads } from './leads.ts';
import { pathOf, stagePoint } from './path.ts';
import { proofsAsked, standingProof } from './proofs.ts';
import { unpluggedInlets } from './steps.ts';

/** Something that stands between the job and its closing. */
export type OpenPointCode =
  | 'danger'
  | 'no-finding'
  | 'not-confirmed'
  | 'no-choice'
  | 'inlet-open'
  | 'inlet-wrong'
  | 'not-seated'
  | 'not-rechecked'
  | 'plan-breach'
  | 'plug-misfit'
  | 'found-adapter'
  | 'not-recorded'
  | 'take-out-open'
  | 'refit-open'
  | 'lead-out'
  | 'leads-unsaid'
  | 'not-shown'
  | 'shown-wrong'
  | 'no-readings-after'
  | 'old-supply-unmarked'
  | 'bare-unjudged'
  | 'failed-kept'
  | 'fails-after';

/** Points of an inlet without its right plug: the cables need somebody. */
const wrongConnectors: readonly OpenPointCode[] = [
  'inlet-open',
  'inlet-wrong',
  'plan-breach',
  'plug-misfit',
  'found-adapter',
];
export const isWrongConnector = ({ code }: { readonly code: OpenPointCode }): boolean => wrongConnectors.includes(code);
/** The same, and plugs that nobody looked at yet. */
export const isConnectorOpen = (point: { readonly code: OpenPointCode }): boolean =>
  isWrongConnector(point) || point.code === 'not-seated' || point.code === 'not-rechecked';

export interface OpenPoint {
  /** Stable key, such as `not-seated:INLET`; a sign-off names it. */
  readonly key: string;
  readonly code: OpenPointCode;
  /** Inlet label, the rail that fails, what is dangerous, or what was to be shown. */
  readonly subject: string | null;
  readonly signOff: SignOff | null;
}

type AddPoint = (code: OpenPointCode, subject: string | null, id?: string) => void;

/** What is open of a supply that came by itself. */
function addBare(add: AddPoint, job: Job, bare: BareVerdict): void {
  if (bare.word === 'cannot-tell') add('bare-unjudged', String(bare.missing.length));
  if (job.sheet.oldSupply === null) add('old-supply-unmarked', 'bare');
  if (bare.word === 'failed' && job.sheet.oldSupply === 'kept') add('failed-kept', null);
}

/** What is open of connectors: not plugged, not looked at, or not as it may stay. */
function addConnectors(add: AddPoint, job: Job, cabling: Cabling): void {
  for (const row of cabling.rows) {
    if (row.state === 'open') add('inlet-open', row.label, row.inletId);
    if (row.state === 'wrong') add('inlet-wrong', row.label, row.inletId);
    if (row.state === 'to-seat') add('not-seated', row.label, row.inletId);
  }
  for (const row of cabling.rows)
    if (row.pinned && row.state !== 'wrong' && row.breaches.length > 0) add('plan-breach', row.label, row.inletId);
  // Tying up undoes what was seated; it is looked at once more, after the last connector.
  const seated = cabling.rows.filter((row) => row.state === 'seated');
  if (
    seated.length > 0 &&
    seated.some((row) => row.seat?.rechecked == null) &&
    cabling.rows.every((row) => row.state !== 'to-seat')
  )
    add('not-rechecked', null);
  // An adapter that must not stay is one until it was pulled out.
  const pulled = unpluggedInlets(job);
  for (const { harm, inletId } of cabling.misfits) {
    const code = harm === null || harm === 'no-fit' ? 'plug-misfit' : 'found-adapter';
    if (code === 'plug-misfit' || !pulled.has(inletId))
      add(code, cabling.rows.find((row) => row.inletId === inletId)?.label ?? null, inletId);
  }
}

/** What is open of the supply that went in, and of the one that came out. */
function addAfter(add: AddPoint, job: Job, after: readonly Verdict[]): void {
  // A job that was closed before more was asked is not opened by it again.
  const missing =
    job.state === 'open' ? notPassed(after) : after.some(({ condition }) => condition === 'work') ? [] : ['work'];
  if (missing.length > 0) add('no-readings-after', missing.join(', '));
  if (job.state === 'open' && job.sheet.oldSupply === null) add('old-supply-unmarked', null);
  for (const verdict of after)
    if (verdict.word === 'fail') add('fails-after', verdict.subject, `${verdict.subject}-${verdict.condition}`);
}

/**
 * Everything still open, signed off or not. Cables are asked about only where something was recorded or is to be
 * refitted; readings after only where a supply is replaced.
 */
export function openPointsOf(
  job: Job,
  /** What was found: none, one, or two that were there at the same time. */
  faults: readonly Fault[],
  cabling: Cabling,
  after: readonly Verdict[],
  plannedLoad: LoadAssessment | null,
  interlocks: readonly Interlock[] = [],
  bare: BareVerdict | null = null,
): OpenPoint[] {
  const points: OpenPoint[] = [];
  const add: AddPoint = (code, subject, id = '') => {
    const key = id === '' ? code : `${code}:${id}`;
    points.push({ key, code, subject, signOff: job.signOffs.find((candidate) => candidate.point === key) ?? null });
  };
  // A job that was closed before dangers were asked about is not opened by them again.
  // A supply by itself that was called failed is not powered again.
  const isGone = bare?.word === 'failed' && job.sheet.oldSupply === 'failed';
  if (job.state === 'open' && !isGone)
    for (const { danger, madeSafe } of interlocks) if (madeSafe === null) add('danger', danger.title, danger.id);
  if (bare !== null) {
    addBare(add, job, bare);
    return points;
  }
  if (job.finding === null) add('no-finding', null);
  else if (job.finding.kind === 'fault' && !job.finding.confirmed)
    add('not-confirmed', faults.length === 0 ? null : faults.map(({ name }) => name).join(' and '));
  const cured = (...ids: readonly string[]) => faults.some(({ cure }) => ids.includes(cure.id));
  const supplyMustGo = job.finding?.kind === 'fault' && cured('replace-supply', 'larger-supply');
  if (job.state === 'open' && job.sheet.oldSupply === 'kept' && cured('replace-supply')) add('failed-kept', null);
  const choiceMissing = job.choice === null && (supplyMustGo || plannedLoad?.word === 'too-small');
  if (choiceMissing) add('no-choice', null);
  // Without the choice nobody knows yet which plugs are to be seated.
  if (cabling.basis !== 'none' && !choiceMissing) addConnectors(add, job, cabling);
  // A stage is passed by saying so, never by not looking; a job that was closed before is not opened by it again.
  if (job.state === 'open')
    for (const { stage, left } of pathOf(job, cabling)) {
      const { code, id } = stagePoint(stage, job);
      if (left > 0) add(code, String(left), id);
    }
  const { out, unsaid } = openLeads(job);
  for (const lead of out) add('lead-out', lead.what, lead.id);
  if (unsaid.length > 0) add('leads-unsaid', String(unsaid.length));
  // A job that was closed before this was asked is not opened by it again.
  if (job.state === 'open' && !choiceMissing)
    for (const item of proofsAsked(job)) {
      const proof = standingProof(job, item);
      if (proof === null) add('not-shown', item, item);
      else if (!proof.holds) add('shown-wrong', item, item);
    }
  if (job.choice?.kind === 'replace') addAfter(add, job, after);
  return points;
}

/** Each main rail at idle and at work that has no reading after the work which passes, such as `+5 at idle`. */
function notPassed(after: readonly Verdict[]): string[] {
  return (['idle', 'work'] as const).flatMap((condition) =>
    mainRails
      .filter(
        (rail) => !after.some((one) => one.subject === rail && one.condition === condition && one.word === 'pass'),
      )
      .map((rail) => `${rail} at ${condition}`),
  );
}
const mainRails = ['+12', '+5', '+3.3'] as const;

/** Open points that nobody has answered for. */
export function unanswered(points: readonly OpenPoint[]): OpenPoint[] {
  return points.filter((point) => point.signOff === null);
}
