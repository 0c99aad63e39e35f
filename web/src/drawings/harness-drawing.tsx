import { boundToBe, type InletRow } from '@fairwatt/core';
import { useEffect, useRef, useState, type KeyboardEvent, type RefObject } from 'react';
import { caseLeft, layOut, width, type DrawnSocket } from './harness-layout.ts';
import { CodeShape, Panel, PlaceShape, SocketShape } from './harness-shapes.tsx';
import { drawnState, type DrawnWords } from './harness-words.ts';
import { InletInDrawing } from './inlet-in-drawing.tsx';
import { PlugDrag, PlugInHand } from './plug-drag.tsx';
import styles from './harness-drawing.module.css';

const noSockets: readonly string[] = [];

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

/** On a phone the drawing is wider than its frame: the side that is worked at is shown. */
function useShownSide(svg: RefObject<SVGSVGElement | null>, isStart: boolean, current: Props['current']): void {
  useEffect(() => {
    const frame = svg.current?.parentElement;
    if (frame != null) frame.scrollLeft = isStart ? 0 : (frame.scrollWidth * (caseLeft - 20)) / width;
  }, [svg, current, isStart]);
}

/** Space picks an inlet, arrows go along them and may pick what they come to. */
function alongInlets(
  svg: RefObject<SVGSVGElement | null>,
  order: readonly InletRow[],
  onPick: (inletId: string) => void,
  arrowsPick: boolean,
): (event: KeyboardEvent, row: InletRow) => void {
  return (event, row) => {
    const by = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
    if (by === 0 && event.key !== ' ') return;
    event.preventDefault();
    if (by === 0) onPick(row.inletId);
    const next = order[order.indexOf(row) + by];
    if (by === 0 || next === undefined) return;
    if (arrowsPick) onPick(next.inletId);
    svg.current?.querySelector<SVGGElement>(`[data-inlet="${CSS.escape(next.inletId)}"]`)?.focus();
  };
}

/**
 * The supply's panel, cables as wires, inlets where they are in the case. State is told by mark, line and word as well
 * as colour. A whole cable is lit while one of its inlets is pointed at or focused. Plugs are moved by drag.
 */
export function HarnessDrawing(props: Props) {
  const { title, rows, sockets, current, litCable = null, zoom, onPick, onPickSocket, onMove } = props;
  const { unplugged, words = {}, currentSockets = noSockets } = props;
  const svg = useRef<SVGSVGElement>(null);
  const [over, setOver] = useState<string | null>(null);
  const { height, frames, order, yOfInlet, socketYs, endsOf, cableIn } = layOut(rows, sockets);
  const placed = sockets.map((socket, index) => ({ socket, y: boundToBe(socketYs[index], 'place of a socket') }));
  const startOf = (key: string) => placed.find(({ socket }) => socket.key === key)?.y ?? null;
  const lit = litCable ?? rows.find((row) => row.inletId === (over ?? current))?.cableCode ?? null;
  // The others step back while a cable is pointed at or was asked for.
  const dims = (over !== null || litCable !== null) && lit !== null;
  const isStart = onPickSocket !== undefined && currentSockets.length === 0;
  useShownSide(svg, isStart, current);
  // Where a press records something, going along the inlets must not.
  const onKey = alongInlets(svg, order, onPick, onPickSocket === undefined);
  return (
    <PlugDrag rows={rows} onMove={onMove}>
      <div className={styles.harnessScroll}>
        <svg
          ref={svg}
          className={styles.harness}
          viewBox={`0 0 ${width} ${height}`}
          style={{ width: `${zoom * 100}%` }}
          role="group"
          aria-label={title}
          data-harness
        >
          <Panel title={title} height={height} isEmpty={sockets.length === 0} />
          {placed.map(({ socket, y }) => (
            <SocketShape
              key={socket.key}
              socket={socket}
              y={y}
              isCurrent={currentSockets.includes(socket.key)}
              onPick={onPickSocket}
            />
          ))}
          {frames.map((frame) => (
            <PlaceShape key={frame.place} frame={frame} />
          ))}
          {order.map((row) => {
            const ends = endsOf(row);
            const y = yOfInlet(row.inletId);
            const isBright = lit !== null && ends.some((end) => end.cableCode === lit);
            return (
              <InletInDrawing
                key={row.inletId}
                row={row}
                state={drawnState(row, unplugged)}
                ends={ends}
                y={y}
                startOf={(key) => startOf(key) ?? y}
                words={words}
                isHere={row.inletId === current}
                isBright={isBright}
                isDim={dims && !isBright}
                movable={onMove !== undefined}
                onPick={() => onPick(row.inletId)}
                onOver={(isOver) => setOver(isOver ? row.inletId : null)}
                onKey={(event) => onKey(event, row)}
              />
            );
          })}
          {placed.map(({ socket: { key }, y }) => {
            const code = cableIn(key);
            return code === null ? null : <CodeShape key={key} code={code} y={y} isLit={code === lit} />;
          })}
          <PlugInHand svg={svg} height={height} yOfInlet={yOfInlet} />
        </svg>
      </div>
    </PlugDrag>
  );
}
