import {
  type About,
  shareInterval,
  madeSafeId,
  triedCureId,
  type Conclusion,
  type Likely,
  type Contradiction,
  type Diagnosis,
  type Knowledge,
  type MindChanger,
  type NextCheck,
  type Suspect,
  type Tally,
} from '../diagnose/index.ts';
import type { FindingKind } from '../job/index.ts';
import { percentText } from './figures.ts';

/** Words of somebody, as they stand in a sentence: “bang”, “burnt”. */
export const quotedWords = (words: readonly string[]): string => words.map((word) => `“${word}”`).join(', ');

export const faultName = (knowledge: Knowledge, id: string) =>
  knowledge.faults.find((fault) => fault.id === id)?.name ?? id;
const dangerOf = (knowledge: Knowledge, checkId: string) => {
  const id = madeSafeId(checkId);
  return id === null ? undefined : knowledge.dangers.find((danger) => danger.id === id);
};
/**
 * A check's title; for a repair what was repaired, for a danger what was made safe; the id itself when this knowledge
 * does not know it.
 */
export function checkTitle(knowledge: Knowledge, checkId: string): string {
  const cure = triedCureId(checkId);
  if (cure !== null) return knowledge.faults.find((fault) => fault.cure.id === cure)?.cure.text ?? cure;
  const danger = dangerOf(knowledge, checkId);
  if (danger !== undefined) return `Made safe: ${danger.title.toLowerCase()}`;
  return knowledge.checks.find((check) => check.id === checkId)?.title ?? checkId;
}
/** The label of an outcome; the id itself when this knowledge does not know it. */
export function outcomeLabel(knowledge: Knowledge, checkId: string, outcomeId: string): string {
  if (outcomeId === 'unknown') return 'Cannot tell';
  if (triedCureId(checkId) !== null) return outcomeId === 'cured' ? 'Cured' : 'Changed nothing';
  const danger = dangerOf(knowledge, checkId);
  if (danger !== undefined) return danger.ways.find((way) => way.id === outcomeId)?.label ?? outcomeId;
  return (
    knowledge.checks.find((check) => check.id === checkId)?.outcomes.find((outcome) => outcome.id === outcomeId)
      ?.label ?? outcomeId
  );
}

/** Why a check is worth doing, in one sentence. */
export function checkWorth(knowledge: Knowledge, next: NextCheck): string {
  const check = knowledge.checks.find((candidate) => candidate.id === next.checkId);
  const parts = [...next.previews]
    .sort((a, b) => b.probability - a.probability)
    .slice(0, 2)
    .map((preview) => {
      const label = check?.outcomes.find((outcome) => outcome.id === preview.outcomeId)?.label ?? preview.outcomeId;
      return (
        `“${label}” leaves ${faultName(knowledge, preview.leaderId).toLowerCase()} at ` +
        percentText(preview.leaderProbability)
      );
    });
  return `${parts.join('; ')}.`;
}

/**
 * What is likely enough: the leading fault, or, where others are counted with it, the remedy that ends them all or that
 * they were proved together, with the leader's own share.
 */
function likelyText(
  knowledge: Knowledge,
  { leaderId, probability, alone, oneRemedy }: Likely,
  proved: boolean,
): string {
  const [share, own] = [percentText(probability), percentText(alone)];
  const said = proved ? `${share}, proved.` : `${share}.`;
  const name = faultName(knowledge, leaderId);
  if (own === share) return `${name}, ${said}`;
  if (!oneRemedy) return `One of what the same outcome proved, ${share}: likeliest ${name.toLowerCase()}, ${own}.`;
  return `${cureText(knowledge, leaderId)}, ${said} Likeliest of what that ends: ${name.toLowerCase()}, ${own}.`;
}

/** What to do about the leading fault, in the knowledge's words. */
const cureText = (knowledge: Knowledge, faultId: string): string =>
  knowledge.faults.find(({ id }) => id === faultId)?.cure.text ?? faultId;

export function conclusionSentence(knowledge: Knowledge, conclusion: Conclusion): string {
  switch (conclusion.state) {
    case 'untouched':
      return 'Nothing observed yet. Start with what pressing the button does.';
    case 'open':
      return `${faultName(knowledge, conclusion.leaderId)} leads with ${percentText(conclusion.probability)}.`;
    case 'to-prove':
      return `${likelyText(knowledge, conclusion, false)} Still to prove by a cure or a swap.`;
    case 'offered':
      return likelyText(knowledge, conclusion, true);
    case 'outside':
      return (
        `${faultName(knowledge, conclusion.leaderId)}, ${percentText(conclusion.probability)}: ` +
        'not this job, hand it on.'
      );
    case 'well':
      return (
        `${faultName(knowledge, conclusion.leaderId)}, ${percentText(conclusion.probability)}: no ` + 'fault to repair.'
      );
  }
}

/** A finding with nothing around it. */
interface FindingWords {
  readonly kind: FindingKind;
  readonly faultId: string | null;
  readonly alsoFaultId?: string | null | undefined;
  readonly confirmed: boolean;
}

/** The fault that was found, or both where two were there at once. */
export const findingNames = (
  knowledge: Knowledge,
  { faultId, alsoFaultId = null }: Pick<FindingWords, 'faultId' | 'alsoFaultId'>,
): string =>
  [faultId ?? '', alsoFaultId]
    .filter((id) => id !== null)
    .map((id) => faultName(knowledge, id))
    .join(' and ');

/** The finding as a sentence for the report. */
export function findingSentence(knowledge: Knowledge, finding: FindingWords | null): string {
  if (finding === null) return 'No finding yet.';
  if (finding.kind === 'no-fault') return 'No fault found; the supply is healthy.';
  if (finding.kind === 'hand-on')
    return finding.faultId === null
      ? 'No finding; handed on.'
      : `${faultName(knowledge, finding.faultId)}: not a power fault, handed on.`;
  const name = findingNames(knowledge, finding);
  return finding.confirmed ? `${name}, proved by cure or swap.` : `${name}, not yet proved.`;
}

/** What was seen, as title and outcome: `rails at work: one out`. */
export function observationText(
  knowledge: Knowledge,
  observation: { readonly checkId: string; readonly outcomeId: string },
): string {
  return (
    `${checkTitle(knowledge, observation.checkId).toLowerCase()}: ` +
    outcomeLabel(knowledge, observation.checkId, observation.outcomeId).toLowerCase()
  );
}

/** What was observed that proves a fault: outcomes that cure or convict it. */
export const findingProof = <O extends { readonly checkId: string; readonly outcomeId: string }>(
  knowledge: Knowledge,
  faultId: string | null,
  observations: readonly O[],
): O[] =>
  observations.filter(
    (observation) =>
      faultId !== null &&
      knowledge.checks
        .find((check) => check.id === observation.checkId)
        ?.outcomes.find((outcome) => outcome.id === observation.outcomeId)
        ?.cures?.includes(faultId) === true,
  );

/**
 * How the finding was reached, in one or two sentences for the report: what spoke for it most, what proved it, what was
 * repaired in vain before. Empty when nothing was observed.
 */
export function findingGrounds(
  knowledge: Knowledge,
  finding: FindingWords,
  suspects: readonly Suspect[],
  observations: readonly { readonly checkId: string; readonly outcomeId: string }[],
): string {
  const sentences: string[] = [];
  const faultId = finding.kind === 'fault' ? finding.faultId : null;
  const evidence = suspects.find((suspect) => suspect.faultId === faultId)?.evidence ?? [];
  const proof = [faultId, finding.alsoFaultId ?? null].flatMap((id) => findingProof(knowledge, id, observations));
  const pro = evidence
    .filter(
      (item) =>
        item.decibans > 0 &&
        !proof.some((other) => other.checkId === item.checkId) &&
        triedCureId(item.checkId) === null,
    )
    .slice(0, 3);
  if (proof.length > 0)
    sentences.push(`Proved by ${proof.map((item) => observationText(knowledge, item)).join('; ')}.`);
  if (pro.length > 0)
    sentences.push(`What spoke for it: ${pro.map((item) => observationText(knowledge, item)).join('; ')}.`);
  const vain = observations.filter(
    (observation) => triedCureId(observation.checkId) !== null && observation.outcomeId === 'same',
  );
  if (vain.length > 0)
    sentences.push(
      `Tried before in vain: ${vain.map((item) => checkTitle(knowledge, item.checkId).toLowerCase()).join('; ')}.`,
    );
  return sentences.join(' ');
}

/** Two outcomes that do not go together, and what to do about it. */
export function contradictionText(knowledge: Knowledge, contradiction: Contradiction): string {
  const [a, b] = contradiction.pair;
  return (
    `No single fault explains both “${observationText(knowledge, a)}” and ` +
    `“${observationText(knowledge, b)}”: together they are ` +
    `${Math.round(contradiction.timesLess)} times less likely than apart. Do one of them ` +
    'again, or think of two faults at once.'
  );
}

/** What two faults at once would be, how likely, and which of them is looked for first. */
export function twoFaultsText(knowledge: Knowledge, two: NonNullable<Diagnosis['twoFaults']>): string {
  const [pair] = two.pairs;
  if (pair === undefined) return '';
  const other = pair.faultIds.find((id) => id !== two.firstId) ?? two.firstId;
  return (
    `No one fault explains this well; two at once do (${percentText(two.probability)}). Likeliest: ` +
    `“${faultName(knowledge, two.firstId)}” together with “${faultName(knowledge, other)}” ` +
    `(${percentText(pair.probability)}). ` +
    'The search goes on with the first of them, then with the other.'
  );
}

const aboutName: Readonly<Record<About, string>> = {
  card: 'no card',
  'card-plug': 'no card with plugs of its own',
  'card-16': 'no 16-pin inlet',
};

/** Only of which machines a fault can be or a check makes sense, in a few words. */
export const aboutText: Readonly<Record<About, string>> = {
  card: 'only with a graphics card',
  'card-plug': 'only with a card that has plugs of its own',
  'card-16': 'only with a 16-pin inlet',
};

/** What the machine has not, so that nothing is asked about it; empty where it has all. */
export function absentText(absent: readonly About[]): string {
  const named = absent.includes('card')
    ? ['card' as const]
    : absent.includes('card-plug')
      ? ['card-plug' as const]
      : absent;
  return named.length === 0
    ? ''
    : `Intake has ${named.map((about) => aboutName[about]).join(', ')}: its faults and checks are left out.`;
}

/** What would change the mind, in a few words. */
export function mindChangerText(knowledge: Knowledge, changer: MindChanger): string {
  return (
    `${observationText(knowledge, changer)} would put ` +
    `${faultName(knowledge, changer.leaderId).toLowerCase()} first, at ` +
    percentText(changer.leaderProbability)
  );
}

/** How often out of how many, with the interval at 95 %. */
export function tallyText(tally: Tally): string {
  const interval = shareInterval(tally.count, tally.of);
  return interval === null
    ? 'never seen'
    : `${tally.count} of ${tally.of}, between ${percentText(interval.low)} and ${percentText(interval.high)}`;
}
