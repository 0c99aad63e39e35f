import { isRail, railBand, subjectText, type Guide, type RailName, type Reading } from '@fairwatt/core';
import { wire } from '../app/palette.ts';
import { clockTime } from '../controls/clock.ts';
import { railColour } from '@fairwatt/core';

const width = 760;
const height = 170;
const left = 46;

/** Each rail's readings by time, in per cent off nominal; a figure outside its band is crossed. */
export function ReadingsOverTime({
  readings,
  guide,
}: {
  readonly readings: readonly Reading[];
  readonly guide: Guide;
}) {
  const shown = readings.flatMap((reading) =>
    !isRail(reading.subject) || reading.value.kind !== 'figure'
      ? []
      : [{ rail: reading.subject, figure: reading.value.figure, at: Date.parse(reading.at) }],
  );
  if (shown.length === 0) return null;
  const first = Math.min(...shown.map((item) => item.at));
  const last = Math.max(...shown.map((item) => item.at), first + 60_000);
  const off = (rail: RailName, figure: number) =>
    (100 * (figure - railBand(rail, guide).nominal)) / Math.abs(railBand(rail, guide).nominal);
  const most = Math.min(15, Math.max(7, ...shown.map((item) => Math.abs(off(item.rail, item.figure)))));
  const x = (at: number) => left + 14 + ((at - first) / (last - first)) * (width - left - 40);
  const y = (percent: number) => 10 + ((most - Math.max(-most, Math.min(most, percent))) / (2 * most)) * (height - 40);
  const rails = [...new Set(shown.map((item) => item.rail))];
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      style={{ width: '100%', height: 'auto' }}
      role="img"
      aria-label={`${shown.length} readings over time`}
    >
      {[-5, 0, 5].map((percent) => (
        <g key={percent}>
          <line x1={left} x2={width} y1={y(percent)} y2={y(percent)} style={{ stroke: 'var(--line)' }} />
          <text
            className="fig"
            x={left - 6}
            y={y(percent) + 4}
            textAnchor="end"
            fontSize={12}
            style={{ fill: 'var(--ink-2)' }}
          >
            {percent > 0 ? '+' : ''}
            {percent} %
          </text>
        </g>
      ))}
      {rails.map((rail) => {
        const own = shown.filter((item) => item.rail === rail).sort((a, b) => a.at - b.at);
        const { lower, upper } = railBand(rail, guide);
        const colour = wire[railColour[rail]]!;
        return (
          <g key={rail}>
            <polyline
              points={own.map((item) => `${x(item.at)},${y(off(rail, item.figure))}`).join(' ')}
              fill="none"
              style={{ stroke: 'var(--ink-2)' }}
              strokeWidth={1}
            />
            {own.map((item, index) => (
              <g key={index}>
                <rect
                  x={x(item.at) - 13}
                  y={y(off(rail, item.figure)) - 8}
                  width={26}
                  height={16}
                  rx={2}
                  fill={colour.fill}
                  style={{ stroke: item.figure < lower || item.figure > upper ? 'var(--fail)' : 'none' }}
                  strokeWidth={2.5}
                />
                <text
                  className="fig"
                  x={x(item.at)}
                  y={y(off(rail, item.figure)) + 4}
                  textAnchor="middle"
                  fontSize={10}
                  style={{ fill: colour.text }}
                >
                  {subjectText[rail].replace(' V', '').replace('+', '').replace(' standby', 's')}
                </text>
              </g>
            ))}
          </g>
        );
      })}
      <text x={left + 14} y={height - 6} fontSize={12} style={{ fill: 'var(--ink-2)' }}>
        {clockTime(new Date(first).toISOString())}
      </text>
      <text x={width - 26} y={height - 6} textAnchor="end" fontSize={12} style={{ fill: 'var(--ink-2)' }}>
        {clockTime(new Date(last).toISOString())}
      </text>
    </svg>
  );
}
