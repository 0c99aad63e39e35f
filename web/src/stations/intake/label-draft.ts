import {
  emptyLabel,
  readDate,
  usualShape,
  yearsSince,
  type Box,
  type CaseLayout,
  type FigureDoubt,
  type LabelRead,
  type PresentSupply,
  type RailName,
  type ReadFigure,
} from '@fairwatt/core';

/** A figure of a label that was read, until somebody looked at it. */
export interface DraftFigure {
  /** Null where none was found, or what is typed is none. */
  readonly value: number | null;
  readonly box: Box | null;
  readonly doubts: readonly FigureDoubt[];
  readonly looked: boolean;
}

export interface DraftOutput {
  readonly label: string;
  readonly rail: RailName;
  readonly amps: DraftFigure;
  readonly taken: boolean;
}

export interface DraftLimit {
  readonly labels: readonly string[];
  readonly watts: DraftFigure;
  readonly taken: boolean;
}

/** What a label tells beside its figures, and that goes into the record. */
export type Beside = 'shape' | 'guide' | 'grade' | 'has16Pin' | 'date';
const allBesides: readonly Beside[] = ['shape', 'guide', 'grade', 'has16Pin', 'date'];

/** What was read of a label, as it stands on the screen. */
export interface LabelDraft {
  readonly name: string;
  readonly rating: DraftFigure;
  readonly outputs: readonly DraftOutput[];
  readonly limits: readonly DraftLimit[];
  /** What of the rest is taken. */
  readonly besides: readonly Beside[];
}

const asDraft = (figure: ReadFigure | null): DraftFigure => ({
  value: figure?.value ?? null,
  box: figure?.box ?? null,
  doubts: figure?.doubts ?? [],
  looked: false,
});

/** What of the rest was read at all. */
export const besidesOf = (read: LabelRead): Beside[] =>
  allBesides.filter((beside) => read[beside] !== null && read[beside] !== false);

export const draftOf = (read: LabelRead): LabelDraft => ({
  name: read.name ?? '',
  rating: asDraft(read.rating),
  outputs: read.outputs.map(({ label, rail, amps }) => ({ label, rail, amps: asDraft(amps), taken: true })),
  limits: read.limits.map(({ labels, watts }) => ({ labels, watts: asDraft(watts), taken: true })),
  besides: besidesOf(read),
});

/** Whether a figure still waits for somebody's look. */
export const isOpen = ({ value, doubts, looked }: DraftFigure): boolean =>
  value === null || (doubts.length > 0 && !looked);

export const looked = (figure: DraftFigure): DraftFigure => ({ ...figure, looked: true });

/** What somebody typed was looked at. */
export const typed = (figure: DraftFigure, value: number | null): DraftFigure => ({ ...figure, value, looked: true });

/** How many of the figures that would be taken still wait for a look. */
export const openCount = ({ rating, outputs, limits }: LabelDraft): number =>
  [
    rating,
    ...outputs.filter(({ taken }) => taken).map(({ amps }) => amps),
    ...limits.filter(({ taken }) => taken).map(({ watts }) => watts),
  ].filter(isOpen).length;

/**
 * The supply as it is kept: what was read, over what was known before.
 * @param before the supply that stands in the job, null where none does
 * @throws where figures are open still
 */
export function supplyOf(
  draft: LabelDraft,
  read: LabelRead,
  before: PresentSupply | null,
  layout: CaseLayout,
): Omit<PresentSupply, 'version'> {
  const known = before?.label ?? { ...emptyLabel, shape: usualShape[layout] };
  const outputs = draft.outputs.filter(({ taken }) => taken);
  const takes = <T>(beside: Beside, value: T): T | null => (draft.besides.includes(beside) ? value : null);
  const isThere = (label: string) => outputs.some((output) => output.label === label);
  return {
    ...(before?.selector === undefined ? {} : { selector: before.selector }),
    name: draft.name.trim() === '' ? (before?.name ?? '') : draft.name.trim(),
    label: {
      ...known,
      ratingWatts: figureOf(draft.rating),
      rails: outputs.map(({ label, rail, amps }) => ({ label, rail, amps: figureOf(amps) })),
      combined: draft.limits
        .filter(({ taken, labels }) => taken && labels.every(isThere))
        .map(({ labels, watts }) => ({ labels, watts: figureOf(watts) })),
      shape: takes('shape', read.shape) ?? known.shape,
      guide: takes('guide', read.guide) ?? known.guide,
      grade: takes('grade', read.grade) ?? known.grade,
      has16Pin: takes('has16Pin', read.has16Pin) === true || known.has16Pin,
    },
  };
}

function figureOf({ value }: DraftFigure): number {
  if (value === null) throw new Error('A figure of the label is still open.');
  return value;
}

/** Years by the date that stands on a label; null where none was read. @param today ISO date */
export function yearsOf({ date }: LabelRead, today: string): number | null {
  const read = date === null ? null : readDate(date, today);
  return read === null ? null : yearsSince(read, today);
}
