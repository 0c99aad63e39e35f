import type { Job } from '../job/index.ts';
import type { SaidPart } from './said.ts';
import { understand } from './understand.ts';

/** What is planned in somebody's words, as a line that says what comes, and of what a machine has one, what goes. */
export const upgradeLine = (words: string): string => `upgrade to ${words.trim()}`;

const nothingPlanned =
  /^\W*(?:none|no|nope|nothing|nil|n\/?a|not (?:yet|now|planned|known)|no upgrade|later|unknown)?\W*$/i;

/**
 * An upgrade that the client plans, where it stands in words alone: no part comes or goes, and what the words name is
 * not among the parts either. All that is reckoned is then the machine as it came. Words that name nothing that is
 * understood count as well: a part's model is none.
 * @returns the words; null where there is nothing to enter, or no machine yet
 */
export function upgradeInWords({ sheet, parts }: Pick<Job, 'sheet' | 'parts'>): string | null {
  const words = sheet.upgrade.trim();
  if (sheet.bareSupply || parts.length === 0 || nothingPlanned.test(words)) return null;
  if (parts.some(({ change }) => change !== 'stays')) return null;
  const named = understand(upgradeLine(words), []).said.filter((one): one is SaidPart => one.kind === 'part');
  const areThere = named.length > 0 && named.every(({ classId }) => parts.some((part) => part.classId === classId));
  return areThere ? null : words;
}
