import { percentText, type CandidateRow } from '@fairwatt/core';

/** The mark of each class, and its word. */
export const classMark = { fits: 'pass', almost: 'marginal', falls: 'fail' } as const satisfies Record<
  CandidateRow['class'],
  string
>;
export const classWord = { fits: 'fits', almost: 'almost', falls: 'falls' } as const satisfies Record<
  CandidateRow['class'],
  string
>;

/** The reason that stands when nobody writes one. */
export function automaticReason(candidate: CandidateRow): string {
  return (
    `${candidate.model.onShelf > 0 ? 'On the shelf' : 'To order'}, lasting load ` +
    `${percentText(candidate.load.loadShare ?? 0)} of its rating, every needed inlet served.`
  );
}
