import type { LabelProblem } from '../machine/index.ts';
import type { SchoolRating, LoadFinding, LoadWord, Moment } from '../load/index.ts';
import type { FitReason, TooLarge } from '../supply/index.ts';
import type { OpenReason } from '../cable/index.ts';
import { protectionText } from './supply-names.ts';
import { durationText, percentText, wattsText } from './figures.ts';
import { figureText, plainFigure } from './manner.ts';
import { schoolText } from './words.ts';

/** When a figure other than a lasting one is meant. */
function momentText(moment: Moment): string {
  switch (moment) {
    case 'lasting':
      return '';
    case 'spin-up':
      return ' while drives start';
    default:
      return ` for ${durationText(Number(moment))}`;
  }
}

export function loadFindingText(finding: Omit<LoadFinding, 'ratio'>): string {
  const inUnit = (value: number) => (finding.unit === 'W' ? wattsText(value) : `${figureText(value, 1)} A`);
  const figure = inUnit(finding.figure);
  const limit = inUnit(finding.limit);
  const named = {
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
  const subject = ['lasting', 'spin-up', 'peak'].includes(finding.code)
    ? named
    : `${named}${momentText(finding.moment)}`;
  switch (finding.word) {
    case 'not-promised':
      return `${subject} ${figure}, more than the ${limit} that its guide promises`;
    case 'beyond':
      return `${subject} ${figure}, carries ${limit}`;
    case 'tight':
      return `${subject} ${figure} is over 80 % of ${limit}`;
    case 'covered':
      return `${subject} ${figure} of ${limit}`;
  }
}

/** What nobody promises of a supply, in one sentence; null where nothing is in doubt. */
export function doubtsText(doubts: readonly LoadFinding[]): string | null {
  const [first, ...shorter] = doubts;
  return first === undefined
    ? null
    : `A doubt that decides nothing: ${loadFindingText(first)}${shorter.length === 0 ? '' : '; shorter ones as well'}.`;
}

/** An upgrade that is planned in these words, and of which no part was entered. */
export const upgradeInWordsText = (words: string): string =>
  `Planned: “${words}”. No part comes or goes yet: what is reckoned is the machine as it came.`;

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
      return 'Cannot tell: the rails of the label are missing or nobody read them, or the parts are missing.';
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

/** What being far larger than the load costs. */
export function tooLargeText({ ratingWatts, sustainedWatts, idleEfficiency }: TooLarge): string {
  return (
    `large for this: ${wattsText(ratingWatts)} for a lasting ${wattsText(sustainedWatts)}, ` +
    `${percentText(idleEfficiency)} efficient at idle`
  );
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
      return `would draw ${figureText(reason.amps, 1)} A, its lead carries ${plainFigure(reason.limitAmps)} A`;
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
      return tooLargeText(reason);
  }
}

export function problemOfLabel(problem: LabelProblem): string {
  switch (problem.code) {
    case 'no-rails':
      return 'No rails entered: without the amps of each rail only the total can be judged.';
    case 'usual-outputs':
      return (
        'Not every figure was read off the label yet: some are what a supply of ' +
        `${wattsText(problem.ratingWatts)} usually has at least.`
      );
    case 'no-twelve':
      return 'No +12 V rail entered.';
    case 'rails-below-rating':
      return (
        `The rails give ${wattsText(problem.railWatts)} together, less than the rating of ` +
        `${wattsText(problem.ratingWatts)}. Check the amps.`
      );
    case 'rails-far-above-rating':
      return (
        `The rails give ${wattsText(problem.railWatts)} together, over three times the rating of ` +
        `${wattsText(problem.ratingWatts)}. Check the amps.`
      );
    case 'unknown-label':
      return `The combined limit names ${problem.label}, which is not among the rails.`;
  }
}
