import type { ReactNode } from 'react';
import { inletFace, type InletKind, type PinSignal, type SmallContact } from '@fairwatt/core';
import { wire, type WireColour } from '../app/palette.ts';
import { looks } from '../looks/looks.ts';
import styles from './pins.module.css';

const signalWire: Record<PinSignal, WireColour> = {
  '12': 'yellow',
  '5': 'red',
  '3.3': 'orange',
  G: 'black',
  SB: 'purple',
  PG: 'grey',
  ST: 'green',
  '-12': 'blue',
  S: 'grey',
  NC: 'white',
};
const latched: ReadonlySet<InletKind> = new Set([
  'main-24',
  'main-20',
  'cpu-8',
  'cpu-4',
  'card-8',
  'card-6',
  'card-16',
]);

/** One pin: its cell, framed where it is lit, and pressed where presses are heard. */
function PinFrame({
  pin,
  x,
  y,
  size: [width, height],
  fill,
  lit,
  onPin,
  children,
}: {
  readonly pin: number;
  readonly x: number;
  readonly y: number;
  readonly size: readonly [width: number, height: number];
  readonly fill: string;
  readonly lit: boolean;
  readonly onPin: ((pin: number) => void) | undefined;
  readonly children: ReactNode;
}) {
  return (
    <g data-pin={pin} {...(onPin === undefined ? {} : { onClick: () => onPin(pin), cursor: 'pointer' })}>
      <rect
        x={x + 1.5}
        y={y + 1}
        width={width - 3}
        height={height - 3}
        rx={2}
        fill={fill}
        stroke={lit ? 'var(--action)' : 'none'}
        strokeWidth={lit ? 4 : 0}
      />
      {children}
    </g>
  );
}

/** A small contact beside the rows; one that is not walked is drawn and never lit. */
function SmallPin({
  contact,
  x,
  y,
  cell,
  lit,
  mark,
  onPin,
}: {
  readonly contact: SmallContact;
  readonly x: number;
  readonly y: number;
  readonly cell: number;
  readonly lit: boolean;
  readonly mark: string | undefined;
  readonly onPin: ((pin: number) => void) | undefined;
}) {
  return (
    <PinFrame pin={contact.pin} x={x} y={y} size={[cell, cell * 0.56]} fill="var(--track)" lit={lit} onPin={onPin}>
      {cell >= 18 && (
        <text
          className={looks.fig}
          x={x + cell / 2}
          y={y + cell * 0.28 + 4}
          textAnchor="middle"
          fontSize={cell < 26 ? 8 : 11}
          fill="var(--ink)"
        >
          {mark === undefined ? contact.name : `${contact.name} ${mark}`}
        </text>
      )}
    </PinFrame>
  );
}

type FacePin = (typeof inletFace)[InletKind]['rows'][number][number];

/** A pin of the plug's rows: its signal on its wire's colour. */
function LargePin({
  pin,
  x,
  y,
  cell,
  lit,
  mark,
  onPin,
}: {
  readonly pin: FacePin;
  readonly x: number;
  readonly y: number;
  readonly cell: number;
  readonly lit: boolean;
  readonly mark: string | undefined;
  readonly onPin: ((pin: number) => void) | undefined;
}) {
  const colour = wire[signalWire[pin.signal]];
  return (
    <PinFrame pin={pin.pin} x={x} y={y} size={[cell, cell * 0.86]} fill={colour.fill} lit={lit} onPin={onPin}>
      {cell >= 18 && (
        <text
          className={looks.fig}
          x={x + cell / 2}
          y={y + cell * 0.43 + 4}
          textAnchor="middle"
          fontSize={cell < 26 ? (pin.signal.length > 2 ? 8 : 9.5) : 12}
          fill={colour.text}
        >
          {pin.signal}
        </text>
      )}
      {cell >= 40 && (
        <text className={looks.fig} x={x + 6} y={y + 12} fontSize={9.5} fill={colour.text}>
          {pin.pin}
        </text>
      )}
      {mark !== undefined && (
        <text x={x + cell - 5} y={y + 14} textAnchor="end" fontSize={13} fontWeight={700} fill={colour.text}>
          {mark}
        </text>
      )}
    </PinFrame>
  );
}

/** The plug's outline, with its latch on top where it has one. */
function Shell({
  latched,
  width,
  top,
  height,
}: {
  readonly latched: boolean;
  readonly width: number;
  readonly top: number;
  readonly height: number;
}) {
  return (
    <>
      {latched && <rect x={width / 2 - 22} y={1} width={44} height={12} fill="var(--ink)" />}
      <rect
        x={1}
        y={top}
        width={width - 2}
        height={height - top - 1}
        rx={3}
        fill="var(--sheet)"
        stroke="var(--ink)"
        strokeWidth={1.6}
      />
    </>
  );
}

/** From the wires (as it is back-probed) or from the contacts (as one looks into the loose plug). */
export type FaceSide = 'wires' | 'contacts';

/** A plug's face, latch up; `lit` pins are framed and named, `marks` stand on the pins that were judged. */
export function ConnectorFace({
  kind,
  lit = [],
  width = 290,
  side = 'wires',
  marks,
  cellMost = 34,
  seamAfter,
  onPin,
}: {
  readonly kind: InletKind;
  readonly lit?: readonly number[];
  readonly width?: number;
  readonly side?: FaceSide;
  readonly marks?: ReadonlyMap<number, string>;
  readonly cellMost?: number;
  /** Where a plug comes apart: behind so many columns from pin 1's end. */
  readonly seamAfter?: number | undefined;
  readonly onPin?: (pin: number) => void;
}) {
  const { rows, small = [] } = inletFace[kind];
  const columns = Math.max(...rows.map((row) => row.length));
  const cell = Math.min(cellMost, Math.floor((width - 16) / columns));
  const tall = latched.has(kind) ? 12 : 2;
  const w = columns * cell + 16;
  const smallTop = tall + 7 + rows.length * cell * 0.86;
  const h = rows.length * (cell * 0.86) + 14 + tall + (small.length > 0 ? cell * 0.62 : 0);
  return (
    <svg
      className={styles.pins}
      width={w}
      height={h}
      viewBox={`0 0 ${w} ${h}`}
      role="img"
      aria-label={
        `${kind} plug from the ${side === 'wires' ? 'wire' : 'contact'} side, latch ` +
        `up${lit.length > 0 ? `, pin ${lit.join(' and ')} marked` : ''}`
      }
    >
      <Shell latched={latched.has(kind)} width={w} top={tall} height={h} />
      {rows.map((row, rowIndex) =>
        row.map((pin, column) => (
          <LargePin
            key={pin.pin}
            pin={pin}
            x={8 + (side === 'wires' ? column : row.length - 1 - column) * cell}
            y={tall + 7 + rowIndex * cell * 0.86}
            cell={cell}
            lit={lit.includes(pin.pin)}
            mark={marks?.get(pin.pin)}
            onPin={onPin}
          />
        )),
      )}
      {small.map((contact, index) => (
        <SmallPin
          key={contact.pin}
          contact={contact}
          x={8 + ((side === 'wires' ? index : small.length - 1 - index) + (columns - small.length) / 2) * cell}
          y={smallTop}
          cell={cell}
          lit={lit.includes(contact.pin)}
          mark={marks?.get(contact.pin)}
          onPin={contact.signal === 'coded' ? onPin : undefined}
        />
      ))}
      {seamAfter !== undefined && (
        <path
          d={`M${8 + (side === 'wires' ? seamAfter : columns - seamAfter) * cell} ${tall} V${h - 1}`}
          strokeWidth={2.5}
          stroke="var(--action)"
        />
      )}
    </svg>
  );
}
