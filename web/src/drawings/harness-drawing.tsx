import { useRef, useState } from 'react';
import { cableEnds, casePlaces, endsNamed, placeText, stateWordText, type InletRow } from '@fairwatt/core';

export interface DrawnSocket {
  readonly key: string;
  readonly label: string;
  readonly used: boolean;
  /** Somebody ticked that its cable is in. */
  readonly plugged: boolean;
}
const marks = { seated: '✓', 'to-seat': '', stays: '', open: '!', wrong: '✕', unplugged: '○' } as const;
type DrawnState = keyof typeof marks;
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
/** What the states are called where they are not those of seating. */
export type DrawnWords = Readonly<Record<'seated' | 'to-seat' | 'open' | 'wrong', string>>;
const wordOf = (row: InletRow, state: DrawnState, words: Partial<DrawnWords>) => {
  if (state === 'unplugged') return 'unplugged, to seat';
  return (state === 'stays' ? undefined : words[state]) ?? stateWordText[row.state];
};
const noSockets: readonly string[] = [];
const width = 820;
const panelRight = 196;
const caseLeft = 470;

/** What stands beside an inlet, and first in its name: what is in between, that a hand put it there, its state. */
const atInlet = (row: InletRow, state: DrawnState, words: Partial<DrawnWords>) =>
  [row.adapterLabel, row.pinned ? 'by hand' : null, wordOf(row, state, words)]
    .filter((piece) => piece !== null)
    .join(', ');

/** All that the drawing says of an inlet: its state, its cable with socket and plug, an adapter, its place. */
const nameOf = (row: InletRow, state: DrawnState, words: Partial<DrawnWords>) =>
  [
    `${row.label} ${atInlet(row, state, words)}`,
    row.cableCode === null ? '' : `cable ${row.cableCode}`,
    row.socketLabel === null ? '' : `socket ${row.socketLabel}`,
    row.adapterId === null ? '' : `through ${row.adapterLabel ?? 'an adapter'}`,
    placeText[row.place],
  ]
    .filter((piece) => piece !== '')
    .join(', ');

interface Props {
  readonly title: string;
  readonly rows: readonly InletRow[];
  readonly sockets: readonly DrawnSocket[];
  readonly current: string | null;
  /** A cable that is lit as a whole, from a tag or a table. */
  readonly litCable?: string | null;
  /** Inlets whose old plug is out. */
  readonly unplugged: ReadonlySet<string>;
  readonly zoom: number;
  readonly words?: Partial<DrawnWords>;
  readonly onPick: (inletId: string) => void;
  /** Sockets can be picked as well; absent where they only show. */
  readonly onPickSocket?: ((key: string) => void) | undefined;
  readonly currentSockets?: readonly string[];
  /** The plug in one inlet is moved to another, by drag; absent where nothing can be moved. */
  readonly onMove?: ((fromInletId: string, toInletId: string) => void) | undefined;
}

/** An end of a cable at a socket that is drawn: one, or two where the cable has two plugs at the supply. */
interface DrawnEnd {
  readonly cableCode: string;
  readonly key: string;
}

function drawnEnds(row: InletRow, sockets: readonly DrawnSocket[]): readonly DrawnEnd[] {
  const kit = { sockets: sockets.map(({ key }) => ({ label: key })) };
  return cableEnds(row).flatMap(({ cableCode, socketLabel }) =>
    (socketLabel === null ? [`fixed ${cableCode}`] : endsNamed(kit, socketLabel)).map((key) => ({ cableCode, key })),
  );
}

/**
 * Sockets stay in the order of the panel, each as near to the middle of its inlets as the order and their height allow.
 */
export function socketPlaces(inletYs: readonly (readonly number[])[], height: number): number[] {
  const [top, bottom, least] = [46, height - 22, 25];
  const even = (index: number) => top + ((index + 0.5) * (bottom - top)) / Math.max(1, inletYs.length);
  const ys = inletYs.map((list, index) =>
    list.length === 0 ? even(index) : list.reduce((sum, y) => sum + y, 0) / list.length,
  );
  for (let index = 1; index < ys.length; index += 1) ys[index] = Math.max(ys[index]!, ys[index - 1]! + least);
  for (let index = ys.length - 1, limit = bottom; index >= 0; index -= 1, limit = ys[index + 1]! - least)
    ys[index] = Math.min(ys[index]!, limit);
  for (let index = 0, limit = top; index < ys.length; index += 1, limit = ys[index - 1]! + least)
    ys[index] = Math.max(ys[index]!, limit);
  return ys;
}

/**
 * The supply's panel, cables as wires, inlets where they are in the case. State is told by mark, line and word as well
 * as colour. A whole cable is lit while one of its inlets is pointed at or focused. Plugs are moved by drag.
 */
export function HarnessDrawing({
  title,
  rows,
  sockets,
  current,
  litCable = null,
  unplugged,
  zoom,
  words = {},
  onPick,
  onPickSocket,
  currentSockets = noSockets,
  onMove,
}: Props) {
  const svg = useRef<SVGSVGElement>(null);
  const [over, setOver] = useState<string | null>(null);
  const [drag, setDrag] = useState<{
    readonly from: string;
    readonly x: number;
    readonly y: number;
    readonly moved: boolean;
  } | null>(null);
  const ends = new Map(rows.map((row) => [row, drawnEnds(row, sockets)]));
  const endsOf = (row: InletRow) => ends.get(row) ?? [];
  const socketIndex = (row: InletRow) => {
    const found = sockets.findIndex((socket) => socket.key === endsOf(row)[0]?.key);
    return found < 0 ? sockets.length : found;
  };
  // Places stand in the order of the sockets that usually serve them, and inside a place the inlets go by their
  // sockets, so that few wires cross.
  const zones = casePlaces
    .map((place) => ({
      place,
      rows: rows
        .filter((row) => row.place === place)
        .sort((a, b) => socketIndex(a) - socketIndex(b) || rows.indexOf(a) - rows.indexOf(b)),
    }))
    .filter((zone) => zone.rows.length > 0);
  const headHeight = 20;
  const gap = 4;
  // A usual machine is seen whole; a large one is scrolled, or made larger.
  const rowHeight = Math.min(34, Math.max(23, (452 - zones.length * (headHeight + gap)) / Math.max(1, rows.length)));
  const inletHeight = zones.length * headHeight + rows.length * rowHeight + (zones.length - 1) * gap;
  const height = 30 + Math.max(inletHeight, sockets.length * 25 + 44) + 6;
  const yInlet = new Map<string, number>();
  let y = 30;
  const frames = zones.map((zone) => {
    const top = y;
    y += headHeight;
    for (const row of zone.rows) {
      yInlet.set(row.inletId, y + rowHeight / 2);
      y += rowHeight;
    }
    const bottom = y;
    y += gap;
    return { ...zone, top, bottom };
  });
  const socketYs = socketPlaces(
    sockets.map((socket) =>
      rows.filter((row) => endsOf(row).some(({ key }) => key === socket.key)).map((row) => yInlet.get(row.inletId)!),
    ),
    height,
  );
  const ySocket = (index: number) => socketYs[index]!;
  const stateOf = (row: InletRow): DrawnState =>
    row.state === 'to-seat' && unplugged.has(row.inletId) ? 'unplugged' : row.state;
  const cableOfRow = (row: InletRow | undefined) => row?.cableCode ?? null;
  const lit = litCable ?? cableOfRow(rows.find((row) => row.inletId === (over ?? current)));
  // The others step back while a cable is pointed at or was asked for.
  const dims = over !== null || litCable !== null;
  const pointAt = (event: React.PointerEvent) => {
    const box = svg.current!.getBoundingClientRect();
    return {
      x: ((event.clientX - box.left) / box.width) * width,
      y: ((event.clientY - box.top) / box.height) * height,
    };
  };
  const order = frames.flatMap((frame) => frame.rows);
  function step(row: InletRow, by: number): void {
    const next = order[order.indexOf(row) + by];
    if (next === undefined) return;
    // Where a press records something, going along the inlets must not.
    if (onPickSocket === undefined) onPick(next.inletId);
    svg.current?.querySelector<SVGGElement>(`[data-inlet="${CSS.escape(next.inletId)}"]`)?.focus();
  }
  return (
    <div className="harness-scroll">
      <svg
        ref={svg}
        className="harness"
        viewBox={`0 0 ${width} ${height}`}
        style={{ width: `${zoom * 100}%` }}
        role="group"
        aria-label={title}
        data-harness
        onPointerMove={(event) => {
          if (drag !== null) {
            const at = pointAt(event);
            setDrag({ ...drag, ...at, moved: drag.moved || Math.abs(at.x - drag.x) + Math.abs(at.y - drag.y) > 3 });
          }
        }}
        onPointerUp={(event) => {
          if (drag === null) return;
          const target =
            document
              .elementsFromPoint(event.clientX, event.clientY)
              .map((element) => element.closest('[data-inlet]'))
              .find((element) => element !== null)
              ?.getAttribute('data-inlet') ?? null;
          setDrag(null);
          if (drag.moved && target !== null && target !== drag.from) onMove?.(drag.from, target);
        }}
        onPointerLeave={() => setDrag(null)}
      >
        <text x={0} y={16} fontSize={13.5} fontWeight={600} style={{ fill: 'var(--ink-2)' }}>
          {title}
        </text>
        <text x={width} y={16} fontSize={13.5} fontWeight={600} textAnchor="end" style={{ fill: 'var(--ink-2)' }}>
          Inlets, by their place in the case
        </text>
        <rect
          x={0.5}
          y={28}
          width={panelRight}
          height={height - 34}
          style={{ fill: 'var(--side)', stroke: 'var(--ink)' }}
        />
        {sockets.map((socket, index) => (
          <g
            key={socket.key}
            opacity={socket.used || onPickSocket !== undefined ? 1 : 0.55}
            data-socket={socket.key}
            {...(onPickSocket !== undefined && {
              role: 'button',
              tabIndex: 0,
              'aria-label': `${socket.label}, ${socket.used ? 'a cable is in it' : 'nothing recorded'}`,
              'aria-pressed': currentSockets.includes(socket.key),
              style: { cursor: 'pointer' },
              onClick: () => onPickSocket(socket.key),
              onKeyDown: (event: React.KeyboardEvent) => {
                if (event.key !== ' ') return;
                event.preventDefault();
                onPickSocket(socket.key);
              },
            })}
          >
            {onPickSocket !== undefined && (
              <rect
                x={4}
                y={ySocket(index) - 12}
                width={190}
                height={24}
                style={{ fill: currentSockets.includes(socket.key) ? 'var(--manila)' : 'transparent' }}
              />
            )}
            <text
              x={128}
              y={ySocket(index) + 5}
              fontSize={13}
              textAnchor="end"
              style={currentSockets.includes(socket.key) ? { fill: 'var(--on-manila)', fontWeight: 700 } : undefined}
            >
              {socket.plugged ? '✓ ' : ''}
              {socket.label}
            </text>
            <rect
              x={136}
              y={ySocket(index) - 10}
              width={56}
              height={20}
              rx={2}
              style={{ fill: 'var(--sheet)', stroke: 'var(--ink)' }}
              strokeDasharray={socket.used ? undefined : '3 3'}
            />
            {[0, 1, 2, 3].map((slot) => (
              <rect
                key={slot}
                x={143 + slot * 12}
                y={ySocket(index) - 4.5}
                width={6}
                height={9}
                style={{ fill: socket.used ? 'var(--ink)' : 'var(--line)' }}
              />
            ))}
          </g>
        ))}
        {frames.map((frame) => (
          <g key={frame.place}>
            <path
              d={`M${width - 0.5} ${frame.top + 10}V${frame.bottom}H${caseLeft - 8}V${frame.top + 18}`}
              fill="none"
              style={{ stroke: 'var(--line)' }}
            />
            <text x={caseLeft - 8} y={frame.top + 14} fontSize={12.5} fontWeight={600} style={{ fill: 'var(--ink-2)' }}>
              {placeText[frame.place]}
            </text>
          </g>
        ))}
        {order.map((row) => {
          const at = yInlet.get(row.inletId)!;
          const state = stateOf(row);
          const own = endsOf(row);
          const bright = lit !== null && own.some((end) => end.cableCode === lit);
          const here = row.inletId === current;
          const wide = bright ? 5.5 : 3;
          return (
            <g
              key={row.inletId}
              role="button"
              tabIndex={0}
              data-inlet={row.inletId}
              data-state={state}
              data-lit={bright}
              aria-label={nameOf(row, state, words)}
              aria-current={here}
              style={{ cursor: onMove === undefined ? 'pointer' : 'grab' }}
              onClick={() => onPick(row.inletId)}
              onPointerEnter={() => setOver(row.inletId)}
              onPointerLeave={() => setOver(null)}
              onFocus={() => setOver(row.inletId)}
              onBlur={() => setOver(null)}
              onPointerDown={(event) => {
                if (onMove !== undefined && row.plugKind !== null) {
                  event.preventDefault();
                  event.currentTarget.focus();
                  setDrag({ from: row.inletId, ...pointAt(event), moved: false });
                }
              }}
              onKeyDown={(event) => {
                if (event.key === ' ') {
                  event.preventDefault();
                  onPick(row.inletId);
                }
                if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
                  event.preventDefault();
                  step(row, event.key === 'ArrowDown' ? 1 : -1);
                }
              }}
            >
              {own.length === 0 && (
                <path
                  d={`M${caseLeft - 66} ${at}H${caseLeft}`}
                  style={{ stroke: colours[state] }}
                  strokeWidth={3}
                  strokeDasharray={dashes[state]}
                />
              )}
              {own.map((end, index) => {
                const from = sockets.findIndex((socket) => socket.key === end.key);
                const start = from < 0 ? at : ySocket(from);
                return (
                  <path
                    key={index}
                    d={`M192 ${start}H262C350 ${start} 372 ${at} ${caseLeft} ${at}`}
                    fill="none"
                    style={{ stroke: colours[state] }}
                    strokeWidth={wide}
                    strokeDasharray={dashes[state]}
                    opacity={dims && lit !== null && !bright ? 0.35 : 1}
                  />
                );
              })}
              <rect
                x={caseLeft}
                y={at - 11}
                width={40}
                height={22}
                rx={2}
                style={{ fill: state === 'seated' ? 'var(--ink)' : 'var(--sheet)', stroke: colours[state] }}
                strokeWidth={here ? 3.5 : 2}
                strokeDasharray={state === 'open' ? '3 3' : undefined}
              />
              <text
                x={caseLeft + 20}
                y={at + 5.5}
                fontSize={15}
                fontWeight={700}
                textAnchor="middle"
                style={{ fill: state === 'seated' ? 'var(--sheet)' : colours[state] }}
              >
                {marks[state]}{' '}
              </text>
              <text
                x={caseLeft + 50}
                y={at + 5}
                fontSize={14.5}
                fontWeight={here || bright ? 700 : 600}
                style={{ fill: state === 'open' || state === 'wrong' ? 'var(--fail)' : 'var(--ink)' }}
              >
                {row.label.length > 24 ? `${row.label.slice(0, 23)}…` : row.label}{' '}
              </text>
              <text
                x={width - 10}
                y={at + 5}
                fontSize={13}
                textAnchor="end"
                style={{ fill: state === 'open' || state === 'wrong' ? 'var(--fail)' : 'var(--ink-2)' }}
              >
                {atInlet(row, state, words)}
              </text>
            </g>
          );
        })}
        {sockets.map((socket, index) => {
          const code = rows.flatMap(endsOf).find((end) => end.key === socket.key)?.cableCode;
          return code === undefined ? null : (
            <g key={socket.key} pointerEvents="none">
              <rect
                x={212}
                y={ySocket(index) - 10}
                width={44}
                height={20}
                style={{ fill: 'var(--manila)', stroke: code === lit ? 'var(--ink)' : 'none' }}
                strokeWidth={2}
              />
              <text
                className="fig"
                x={234}
                y={ySocket(index) + 5}
                fontSize={13}
                textAnchor="middle"
                style={{ fill: 'var(--on-manila)' }}
              >
                {code.length > 5 ? `${code.slice(0, 4)}…` : code}
              </text>
            </g>
          );
        })}
        {drag?.moved === true && (
          <g pointerEvents="none">
            <line
              x1={caseLeft}
              y1={yInlet.get(drag.from)}
              x2={drag.x}
              y2={drag.y}
              style={{ stroke: 'var(--action)' }}
              strokeWidth={3}
            />
            <rect
              x={drag.x - 20}
              y={drag.y - 11}
              width={40}
              height={22}
              style={{ fill: 'var(--manila)', stroke: 'var(--ink)' }}
            />
          </g>
        )}
      </svg>
    </div>
  );
}
