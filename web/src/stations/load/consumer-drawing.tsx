import { figureText, changeText, type PartChange, type PowerFigures } from '@fairwatt/core';
import { wire } from '../../app/palette.ts';
import { looks } from '../../looks/looks.ts';
import styles from './consumer-drawing.module.css';

interface Consumer {
  readonly id: string;
  readonly name: string;
  readonly change: PartChange;
  readonly watts: number;
  readonly shortWatts: number;
  readonly figures: PowerFigures;
}
const rails = [
  ['share12', 'yellow', '12'],
  ['share5', 'red', '5'],
  ['share33', 'orange', '3.3'],
] as const;

/** A consumer's watts, rail by rail in their wires' colours. */
function Share({
  part,
  y,
  left,
  scale,
}: {
  readonly part: Consumer;
  readonly y: number;
  readonly left: number;
  /** Pixels for a watt. */
  readonly scale: number;
}) {
  let x = left;
  return (
    <>
      {rails.map(([share, colour, letters]) => {
        const length = part.watts * part.figures[share] * scale;
        const from = x;
        x += length;
        return length < 0.4 ? null : (
          <g key={share}>
            <rect
              x={from}
              y={y + 1}
              width={length}
              height={15}
              fill={wire[colour].fill}
              stroke="var(--ink)"
              strokeWidth={0.8}
            />
            {length > 26 && (
              <text className={looks.fig} x={from + 6} y={y + 13} fontSize={11} fill={wire[colour].text}>
                {letters}
              </text>
            )}
          </g>
        );
      })}
    </>
  );
}

/**
 * The machine as its consumers on the rails: length is watts, the colours are the wires, the outline is what it draws
 * for seconds.
 */
export function ConsumerDrawing({ parts }: { readonly parts: readonly Consumer[] }) {
  const sorted = [...parts].sort((a, b) => b.watts - a.watts);
  const most = Math.max(60, ...sorted.map((part) => part.shortWatts));
  const row = 22;
  const left = 210;
  const width = 800;
  const scale = (width - left - 130) / most;
  return (
    <svg
      viewBox={`0 0 ${width} ${sorted.length * row + 4}`}
      className={styles.drawing}
      role="img"
      aria-label={sorted
        .map(
          (part) =>
            `${part.name} ${Math.round(part.watts)} ` +
            `watts${part.change === 'stays' ? '' : `, ${changeText[part.change]}`}`,
        )
        .join('; ')}
    >
      {sorted.map((part, index) => {
        const y = index * row + 3;
        return (
          <g key={part.id}>
            <text x={0} y={y + 14} fontSize={14} fontWeight={part.change === 'stays' ? 400 : 700}>
              {part.change === 'added' ? '+ ' : part.change === 'stays' ? '' : '− '}
              {part.name.length > 27 ? `${part.name.slice(0, 26)}…` : part.name}
            </text>
            {part.shortWatts > part.watts + 0.5 && (
              <rect
                x={left}
                y={y + 1}
                width={part.shortWatts * scale}
                height={15}
                fill="none"
                strokeDasharray="3 3"
                stroke="var(--ink-2)"
              />
            )}
            <Share part={part} y={y} left={left} scale={scale} />
            <text
              className={looks.fig}
              x={left + Math.max(part.shortWatts, part.watts) * scale + 8}
              y={y + 15}
              fontSize={13}
            >
              {part.watts < 10 ? figureText(part.watts, 1) : Math.round(part.watts)} W
              {part.shortWatts > part.watts + 0.5 ? ` / ${Math.round(part.shortWatts)}` : ''}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
