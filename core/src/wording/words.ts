import type { CaseLayout, LabelProblem, PartChange } from '../machine/index.ts';
import type { Condition, Doubt, QuickProblem, ReadingCode, Subject, Verdict, VerdictWord } from '../measure/index.ts';
import type { School, SchoolRating, LoadFinding, LoadWord } from '../load/index.ts';
import type { FitReason } from '../supply/index.ts';
import {
  shareInterval,
  madeSafeId,
  triedCureId,
  type Conclusion,
  type Contradiction,
  type FaultGroup,
  type Hazard,
  type Knowledge,
  type MindChanger,
  type Need,
  type NextCheck,
  type Strength,
  type Suspect,
  type Tally,
} from '../diagnose/index.ts';
import type { OpenPoint, Phase, JobList, Refusal, StationId, StationLine, StationState } from '../job/index.ts';
import type { OpenReason } from '../cable/index.ts';
import { protectionText } from './supply-names.ts';
import { durationText, percentText, voltsText, wattsText } from './figures.ts';

export const subjectText: Record<Subject, string> = {
  '+12': '+12 V',
  '+5': '+5 V',
  '+3.3': '+3.3 V',
  '-12': '-12 V',
  '+5sb': '+5 V standby',
  'power-good': 'Power-good',
};
export const conditionText: Record<Condition, string> = { 'off-load': 'off load', idle: 'idle', work: 'at work' };
export const codeText: Record<ReadingCode, string> = {
  'too-high': 'too high',
  'too-low': 'too low',
  absent: 'absent',
  wanders: 'wanders',
};
export const verdictText: Record<VerdictWord, string> = {
  pass: 'Pass',
  marginal: 'Marginal',
  fail: 'Fail',
  'cannot-tell': 'Cannot tell',
};
export const phaseText: Record<Phase, string> = { before: 'before', after: 'after' };
export const changeText: Record<PartChange, string> = {
  stays: 'stays',
  added: 'added',
  replaced: 'replaced',
  removed: 'removed',
};
export const layoutText: Record<CaseLayout, string> = { tower: 'Tower', small: 'Small case', slim: 'Slim case' };
export const schoolText: Record<School, string> = {
  'like-for-like': 'Like for like',
  'fixed-margin': 'Fixed margin',
  'half-load': 'Half load',
  'card-advice': "Card's advice",
  'peaks-covered': 'Peaks covered',
};
export const strengthText: Record<Strength, string> = { strong: 'strong', fair: 'fair', slight: 'slight' };
export const hazardText: Record<Hazard, string> = { none: 'none', low: 'low', mains: 'mains' };
export const needText: Record<Need, string> = {
  meter: 'meter',
  tester: 'tester',
  'spare-supply': 'spare supply',
  'second-spare': 'second spare',
  'spare-memory': 'spare memory',
  'spare-card': 'spare card',
  'spare-board': 'spare board',
  running: 'machine running',
};
export const faultGroupText: Record<FaultGroup, string> = {
  mains: 'mains',
  supply: 'supply',
  wiring: 'wiring',
  control: 'control',
  machine: 'machine',
  other: 'other',
};
export const stationText: Record<StationId, string> = {
  intake: 'Intake',
  fault: 'Find the fault',
  measure: 'Measure',
  load: 'Load',
  replacement: 'Replacement',
  cables: 'Cables',
  'hand-over': 'Hand over',
};
export const stationStateText: Record<StationState, string> = {
  untouched: 'untouched',
  'in-hand': 'in hand',
  'needs-you': 'needs you',
  settled: 'settled',
};
export const loadWordText: Record<LoadWord, string> = {
  enough: 'Enough',
  tight: 'Tight',
  'too-small': 'Too small',
  'cannot-tell': 'Cannot tell',
};

const unit = (subject: Subject) => (subject === 'power-good' ? 'ms' : 'V');
const figureOf = (subject: Subject, figure: number) =>
  subject === 'power-good' ? figure.toFixed(0) : voltsText(figure);

/** Why a verdict is what it is, with its limit. */
export function verdictReason(verdict: Verdict): string {
  const lower = `${figureOf(verdict.subject, verdict.lower)} ${unit(verdict.subject)}`;
  const upper = `${figureOf(verdict.subject, verdict.upper)} ${unit(verdict.subject)}`;
  const doubt =
    verdict.expanded === null
      ? ''
      : ` ±${verdict.expanded < 0.01 ? verdict.expanded.toFixed(3) : figureOf(verdict.subject, verdict.expanded)}`;
  switch (verdict.reason) {
    case 'inside':
      return `inside ${lower} to ${upper}, with the uncertainty${doubt}`;
    case 'near-low':
      return `inside, but with the uncertainty${doubt} little is left above the limit ${lower}`;
    case 'near-high':
      return `inside, but with the uncertainty${doubt} little is left below the limit ${upper}`;
    case 'outside-low':
      return `below ${lower} by more than the uncertainty${doubt}`;
    case 'outside-high':
      return `above ${upper} by more than the uncertainty${doubt}`;
    case 'straddles-low':
      return `within the uncertainty${doubt} of the limit ${lower}`;
    case 'straddles-high':
      return `within the uncertainty${doubt} of the limit ${upper}`;
    case 'slower-than-guide':
      return 'inside 500 ms, slower than the 250 ms of its guide';
    case 'absent-allowed':
      return 'absent, which its guide allows';
    case 'beyond-range':
      return verdict.subject === 'power-good'
        ? 'this instrument does not time power-good'
        : 'beyond the ranges of this meter';
    case 'no-figure':
      return 'no figure';
    case 'wrong-sign':
      return 'the sign is the other way round: swapped probes, or a sign that was not typed. Read it again';
    case 'sometimes-early':
      return `sometimes early: one of ${verdict.count} power-ups came before ${lower}`;
    case 'sometimes-late':
      return `sometimes late: one of ${verdict.count} power-ups came after ${upper}`;
    case 'not-started':
      return 'every main rail shows next to nothing: was the supply started? Until that is known it says nothing';
    case 'too-high':
    case 'too-low':
    case 'absent':
    case 'wanders':
      return `shown as ${codeText[verdict.reason]}`;
  }
}

/** The level of a verdict as text: mean or code. */
export function verdictLevel(verdict: Verdict): string {
  return verdict.mean === null
    ? verdict.reason in codeText
      ? codeText[verdict.reason as ReadingCode]
      : 'absent'
    : `${figureOf(verdict.subject, verdict.mean)} ${unit(verdict.subject)}`;
}

export function doubtText(subject: Subject, doubt: Doubt): string {
  const name = subjectText[subject];
  switch (doubt.code) {
    case 'sign':
      return `${doubt.figure} under ${name}: are the probes swapped? Keep it only if the sign is right.`;
    case 'other-rail':
      return `${doubt.figure} under ${name} looks like ${subjectText[doubt.rail]}. Right pin?`;
    case 'millivolts':
      return `${doubt.figure} looks like millivolts: ${voltsText(doubt.volts)} V?`;
    case 'mains':
      return `${doubt.figure} V is a mains voltage, not ${name}. Meter on AC, or a slip?`;
    case 'no-such-rail':
      return `The label of this supply names no ${name} output. Right supply, right pin?`;
    case 'far':
      return `${doubt.figure} is far from anything ${name} gives. Keep it only if you read it twice.`;
  }
}

export function quickProblemText(problem: QuickProblem): string {
  switch (problem.code) {
    case 'unknown-word':
      return `“${problem.word}” is not a rail. Write 12, 5, 3.3, -12, sb or pg, then the figure.`;
    case 'missing-value':
      return `Figure for ${subjectText[problem.subject]} is still missing.`;
    case 'historic-rail':
      return 'No supply of today has -5 V; pin 20 of the main plug stays empty.';
    case 'load-too-large':
      return `${problem.word} is more than any machine draws.`;
    case 'missing-rail':
      return `Which rail has ${problem.word}? Write the rail first: 12 ${problem.word}.`;
    case 'not-a-figure':
      return `“${problem.word}” is not a figure for ${subjectText[problem.subject]}. Write 11.92, or HH, LL, absent, wanders.`;
  }
}

export function loadFindingText(finding: LoadFinding): string {
  const figure = finding.unit === 'W' ? wattsText(finding.figure) : `${finding.figure.toFixed(1)} A`;
  const limit =
    finding.limit === null ? '' : finding.unit === 'W' ? wattsText(finding.limit) : `${finding.limit.toFixed(1)} A`;
  const subject = {
    lasting: 'lasting load',
    'twelve-total': '+12 V in all',
    combined: finding.subject,
    rail: `${finding.subject} V`,
    'spin-up': 'drives starting',
    standby: '+5 V standby',
    'twelve-output': `output ${finding.subject}`,
    conductor: `cable ${finding.subject}`,
    peak: `${durationText(Number(finding.subject))} peak`,
  }[finding.code];
  switch (finding.word) {
    case 'not-promised':
      return `${subject} ${figure}: its guide promises nothing this short`;
    case 'beyond':
      return `${subject} ${figure}, carries ${limit}`;
    case 'tight':
      return `${subject} ${figure} is over 80 % of ${limit}`;
    case 'covered':
      return `${subject} ${figure} of ${limit}`;
  }
}

/** The load verdict in one sentence. */
export function loadSentence(word: LoadWord, deciding: LoadFinding | null, planned: boolean): string {
  const what = planned ? 'for the plan' : 'as it is';
  const because = deciding === null ? '' : `: ${loadFindingText(deciding)}`;
  switch (word) {
    case 'enough':
      return `Enough ${what}${because}.`;
    case 'tight':
      return `Tight ${what}${because}.`;
    case 'too-small':
      return `Too small ${what}${because}.`;
    case 'cannot-tell':
      return 'Cannot tell: the rails of the label or the parts are missing.';
  }
}

export function schoolBecause(rating: SchoolRating): string {
  switch (rating.because) {
    case 'present-rating':
      return 'the rating it had';
    case 'margin':
      return 'lasting load + 150 W';
    case 'multiple':
      return 'lasting load × 1.75';
    case 'lasting':
      return 'lasting load at 80 %';
    case 'peak-1000':
      return 'turbo for seconds';
    case 'spin-up':
      return 'all drives starting';
    case 'no-present-supply':
      return 'no present supply entered';
    case 'advice':
      return "as the card's maker prints";
    case 'no-advice':
      return 'the advice was not read yet';
    case 'peak-100':
    case 'peak-10':
    case 'peak-1':
    case 'peak-0.1':
      return `peak of ${rating.because.slice(5)} ms, 3.x guide`;
  }
}

const openReasonText: Record<OpenReason, string> = {
  'no-such-plug': 'the kit has no plug for it',
  'too-short': 'no plug of its kind reaches it',
  'no-socket': 'no socket is left for its cable',
  'no-free-plug': 'no plug, socket or load is left for it',
};
export function openInletText(label: string, reason: OpenReason | null): string {
  return `${label}: ${reason === null ? 'no cable' : openReasonText[reason]}`;
}

/** Why a supply is dropped, in words. */
export function fitReasonText(reason: FitReason, inletLabel: (id: string) => string): string {
  switch (reason.code) {
    case 'shape':
      return `${reason.shape} does not fit, the case takes ${reason.allowed.join(' or ')}`;
    case 'depth':
      return `needs ${reason.needsMillimetres} mm with plugs bent, the case has ${reason.roomMillimetres} mm`;
    case 'mains':
      return `made for ${reason.lowVolts} to ${reason.highVolts} V mains, here ${reason.mainsVolts} V`;
    case 'load':
      return loadFindingText(reason.finding);
    case 'holes':
      return reason.caseOwn
        ? "has the standard holes, this case its maker's own"
        : "has its maker's own holes, this case the standard four";
    case 'vent':
      return 'its fan would face a closed wall of this case';
    case 'lead':
      return `would draw ${reason.amps.toFixed(1)} A, its lead carries ${reason.limitAmps} A`;
    case 'outputs-unknown':
      return 'nobody knows which cable hangs on which +12 V output, and it decides';
    case 'protection':
      return `no ${protectionText[reason.missing]} protection`;
    case 'correction':
      return 'no active power factor correction';
    case 'noise':
      return reason.decibels === null
        ? `its noise is not known, at most ${reason.mostDecibels} dB are wanted`
        : `${reason.decibels} dB, at most ${reason.mostDecibels} dB are wanted`;
    case 'warranty':
      return `${reason.years} years of warranty, ${reason.leastYears} are wanted`;
    case 'school':
      return `${schoolText[reason.school].toLowerCase()} asks for ${wattsText(reason.asksWatts)}`;
    case 'inlet':
      return openInletText(inletLabel(reason.inletId), reason.reason);
    case 'too-large':
      return `too large: ${wattsText(reason.ratingWatts)} for a lasting ${wattsText(reason.sustainedWatts)}`;
  }
}

export function problemOfLabel(problem: LabelProblem): string {
  switch (problem.code) {
    case 'no-rails':
      return 'No rails entered: without the amps of each rail only the total can be judged.';
    case 'no-twelve':
      return 'No +12 V rail entered.';
    case 'rails-below-rating':
      return `The rails give ${wattsText(problem.railWatts)} together, less than the rating of ${wattsText(problem.ratingWatts)}. Check the amps.`;
    case 'rails-far-above-rating':
      return `The rails give ${wattsText(problem.railWatts)} together, over three times the rating of ${wattsText(problem.ratingWatts)}. Check the amps.`;
    case 'unknown-label':
      return `The combined limit names ${problem.label}, which is not among the rails.`;
  }
}

const faultName = (knowledge: Knowledge, id: string) => knowledge.faults.find((fault) => fault.id === id)?.name ?? id;
const dangerOf = (knowledge: Knowledge, checkId: string) => {
  const id = madeSafeId(checkId);
  return id === null ? undefined : knowledge.dangers.find((danger) => danger.id === id);
};
/** A check's title; for a repair what was repaired, for a danger what was made safe; the id itself when this knowledge does not know it. */
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
      return `“${label}” leaves ${faultName(knowledge, preview.leaderId).toLowerCase()} at ${percentText(preview.leaderProbability)}`;
    });
  return `${parts.join('; ')}.`;
}

export function conclusionSentence(knowledge: Knowledge, conclusion: Conclusion): string {
  switch (conclusion.state) {
    case 'untouched':
      return 'Nothing observed yet. Start with what pressing the button does.';
    case 'open':
      return `${faultName(knowledge, conclusion.leaderId)} leads with ${percentText(conclusion.probability)}.`;
    case 'to-prove':
      return `${faultName(knowledge, conclusion.leaderId)}, ${percentText(conclusion.probability)}. Still to prove by a cure or a swap.`;
    case 'offered':
      return `${faultName(knowledge, conclusion.leaderId)}, ${percentText(conclusion.probability)}, proved.`;
    case 'outside':
      return `${faultName(knowledge, conclusion.leaderId)}, ${percentText(conclusion.probability)}: not this job, hand it on.`;
    case 'well':
      return `${faultName(knowledge, conclusion.leaderId)}, ${percentText(conclusion.probability)}: no fault to repair.`;
  }
}

/** A finding with nothing around it. */
interface FindingWords {
  readonly kind: 'fault' | 'no-fault' | 'hand-on';
  readonly faultId: string | null;
  readonly confirmed: boolean;
}

/** The finding as a sentence for the report. */
export function findingSentence(knowledge: Knowledge, finding: FindingWords | null): string {
  if (finding === null) return 'No finding yet.';
  if (finding.kind === 'no-fault') return 'No fault found; the supply is healthy.';
  if (finding.kind === 'hand-on')
    return finding.faultId === null
      ? 'No finding; handed on.'
      : `${faultName(knowledge, finding.faultId)}: not a power fault, handed on.`;
  const name = faultName(knowledge, finding.faultId ?? '');
  return finding.confirmed ? `${name}, proved by cure or swap.` : `${name}, not yet proved.`;
}

/** What was seen, as title and outcome: `rails at work: one out`. */
export function observationText(
  knowledge: Knowledge,
  observation: { readonly checkId: string; readonly outcomeId: string },
): string {
  return `${checkTitle(knowledge, observation.checkId).toLowerCase()}: ${outcomeLabel(knowledge, observation.checkId, observation.outcomeId).toLowerCase()}`;
}

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
  const proof = observations.filter(
    (observation) =>
      faultId !== null &&
      knowledge.checks
        .find((check) => check.id === observation.checkId)
        ?.outcomes.find((outcome) => outcome.id === observation.outcomeId)
        ?.cures?.includes(faultId) === true,
  );
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
  return `No single fault explains both “${observationText(knowledge, a)}” and “${observationText(knowledge, b)}”: together they are ${Math.round(contradiction.timesLess)} times less likely than apart. Do one of them again, or think of two faults at once.`;
}

/** What would change the mind, in a few words. */
export function mindChangerText(knowledge: Knowledge, changer: MindChanger): string {
  return `${observationText(knowledge, changer)} would put ${faultName(knowledge, changer.leaderId).toLowerCase()} first, at ${percentText(changer.leaderProbability)}`;
}

/** How often out of how many, with the interval at 95 %. */
export function tallyText(tally: Tally): string {
  const interval = shareInterval(tally.count, tally.of);
  return interval === null
    ? 'never seen'
    : `${tally.count} of ${tally.of}, between ${percentText(interval.low)} and ${percentText(interval.high)}`;
}

/** A station's result in one short line. */
export function stationLineText(line: StationLine, knowledge: Knowledge, supplyName: (id: string) => string): string {
  switch (line.code) {
    case 'not-started':
      return 'not started';
    case 'complaint':
      return line.outcomeId === null
        ? `${line.parts} parts`
        : outcomeLabel(knowledge, 'told-button', line.outcomeId).toLowerCase();
    case 'suspect':
      return `${percentText(line.probability)} ${faultName(knowledge, line.faultId).toLowerCase()}`;
    case 'found':
      return line.kind === 'no-fault'
        ? 'no fault'
        : line.faultId === null
          ? 'handed on'
          : faultName(knowledge, line.faultId).toLowerCase();
    case 'rail':
      return `${subjectText[line.verdict.subject]} ${verdictLevel(line.verdict)} ${line.verdict.word === 'fail' ? 'fails' : 'unclear'}`;
    case 'rail-sags':
      return `${line.rail} V sags: ${voltsText(line.workVolts)}`;
    case 'all-pass':
      return `${line.count} of ${line.count} pass`;
    case 'load-no-supply':
      return `${wattsText(line.watts)}, no supply entered`;
    case 'load':
      return `${Math.round(line.watts)} of ${line.ratingWatts} W${line.word === 'too-small' ? ', too small' : line.word === 'tight' ? ', tight' : ''}`;
    case 'candidates':
      return `${line.fitting} fit, ${line.onShelf} on shelf`;
    case 'chosen':
      return line.kind === 'keep' ? 'keep the present one' : supplyName(line.modelId ?? '');
    case 'recorded':
      return `${line.cables} cables recorded`;
    case 'seated':
      return `${line.seated} of ${line.all} seated`;
    case 'open':
      return `${line.count} open`;
    case 'ready':
      return 'ready to close';
    case 'closed':
      return 'closed';
  }
}

export function openPointText(point: OpenPoint): string {
  switch (point.code) {
    case 'danger':
      return `${point.subject ?? 'Something dangerous'}, and nobody has noted that it was made safe.`;
    case 'no-finding':
      return 'No finding is set.';
    case 'not-confirmed':
      return `${point.subject ?? 'The fault'} is not proved by a cure or a swap.`;
    case 'no-choice':
      return 'No supply is chosen, nor kept with a reason.';
    case 'inlet-open':
      return `${point.subject ?? 'An inlet'} has no cable.`;
    case 'not-seated':
      return `${point.subject ?? 'An inlet'} is not ticked as seated.`;
    case 'inlet-wrong':
      return `${point.subject ?? 'An inlet'} has a plug in it that does not belong there.`;
    case 'plan-breach':
      return `${point.subject ?? 'An inlet'} was moved by hand, and breaks a rule there.`;
    case 'not-rechecked':
      return 'Connectors are not looked at again after tying.';
    case 'plug-misfit':
      return `${point.subject ?? 'An inlet'} is recorded with a plug that does not fit it.`;
    case 'no-readings-after':
      return 'No readings at work with the new supply.';
    case 'fails-after':
      return `${point.subject ?? 'A rail'} fails with the new supply.`;
  }
}

/** What a job has lists of, in the plural. */
export const jobListText: Readonly<Record<JobList, string>> = {
  parts: 'parts',
  outcomes: 'answers',
  readings: 'readings',
  probes: 'probed cables',
  logs: 'logs',
  cables: 'recorded cables',
  pins: 'moved plugs',
  seats: 'seated plugs',
  steps: 'ticked steps',
  stepOrders: 'orders of steps',
  signOffs: 'sign-offs',
};

export function refusalText(refusal: Refusal): string {
  switch (refusal.code) {
    case 'stale':
      return 'Somebody changed this since you saw it.';
    case 'closed':
      return 'The job is closed. Reopen it to change something.';
    case 'not-found':
      return 'This is no longer in the job.';
    case 'duplicate':
      return refusal.subject.startsWith('inlet:') ? 'This inlet already has a plug.' : 'This is already in the job.';
    case 'unknown-reference':
      return `${refusal.path} names something that is not known here.`;
    case 'open-points':
      return `${refusal.count} ${refusal.count === 1 ? 'point is' : 'points are'} still open. Settle or sign off each.`;
    case 'limit':
      return `One job holds at most ${refusal.most} ${jobListText[refusal.list]}. Take one away first, or begin a second job.`;
  }
}
