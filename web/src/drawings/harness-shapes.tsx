import type { KeyboardEvent } from 'react';
import { placeText, type InletRow } from '@fairwatt/core';
import { looks } from '../looks/looks.ts';
import {
  caseLeft,
  leastPitch,
  panelRight,
  width,
  type DrawnEnd,
  type DrawnSocket,
  type PlaceFrame,
} from './harness-layout.ts';
import { atInlet, marks, type DrawnState, type DrawnWords } from './harness-words.ts';

const dashes: Record<DrawnState, string | undefined> = {
  seated: undefined,
  'to-seat': '9 6',
  stays: undefined,
  open: '2 5',
  wrong: '14 3 3 3',
  unplugged: '3 6',
};
const colours: Record<DrawnState, string> = {
  seated: 'var(--ink)',
  'to-seat': 'var(--action)',
  stays: 'var(--ink-2)',
  open: 'var(--fail)',
  wrong: 'var(--fail)',
  unplugged: 'var(--action)',
};
const shortened = (text: string, most: number) => (text.length > most ? `${text.slice(0, most - 1)}…` : text);

/** The two headings and the panel of the supply. */
const emptyPanel = ['No sockets are known here.', 'Fixed cables appear', 'as they are recorded.'];

export function Panel(props: { readonly title: string; readonly height: number; readonly isEmpty: boolean }) {
  const { title, height, isEmpty } = props;
  return (
    <>
      <text x={0} y={16} fontSize={13.5} fontWeight={600} fill="var(--ink-2)">
        {title}
      </text>
      <text x={width} y={16} fontSize={13.5} fontWeight={600} textAnchor="end" fill="var(--ink-2)">
        Inlets, by their place in the case
      </text>
      <rect x={0.5} y={28} width={panelRight} height={height - 34} fill="var(--side)" stroke="var(--ink)" />
      {isEmpty &&
        emptyPanel.map((line, index) => (
          <text key={line} x={16} y={58 + index * 20} fontSize={13.5} fill="var(--ink-2)">
            {line}
          </text>
        ))}
    </>
  );
}

/** A socket of the panel; a button where it can be picked. */
export function SocketShape({
  socket,
  y,
  isCurrent,
  onPick,
}: {
  readonly socket: DrawnSocket;
  readonly y: number;
  readonly isCurrent: boolean;
  readonly onPick: ((key: string) => void) | undefined;
}) {
  return (
    <g
      opacity={socket.used || onPick !== undefined ? 1 : 0.55}
      data-socket={socket.key}
      {...(onPick !== undefined && {
        role: 'button',
        tabIndex: 0,
        'aria-label': `${socket.label}, ${socket.used ? 'a cable is in it' : 'nothing recorded'}`,
        'aria-pressed': isCurrent,
        cursor: 'pointer',
        onClick: () => onPick(socket.key),
        onKeyDown: (event: KeyboardEvent) => {
          if (event.key !== ' ') return;
          event.preventDefault();
          onPick(socket.key);
        },
      })}
    >
      {onPick !== undefined && (
        <rect
          x={4}
          y={y - leastPitch / 2}
          width={190}
          height={leastPitch}
          fill={isCurrent ? 'var(--manila)' : 'transparent'}
        />
      )}
      <text
        x={128}
        y={y + 5}
        fontSize={13}
        textAnchor="end"
        {...(isCurrent ? { fill: 'var(--on-manila)', fontWeight: 700 } : {})}
      >
        {socket.plugged ? '✓ ' : ''}
        {socket.label}
      </text>
      <rect
        x={136}
        y={y - 10}
        width={56}
        height={20}
        rx={2}
        fill="var(--sheet)"
        stroke="var(--ink)"
        strokeDasharray={socket.used ? undefined : '3 3'}
      />
      {[0, 1, 2, 3].map((slot) => (
        <rect
          key={slot}
          x={143 + slot * 12}
          y={y - 4.5}
          width={6}
          height={9}
          fill={socket.used ? 'var(--ink)' : 'var(--line)'}
        />
      ))}
    </g>
  );
}

/** The frame of a place in the case, with its name. */
export function PlaceShape({ frame }: { readonly frame: PlaceFrame }) {
  return (
    <g>
      <path
        d={`M${width - 0.5} ${frame.top + 10}V${frame.bottom}H${caseLeft - 8}V${frame.top + 18}`}
        fill="none"
        stroke="var(--line)"
      />
      <text x={caseLeft - 8} y={frame.top + 14} fontSize={12.5} fontWeight={600} fill="var(--ink-2)">
        {placeText[frame.place]}
      </text>
    </g>
  );
}

/** The wires of an inlet, each from its socket; a stump where no cable comes to it. */
export function WiresShape({
  ends,
  state,
  y,
  startOf,
  isBright,
  isDim,
}: {
  readonly ends: readonly DrawnEnd[];
  readonly state: DrawnState;
  readonly y: number;
  /** Where the wire from a socket begins. */
  readonly startOf: (key: string) => number;
  readonly isBright: boolean;
  readonly isDim: boolean;
}) {
  const line = { stroke: colours[state], strokeDasharray: dashes[state] };
  if (ends.length === 0) return <path d={`M${caseLeft - 66} ${y}H${caseLeft}`} strokeWidth={3} {...line} />;
  return ends.map(({ key }, index) => {
    const start = startOf(key);
    return (
      <path
        key={index}
        d={`M192 ${start}H262C350 ${start} 372 ${y} ${caseLeft} ${y}`}
        fill="none"
        strokeWidth={isBright ? 5.5 : 3}
        opacity={isDim ? 0.35 : 1}
        {...line}
      />
    );
  });
}

/** An inlet: its mark, its label and what is said beside it. */
export function InletShape({
  row,
  state,
  y,
  words,
  isHere,
  isBright,
}: {
  readonly row: InletRow;
  readonly state: DrawnState;
  readonly y: number;
  readonly words: Partial<DrawnWords>;
  readonly isHere: boolean;
  readonly isBright: boolean;
}) {
  const amiss = state === 'open' || state === 'wrong';
  return (
    <>
      <rect
        data-target
        x={caseLeft}
        y={y - leastPitch / 2}
        width={width - caseLeft}
        height={leastPitch}
        fill="transparent"
      />
      <rect
        x={caseLeft}
        y={y - 11}
        width={40}
        height={22}
        rx={2}
        fill={state === 'seated' ? 'var(--ink)' : 'var(--sheet)'}
        stroke={colours[state]}
        strokeWidth={isHere ? 3.5 : 2}
        strokeDasharray={state === 'open' ? '3 3' : undefined}
      />
      <text
        x={caseLeft + 20}
        y={y + 5.5}
        fontSize={15}
        fontWeight={700}
        textAnchor="middle"
        fill={state === 'seated' ? 'var(--sheet)' : colours[state]}
      >
        {marks[state]}{' '}
      </text>
      <text
        x={caseLeft + 50}
        y={y + 5}
        fontSize={14.5}
        fontWeight={isHere || isBright ? 700 : 600}
        fill={amiss ? 'var(--fail)' : 'var(--ink)'}
      >
        {shortened(row.label, 24)}{' '}
      </text>
      <text x={width - 10} y={y + 5} fontSize={13} textAnchor="end" fill={amiss ? 'var(--fail)' : 'var(--ink-2)'}>
        {atInlet(row, state, words)}
      </text>
    </>
  );
}

/** The tag of a cable at its socket. */
export function CodeShape({ code, y, isLit }: { readonly code: string; readonly y: number; readonly isLit: boolean }) {
  return (
    <g pointerEvents="none">
      <rect
        x={212}
        y={y - 10}
        width={44}
        height={20}
        fill="var(--manila)"
        stroke={isLit ? 'var(--ink)' : 'none'}
        strokeWidth={2}
      />
      <text className={looks.fig} x={234} y={y + 5} fontSize={13} textAnchor="middle" fill="var(--on-manila)">
        {shortened(code, 5)}
      </text>
    </g>
  );
}

/** The plug that is being dragged, on its line from the inlet where it is. */
export function DragShape({ from, x, y }: { readonly from: number; readonly x: number; readonly y: number }) {
  return (
    <g pointerEvents="none">
      <line x1={caseLeft} y1={from} x2={x} y2={y} stroke="var(--action)" strokeWidth={3} />
      <rect x={x - 20} y={y - 11} width={40} height={22} fill="var(--manila)" stroke="var(--ink)" />
    </g>
  );
}
