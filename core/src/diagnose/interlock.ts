import type { Check, Danger, DangerWay, Powering } from './knowledge.ts';
import type { Model, Observation } from './model.ts';
import type { RailName } from '../standards/index.ts';

const prefix = 'safe.';
/** The check that making a danger safe is noted under; its outcomes are the danger's ways. */
export const safetyCheckId = (dangerId: string): string => `${prefix}${dangerId}`;
/** The danger that was made safe; null for any other check. */
export const madeSafeId = (checkId: string): string | null =>
  checkId.startsWith(prefix) ? checkId.slice(prefix.length) : null;

/** Everything that may be put under power. */
export const allPowering = ['machine', 'supply', 'spare', 'fitted'] as const satisfies readonly Powering[];

/**
 * Making safe as a check, one for each danger that can be noted as safe. It says nothing about the fault: every outcome
 * is as likely with any.
 */
export function safetyChecks(dangers: readonly Danger[]): Check[] {
  return dangers
    .filter((danger) => danger.ways.length > 0)
    .map((danger) => ({
      id: safetyCheckId(danger.id),
      kind: 'safety',
      evidence: safetyCheckId(danger.id),
      title: danger.title,
      minutes: danger.minutes,
      needs: [],
      hazard: 'low',
      caution: danger.why,
      steps: danger.first,
      outcomes: danger.ways.map((way) => ({ id: way.id, label: way.label })),
      rows: [{ faults: 'others', weights: danger.ways.map(() => 100 / danger.ways.length), why: danger.why }],
    }));
}

/** What showed a danger. */
export type DangerCause =
  | { readonly kind: 'outcome'; readonly checkId: string; readonly outcomeId: string }
  /** `volts` is null where a tester gave its too-high code. */
  | { readonly kind: 'rail'; readonly rail: RailName; readonly volts: number | null; readonly limit: number }
  | { readonly kind: 'probe'; readonly cable: string }
  | { readonly kind: 'selector'; readonly stands: '115' | '230'; readonly mainsVolts: number }
  | { readonly kind: 'plug'; readonly inlet: string };

/** A danger that was seen, and when; without a time it counts as seen before anything was made safe. */
export interface DangerSign {
  readonly dangerId: string;
  readonly cause: DangerCause;
  readonly at: string | null;
}

/** A danger that keeps something from being powered. */
export interface Interlock {
  readonly danger: Danger;
  readonly causes: readonly DangerCause[];
  /** How it was made safe; null while it stands, and then nothing at all is powered. */
  readonly madeSafe: DangerWay | null;
  readonly bars: readonly Powering[];
}

/** Dangers that the outcomes of checks show. */
export function dangerSigns(model: Model, observations: readonly Observation[]): DangerSign[] {
  return observations.flatMap(({ checkId, outcomeId, at }): DangerSign[] => {
    const check = model.checks[model.checkIndex.get(checkId) ?? -1];
    const dangerId = check?.outcomes.find((outcome) => outcome.id === outcomeId)?.danger;
    return dangerId === undefined ? [] : [{ dangerId, cause: { kind: 'outcome', checkId, outcomeId }, at: at ?? null }];
  });
}

/**
 * What must not be powered now, in the order of the knowledge. A danger stands until it was noted as made safe after it
 * was last seen; what is seen later makes it stand again. A way of making safe may bar something for good: a supply
 * that gave too much is never connected again.
 * @param observations answers in the order in which they were given, those under `safetyCheckId` among them
 * @param more signs that are no answers: rails that are too high, cables that do harm
 */
export function interlocksOf(
  model: Model,
  observations: readonly Observation[],
  more: readonly DangerSign[] = [],
): Interlock[] {
  const signs = [...dangerSigns(model, observations), ...more];
  return model.knowledge.dangers.flatMap((danger): Interlock[] => {
    const seen = signs.filter((sign) => sign.dangerId === danger.id);
    if (seen.length === 0) return [];
    const note = observations.findLast(
      (observation) => observation.checkId === safetyCheckId(danger.id) && observation.outcomeId !== 'unknown',
    );
    const later = seen.some((sign) => sign.at !== null && note?.at != null && sign.at > note.at);
    const way = note === undefined || later ? undefined : danger.ways.find((item) => item.id === note.outcomeId);
    const bars = way === undefined ? allPowering : (way.never ?? []);
    if (bars.length === 0) return [];
    return [{ danger, causes: seen.map((sign) => sign.cause), madeSafe: way ?? null, bars }];
  });
}

/** Is a danger still as it was found? Then it comes before anything else. */
export const standingInterlock = (interlocks: readonly Interlock[]): Interlock | null =>
  interlocks.find((interlock) => interlock.madeSafe === null) ?? null;

/**
 * May this cure be tried? With a danger that stands none may; with something that is never powered again only what is
 * left.
 */
export const cureAllowed = (interlocks: readonly Interlock[], cureId: string): boolean =>
  interlocks.every(
    ({ madeSafe, bars }) =>
      madeSafe !== null && (!bars.includes('machine') || madeSafe.leaves?.includes(cureId) === true),
  );

/** The interlock that keeps this from being powered; null when nothing does. */
export const barring = (interlocks: readonly Interlock[], powering: Powering): Interlock | null =>
  interlocks.find((interlock) => interlock.bars.includes(powering)) ?? null;
