import { looks } from '../looks/looks.ts';
import styles from './pins.module.css';
/** Pins of the usual front panel, ten in two rows with the last one missing; odd numbers below, even ones above. */
const names: Readonly<Record<number, string>> = {
  1: 'drive +',
  3: 'drive −',
  2: 'light +',
  4: 'light −',
  5: 'reset',
  7: 'reset',
  6: 'power',
  8: 'power',
  9: 'free',
};

/** The front panel's pins with the two of the power switch marked, usually 6 and 8. */
export function FrontPanel() {
  const cell = 33;
  const at = (pin: number) => ({ x: 6 + Math.floor((pin - 1) / 2) * cell, y: pin % 2 === 0 ? 18 : 18 + cell });
  return (
    <svg
      className={styles.pins}
      width={cell * 5 + 12}
      height={108}
      viewBox={`0 0 ${cell * 5 + 12} 108`}
      role="img"
      aria-label="Front panel pins in two rows, pins 6 and 8 of the power switch marked"
    >
      {Object.entries(names).map(([key, name]) => {
        const pin = Number(key);
        const { x, y } = at(pin);
        const power = pin === 6 || pin === 8;
        return (
          <g key={key}>
            <rect
              x={x + 4}
              y={y + 4}
              width={cell - 8}
              height={cell - 8}
              rx={2}
              fill={power ? 'var(--ink)' : 'var(--sheet)'}
              stroke={power ? 'var(--action)' : 'var(--ink-2)'}
              strokeWidth={power ? 3.5 : 1.2}
            />
            <text
              className={looks.fig}
              x={x + cell / 2}
              y={y + cell / 2 + 4.5}
              textAnchor="middle"
              fontSize={12}
              fill={power ? 'var(--sheet)' : 'var(--ink)'}
            >
              {pin}
            </text>
            <text
              x={x + cell / 2}
              y={pin % 2 === 0 ? 12 : 97}
              textAnchor="middle"
              fontSize={9}
              fill="var(--ink-2)"
              fontWeight={power ? 700 : 400}
            >
              {name}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
