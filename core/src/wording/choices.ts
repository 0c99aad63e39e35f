import type { CandidateFacts, Choice, ChoiceFacts } from '../job/index.ts';
import type { CandidateClass } from '../supply/index.ts';
import { counted, percentText } from './figures.ts';
import { dayText, moneyText } from './manner.ts';
import { loadFindingText } from './loads.ts';

/** What is said of one that was chosen though not everything was right. */
const despite: Record<Exclude<CandidateClass, 'fits'>, string> = {
  almost: 'though not everything fitted yet',
  falls: 'though it does not fit',
};

function candidateLines(facts: CandidateFacts): string[] {
  const { price, runningAYear, loadShare, openOptional, fullest } = facts;
  const asked = price.asOf === null ? '' : ` on ${dayText(price.asOf)}`;
  const optional = openOptional === 0 ? 'every inlet served' : `${counted(openOptional, 'optional inlet')} open`;
  return [
    `${facts.ratingWatts} W ${facts.shape}, guide ${facts.guide}, grade ${facts.grade}`,
    ...(loadShare === null ? [] : [`lasting load ${percentText(loadShare)} of the rating`]),
    `${moneyText(price.minor, price.currency)}${asked}, ` +
      (facts.onShelf > 0 ? `${facts.onShelf} on the shelf` : 'to order'),
    `runs for ${moneyText(runningAYear.minor, runningAYear.currency)} a year`,
    `${counted(facts.cables, 'cable')}, ${facts.class === 'fits' ? optional : despite[facts.class]}`,
    ...(fullest === null ? [] : [`fullest: ${loadFindingText(fullest)}`]),
  ];
}

/** What was known when a supply was chosen, line by line; none where nothing was kept of it. */
export function choiceLines({ facts, known }: Pick<Choice, 'facts' | 'known'>): readonly string[] {
  return facts?.of === 'candidate' ? candidateLines(facts) : known;
}

/** What speaks for a choice where nobody wrote why. */
export function factsReason(facts: ChoiceFacts): string {
  if (facts.of === 'present')
    return facts.measuredWell ? 'It carries the plan and measures well.' : 'It carries the plan.';
  const said = [
    facts.onShelf > 0 ? 'On the shelf' : 'To order',
    ...(facts.loadShare === null ? [] : [`lasting load ${percentText(facts.loadShare)} of its rating`]),
    facts.class === 'fits' ? 'every needed inlet served' : despite[facts.class],
  ];
  return `${said.join(', ')}.`;
}

/** Why a supply was chosen or kept: in somebody's own words, else by what was known. */
export const choiceReason = ({ reason, facts }: Pick<Choice, 'reason' | 'facts'>): string =>
  reason !== '' || facts === undefined ? reason : factsReason(facts);
