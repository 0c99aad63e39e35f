import type { KeyboardEvent, RefCallback } from 'react';
import { useDraggable, useDroppable } from '@dnd-kit/core';
import type { InletRow } from '@fairwatt/core';
import type { DrawnEnd } from './harness-layout.ts';
import { InletShape, WiresShape } from './harness-shapes.tsx';
import { nameOf, type DrawnState, type DrawnWords } from './harness-words.ts';

/** Where something is in the page is known of drawings as of everything else; the package's type says less. */
const inDrawing = (ref: (element: HTMLElement | null) => void) => ref as unknown as RefCallback<SVGGElement>;

/** An inlet with the wires that come to it: a button, and where plugs are moved, what is dragged and dropped on. */
export function InletInDrawing({
  row,
  state,
  ends,
  y,
  startOf,
  words,
  isHere,
  isBright,
  isDim,
  movable,
  onPick,
  onOver,
  onKey,
}: {
  readonly row: InletRow;
  readonly state: DrawnState;
  readonly ends: readonly DrawnEnd[];
  readonly y: number;
  /** Where the wire from a socket begins. */
  readonly startOf: (key: string) => number;
  readonly words: Partial<DrawnWords>;
  readonly isHere: boolean;
  readonly isBright: boolean;
  readonly isDim: boolean;
  /** Plugs can be moved in this drawing. */
  readonly movable: boolean;
  readonly onPick: () => void;
  readonly onOver: (isOver: boolean) => void;
  readonly onKey: (event: KeyboardEvent) => void;
}) {
  const id = row.inletId;
  const { setNodeRef: takenFrom, listeners } = useDraggable({ id, disabled: !movable || row.plugKind === null });
  const { setNodeRef: putInto } = useDroppable({ id, disabled: !movable });
  return (
    <g
      ref={inDrawing(takenFrom)}
      role="button"
      tabIndex={0}
      data-inlet={id}
      data-state={state}
      data-lit={isBright}
      aria-label={nameOf(row, state, words)}
      aria-current={isHere}
      cursor={movable ? 'grab' : 'pointer'}
      onClick={onPick}
      onPointerEnter={() => onOver(true)}
      onPointerLeave={() => onOver(false)}
      onFocus={() => onOver(true)}
      onBlur={() => onOver(false)}
      onKeyDown={onKey}
      {...listeners}
    >
      <WiresShape ends={ends} state={state} y={y} startOf={startOf} isBright={isBright} isDim={isDim} />
      <g ref={inDrawing(putInto)}>
        <InletShape row={row} state={state} y={y} words={words} isHere={isHere} isBright={isBright} />
      </g>
    </g>
  );
}
