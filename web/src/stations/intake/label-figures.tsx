import { Button, Checkbox, Grid, Input } from 'antd';
import { figureDoubtText, pieceBox, type Box, type FigureDoubt } from '@fairwatt/core';
import { FigureField } from '../../controls/fields.tsx';
import { Sheet } from '../../controls/sheet.tsx';
import type { LabelPicture } from '../../workers/label-worker.ts';
import { looks } from '../../looks/looks.ts';
import { isOpen, looked, typed, type DraftFigure, type LabelDraft } from './label-draft.ts';
import { usePictureAddress } from './use-picture-address.ts';
import styles from './label-reader.module.css';

/** One line of the sheet: a figure, what it is of, and how it is changed. */
interface Line {
  readonly id: string;
  readonly name: string;
  readonly unit: 'A' | 'W';
  readonly figure: DraftFigure;
  /** Null for the rating, without which there is no supply. */
  readonly taken: boolean | null;
  readonly put: (figure: DraftFigure) => void;
  readonly take: (taken: boolean) => void;
}

/** The line at a place changed, the others as they are. */
const changed = <T,>(list: readonly T[], index: number, change: Partial<T>): T[] =>
  list.map((one, position) => (position === index ? { ...one, ...change } : one));

function linesOf(draft: LabelDraft, onChange: (draft: LabelDraft) => void): Line[] {
  const outputs = draft.outputs.map(({ label, amps, taken }, index): Line => ({
    id: `output-${index}`,
    name: label,
    unit: 'A',
    figure: amps,
    taken,
    put: (figure) => onChange({ ...draft, outputs: changed(draft.outputs, index, { amps: figure }) }),
    take: (on) => onChange({ ...draft, outputs: changed(draft.outputs, index, { taken: on }) }),
  }));
  const limits = draft.limits.map(({ labels, watts, taken }, index): Line => ({
    id: `limit-${index}`,
    name: labels.length === 1 ? `${labels[0]}, its limit` : `${labels.join(' + ')} together`,
    unit: 'W',
    figure: watts,
    taken,
    put: (figure) => onChange({ ...draft, limits: changed(draft.limits, index, { watts: figure }) }),
    take: (on) => onChange({ ...draft, limits: changed(draft.limits, index, { taken: on }) }),
  }));
  const rating: Line = {
    id: 'rating',
    name: 'Rating',
    unit: 'W',
    figure: draft.rating,
    taken: null,
    put: (figure) => onChange({ ...draft, rating: figure }),
    take: () => undefined,
  };
  return [rating, ...outputs, ...limits];
}

/** The figures of a label that was read, each beside its piece of the picture. */
export function LabelFigures({
  label,
  draft,
  onChange,
}: {
  readonly label: LabelPicture;
  readonly draft: LabelDraft;
  readonly onChange: (draft: LabelDraft) => void;
}) {
  const wide = Grid.useBreakpoint().md === true;
  const address = usePictureAddress(label.picture);
  const what = (line: Line) =>
    line.taken === null ? (
      <strong>{line.name}</strong>
    ) : (
      <Checkbox checked={line.taken} onChange={(event) => line.take(event.target.checked)}>
        {line.name}
      </Checkbox>
    );
  const printed = ({ figure: { box }, name }: Line) =>
    box === null ? (
      <span className={looks.quiet}>not found</span>
    ) : (
      <Piece address={address} label={label} box={box} name={name} />
    );
  const value = (line: Line) => (
    <FigureField
      bare
      label={`${line.name}, ${line.unit === 'A' ? 'amps' : 'watts'}`}
      unit={line.unit}
      least={line.unit === 'A' ? 0.1 : 1}
      most={line.unit === 'A' ? 1000 : 10_000}
      value={line.figure.value}
      disabled={line.taken === false}
      onChange={(typedValue) => line.put(typed(line.figure, typedValue))}
    />
  );
  const toLookAt = (line: Line) => line.taken !== false && <ToLookAt line={line} />;
  return (
    <>
      <label className={`${looks.field} ${styles.name}`}>
        <span className={looks.name}>Name</span>
        <Input
          value={draft.name}
          maxLength={80}
          onChange={(event) => onChange({ ...draft, name: event.target.value })}
        />
      </label>
      <Sheet
        label="Figures on the label"
        rows={linesOf(draft, onChange)}
        rowKey={({ id }) => id}
        columns={
          wide
            ? [
                { names: true, head: 'Figure', cell: what },
                { head: 'As it is printed', cell: printed },
                { head: 'Read', width: 130, cell: value },
                { head: 'To look at', cell: toLookAt },
              ]
            : [
                {
                  head: 'Figure, as it is printed, and read',
                  cell: (line) => (
                    <div className={styles.narrow}>
                      {what(line)}
                      {printed(line)}
                      {value(line)}
                      {toLookAt(line)}
                    </div>
                  ),
                },
              ]
        }
      />
    </>
  );
}

/** The doubt that tells most where to look. */
const gravest = (doubts: readonly FigureDoubt[]): FigureDoubt =>
  (['differs', 'adds-up-not', 'unusual', 'mended'] as const).find((doubt) => doubts.includes(doubt)) ?? 'unsure';

function ToLookAt({ line: { figure, name, put } }: { readonly line: Line }) {
  if (figure.value === null) return <span className={styles.doubt}>type it from the label</span>;
  if (figure.doubts.length === 0) return null;
  if (!isOpen(figure)) return <span className={looks.quiet}>looked at</span>;
  return (
    <div className={styles.look}>
      <span className={styles.doubt}>{figureDoubtText[gravest(figure.doubts)]}</span>
      <Button size="small" aria-label={`${name} is right`} onClick={() => put(looked(figure))}>
        It is right
      </Button>
    </div>
  );
}

/** Height of a piece on the screen, in pixels, and its width at most. */
const pieceHigh = 30;
const pieceWide = 260;

/** The piece of the evened picture that a figure stands in. */
function Piece({
  address,
  label: { width, height },
  box,
  name,
}: {
  readonly address: string | null;
  readonly label: LabelPicture;
  readonly box: Box;
  readonly name: string;
}) {
  const { left, top, right, bottom } = pieceBox(box);
  const scale = Math.min(pieceHigh / (bottom - top), pieceWide / (right - left));
  if (address === null) return null;
  return (
    <div
      className={styles.piece}
      role="img"
      aria-label={`${name}, as it is printed`}
      style={{
        width: (right - left) * scale,
        height: (bottom - top) * scale,
        backgroundImage: `url(${address})`,
        backgroundSize: `${width * scale}px ${height * scale}px`,
        backgroundPosition: `${-left * scale}px ${-top * scale}px`,
      }}
    />
  );
}
