import type { CandidateRow } from '@fairwatt/core';

/** The mark of each class, and its word. */
export const classMark = { fits: 'pass', almost: 'marginal', falls: 'fail' } as const satisfies Record<
  CandidateRow['class'],
  string
>;
export const classWord = { fits: 'fits', almost: 'almost', falls: 'falls' } as const satisfies Record<
  CandidateRow['class'],
  string
>;
