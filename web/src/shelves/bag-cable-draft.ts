import type { BagCable } from '@fairwatt/contract';
import { mayHaveTwoEnds, parseFigure } from '@fairwatt/core';

/** A plug as it is typed. */
export interface PlugDraft {
  readonly kind: BagCable['plugs'][number]['kind'];
  readonly millimetres: string;
  readonly ends: string;
}

/** A spare cable as it is typed. */
export interface BagCableDraft {
  readonly label: string;
  readonly place: string;
  readonly family: BagCable['family'];
  readonly cameWith: string;
  readonly note: string;
  readonly gauge: string;
  readonly twoEnded: boolean;
  readonly codedWatts: string;
  readonly plugs: readonly PlugDraft[];
}

/** What another plug begins with. */
export const firstPlug: PlugDraft = { kind: 'sata', millimetres: '500', ends: '' };

const orEmpty = (figure: number | null | undefined) => (figure == null ? '' : String(figure));
const endText = (end: BagCable['plugs'][number]['ends'][number]) =>
  end === null ? '?' : end === 'none' ? '-' : typeof end === 'number' ? String(end) : end.join('+');

/** What was typed for one pin; what it does not understand is given back as it stands, for its field to refuse. */
function readEnd(typed: string): unknown {
  if (typed === '?') return null;
  if (typed === '-') return 'none';
  if (/^\d+(\+\d+)?$/.test(typed)) return typed.includes('+') ? typed.split('+').map(Number) : Number(typed);
  return typed;
}

export function draftOfCable(was: BagCable | null): BagCableDraft {
  return {
    label: was?.label ?? '',
    place: was?.place ?? '',
    family: was?.family ?? 'drive',
    cameWith: was?.cameWith ?? '',
    note: was?.note ?? '',
    gauge: orEmpty(was?.gauge),
    twoEnded: was?.twoEnded ?? false,
    codedWatts: orEmpty(was?.codedWatts),
    plugs: was?.plugs.map(({ kind, millimetres, ends }) => ({
      kind,
      millimetres: orEmpty(millimetres),
      ends: ends.map(endText).join(' '),
    })) ?? [firstPlug],
  };
}

/** What was typed as a cable, for its schema to read; what is no figure is left as it was typed. */
export function typedCable(draft: BagCableDraft, id: string, version: number): unknown {
  const { label, gauge, codedWatts, family } = draft;
  return {
    ...draft,
    id,
    version,
    label: label.trim(),
    gauge: gauge === '' ? null : Number(gauge),
    twoEnded: draft.twoEnded && mayHaveTwoEnds(family),
    codedWatts: family !== 'card-16' || codedWatts === '' ? null : Number(codedWatts),
    plugs: draft.plugs.map(({ kind, millimetres, ends }) => ({
      kind,
      millimetres: millimetres.trim() === '' ? null : (parseFigure(millimetres) ?? millimetres),
      ends: ends
        .split(/[\s,]+/)
        .filter((end) => end !== '')
        .map(readEnd),
    })),
  };
}
