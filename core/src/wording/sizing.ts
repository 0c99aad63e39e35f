import type { FigureSource } from '../machine/index.ts';
import type { DrawnShare, LoadDraws, MeasuredComparison, PlugProblem, Route } from '../load/index.ts';
import type { Correction } from '../standards/index.ts';
import type { Settling, Standing } from '../job/index.ts';
import {
  criterionFigure,
  type CandidateRow,
  type Criterion,
  type FanSide,
  type Remedy,
  type SupplyModel,
} from '../supply/index.ts';
import type { Knowledge } from '../diagnose/index.ts';
import { durationText, percentText, voltsText, wattsText } from './figures.ts';
import { figureText, moneyText, plainFigure } from './manner.ts';
import { subjectText, verdictLevel } from './words.ts';
import { loadFindingText } from './loads.ts';

export const correctionText: Record<Correction, string> = {
  active: 'active correction',
  passive: 'passive correction',
  none: 'no correction',
};
export const fanSideText: Record<FanSide, string> = {
  'large-face': 'fan on the large face',
  rear: 'fan at the back',
  none: 'no fan',
};
export const sourceText: Record<FigureSource, string> = {
  class: 'by class',
  manual: 'from its manual',
  label: 'from its label',
  measured: 'measured',
};
export const routeText: Record<Route, string> = {
  main: 'main connector',
  header: 'headers of the board',
  'processor-plug': 'processor plugs',
  slot: 'card slots',
  'card-plug': 'card plugs',
  'drive-plug': 'drive plugs',
};
export const criterionText: Record<Criterion, string> = {
  price: 'price',
  headroom: 'headroom',
  running: 'cost a year',
  noise: 'noise',
  warranty: 'warranty',
  shelf: 'on the shelf',
};

/** A criterion's figure with its unit. */
export function criterionFigureText(candidate: CandidateRow, criterion: Criterion, currency: string): string {
  const figure = criterionFigure(candidate, criterion, currency);
  switch (criterion) {
    case 'price':
      return moneyText(candidate.model.price.minor, candidate.model.price.currency);
    case 'headroom':
      return `${percentText(Math.max(0, 1 - (candidate.load.loadShare ?? 1)))} left`;
    case 'running':
      return `${moneyText(candidate.cost.minorAYear, currency)} a year`;
    case 'noise':
      return figure === null ? 'not known' : `${plainFigure(figure)} dB`;
    case 'warranty':
      return `${candidate.model.warrantyYears} years`;
    case 'shelf':
      return candidate.model.onShelf > 0 ? `${candidate.model.onShelf} here` : 'to order';
  }
}

export function remedyText(
  remedy: Remedy,
  inletLabel: (id: string) => string,
  partName: (id: string) => string,
): string {
  switch (remedy.code) {
    case 'bracket':
      return `an ${remedy.shape} bracket for an ${remedy.into} opening`;
    case 'cable':
      return (
        `${remedy.count === 1 ? 'one more cable' : `${remedy.count} more cables`} of its own kind ` +
        `(${remedy.kitCableId}), for ${remedy.inletIds.map(inletLabel).join(' and ')}`
      );
    case 'extension':
      return (
        `an extension of ${Math.ceil(remedy.millimetres / 10) * 10} mm of its own kind, for ` +
        inletLabel(remedy.inletId)
      );
    case 'staggered':
      return 'drives that start one after the other';
    case 'card-limit':
      return `${partName(remedy.partId)} set to draw ${remedy.watts} W less`;
  }
}

export function plugProblemText(problem: PlugProblem): string {
  const figure = problem.unit === 'W' ? wattsText(problem.figure) : `${figureText(problem.figure, 1)} A`;
  const limit = problem.unit === 'W' ? wattsText(problem.limit) : `${figureText(problem.limit, 1)} A`;
  switch (problem.kind) {
    case 'slot':
      return (
        `${problem.subject} would draw ` +
        `${figure}${problem.rail === null ? '' : ` on ${problem.rail} V`} from its slot, which ` +
        `gives ${limit}. Check the figure, or the card has a plug that is not entered.`
      );
    case 'header':
      return (
        `${problem.subject} would draw ${figure} from its header, which gives ${limit}. Check the ` +
        'figure, or give it a hub with a plug of its own.'
      );
    case 'plug':
      return (
        `${problem.subject} would carry ` +
        `${figure}${problem.rail === null ? '' : ` on ${problem.rail} V`}, the plug carries ` +
        `${limit}. Check the figure; no supply mends this.`
      );
    case 'main-connector':
      return (
        `The main connector would carry ${figure} on ${problem.rail} V, its contacts carry ` +
        `${limit}. Move something to plugs of its own.`
      );
  }
}

/** A measured load beside the estimate, in one sentence. */
export function measuredText(comparison: MeasuredComparison): string {
  const off = comparison.factor - 1;
  const word =
    Math.abs(off) < 0.1
      ? 'the estimate is confirmed'
      : off > 0
        ? 'it draws more than the estimate'
        : 'it draws less than the estimate';
  return (
    `Measured ${wattsText(comparison.measuredWatts)} beside an estimate of ` +
    `${wattsText(comparison.estimatedWatts)} ` +
    `(${off >= 0 ? '+' : '−'}${Math.round(Math.abs(off) * 100)} %): ${word}.`
  );
}

function chanceText({ share, high }: DrawnShare): string {
  return share === 0 ? `never in these draws (under ${percentText(high)})` : `in ${percentText(share)} of the draws`;
}

/** What the draws say of a supply, in words; the gravest first. */
export function drawsText(draws: LoadDraws): string[] {
  const { against, quantiles } = draws;
  const lines = [
    `Lasting load between ${wattsText(quantiles.low)} and ${wattsText(quantiles.high)} in ` +
      `nine of ten draws, ${wattsText(quantiles.middle)} in the middle.`,
  ];
  if (against === null) return lines;
  lines.push(`Over the rating ${chanceText(against.lasting)}.`);
  for (const { rail, over } of against.rails)
    if (over.share > 0.001) lines.push(`Over the ${rail} V rail ${chanceText(over)}.`);
  const worst = [...against.peaks].sort((a, b) => b.over.share - a.over.share)[0];
  if (worst !== undefined)
    lines.push(`Peaks of ${durationText(worst.milliseconds)} over what it may carry ${chanceText(worst.over)}.`);
  return lines;
}

/** A part's watts are worth reading where they spare so many wrong calls in a hundred. */
const worthReadingShare = 0.01;

/** The parts whose watts would settle most, at most three, in a sentence each; empty where nothing is in doubt. */
export function worthReadingText(draws: LoadDraws, nameOf: (partId: string) => string | null): string[] {
  const { against } = draws;
  if (against === null) return [];
  return against.worth
    .filter(({ left }) => against.wrongCalls - left >= worthReadingShare)
    .slice(0, 3)
    .flatMap(({ partId, left }) => {
      const name = nameOf(partId);
      return name === null
        ? []
        : [
            `Read the watts of ${name}: wrong calls fall from ${percentText(against.wrongCalls)} to ` +
              `${percentText(left)}.`,
          ];
    });
}

/** How sure a load verdict is, in two or three words. */
export function riskWord(share: number): string {
  return share < 0.01
    ? 'sure'
    : share < 0.1
      ? 'likely enough'
      : share < 0.5
        ? 'a risk'
        : share < 0.9
          ? 'likely too small'
          : 'surely too small';
}

const settlingText: Record<Settling, string> = {
  'enter-supply': "enter the supply's label",
  'enter-rails': 'enter the amps of each rail from the label',
  'read-label': 'read the amps on the label: those that stand there are what is usual',
  'enter-parts': "enter the machine's parts",
  'measure-at-work': 'measure +12, +5 and +3.3 V at work',
  'confirm-fail': 'read the failing rail again with a meter, since one fail or a tester alone convicts nobody',
  'measure-again': 'read the unclear rail again with the finer meter',
  'say-what-hangs-where': 'say which cables hang on which +12 V output',
};

/** The verdict on the present supply, load and readings together. */
export function standingSentence(standing: Standing, knowledge: Knowledge): string {
  switch (standing.word) {
    case 'failing': {
      const cause =
        standing.verdict !== null
          ? `${subjectText[standing.verdict.subject]} reads ${verdictLevel(standing.verdict)}`
          : (knowledge.faults.find((fault) => fault.id === standing.faultId)?.name ?? 'by the finding').toLowerCase();
      const { alsoTooSmall } = standing;
      return (
        `Failing: ${cause}.` +
        (alsoTooSmall === null ? '' : ` It would be too small as well: ${loadFindingText(alsoTooSmall)}.`)
      );
    }
    case 'too-small': {
      const when = standing.now ? 'Too small even as it is' : 'Enough today, too small for the plan';
      if (standing.finding !== null) {
        const { figure, limit, unit } = standing.finding;
        return (
          `${when}: ${loadFindingText(standing.finding)}, ` +
          `${unit === 'W' ? wattsText(figure - limit) : `${figureText(figure - limit, 1)} A`} too ` +
          'much.'
        );
      }
      return (
        `${when}: at ${standing.forecast === null ? 'the planned load' : `${figureText(standing.forecast.amps, 0)} A`} ` +
        `${standing.forecast === null ? 'a rail' : `${standing.forecast.rail} V`} would fall to ` +
        `${voltsText(standing.forecast?.volts ?? 0)} V.`
      );
    }
    case 'enough':
      return standing.tight
        ? 'Enough and healthy, without much to ' +
            `spare${standing.finding === null ? '' : `: ${loadFindingText(standing.finding)}`}. It ` +
            'can stay.'
        : 'Enough and healthy: it can stay.';
    case 'cannot-tell':
      return `Cannot tell yet. To settle it: ${standing.settle.map((item) => settlingText[item]).join('; ')}.`;
  }
}

/** A supply's +12 V outputs, such as `18 + 18 A`. */
export function twelveOutputsText(model: Pick<SupplyModel, 'label'>): string {
  return `${model.label.rails
    .filter((rail) => rail.rail === '+12')
    .map((rail) => plainFigure(rail.amps))
    .join(' + ')} A`;
}
