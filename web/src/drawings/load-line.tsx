import { forecastAt, railBand, voltsText, type Forecast, type Guide, type LoadLine } from '@fairwatt/core';

const width = 520;
const height = 216;
const left = 52;
const bottom = 30;
const steps = 24;

/** Volts over amps: the readings, their line with its cone, the band, and the planned load with its interval. */
export function LoadLineDrawing({
  line,
  planned,
  guide,
}: {
  readonly line: LoadLine;
  readonly planned: Forecast;
  readonly guide: Guide;
}) {
  const band = railBand(line.rail, guide);
  const mostAmps = Math.max(planned.amps, ...line.points.map((point) => point.amps)) * 1.12 || 1;
  const cone = Array.from({ length: steps + 1 }, (_, index) => forecastAt(line, (mostAmps * index) / steps, guide));
  const volts = [
    band.lower,
    band.upper,
    ...cone.flatMap((item) => [item.interval.low, item.interval.high]),
    ...line.points.map((point) => point.volts),
  ];
  const span = band.upper - band.lower;
  const low = Math.max(Math.min(...volts), band.lower - span) - span * 0.05;
  const high = Math.min(Math.max(...volts), band.upper + span) + span * 0.05;
  const x = (amps: number) => left + (amps / mostAmps) * (width - left - 12);
  const y = (value: number) =>
    8 + ((high - Math.min(high, Math.max(low, value))) / (high - low)) * (height - 8 - bottom);
  const colour =
    planned.word === 'will-pass' ? 'var(--pass)' : planned.word === 'will-fail' ? 'var(--fail)' : 'var(--unknown)';
  const edge = cone
    .map((item) => `${x(item.amps)},${y(item.interval.low)}`)
    .concat([...cone].reverse().map((item) => `${x(item.amps)},${y(item.interval.high)}`))
    .join(' ');
  const ticks = [0, 0.25, 0.5, 0.75, 1].map((share) => share * mostAmps);
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      style={{ width: '100%', height: 'auto' }}
      role="img"
      aria-label={
        `Load line of ${line.rail} V: at ${planned.amps.toFixed(0)} A expect ` +
        `${voltsText(planned.interval.low)} to ${voltsText(planned.interval.high)} V, band ` +
        `${voltsText(band.lower)} to ${voltsText(band.upper)} V`
      }
    >
      <rect
        x={left}
        y={y(band.upper)}
        width={width - left - 12}
        height={y(band.lower) - y(band.upper)}
        style={{ fill: 'var(--track)' }}
      />
      {[band.lower, band.nominal, band.upper].map((value) => (
        <g key={value}>
          <line
            x1={left}
            x2={width - 12}
            y1={y(value)}
            y2={y(value)}
            style={{ stroke: 'var(--ink-2)' }}
            strokeWidth={value === band.nominal ? 0.5 : 1}
            strokeDasharray={value === band.nominal ? '3 3' : undefined}
          />
          <text className="fig" x={left - 6} y={y(value) + 4} textAnchor="end" fontSize={12}>
            {value.toFixed(2)}
          </text>
        </g>
      ))}
      {ticks.map((amps, index) => (
        <text
          key={amps}
          className="fig"
          x={x(amps)}
          y={height - 10}
          textAnchor={index === ticks.length - 1 ? 'end' : 'middle'}
          fontSize={12}
          style={{ fill: 'var(--ink-2)' }}
        >
          {amps.toFixed(0)} A
        </text>
      ))}
      <polygon points={edge} style={{ fill: colour }} opacity={0.22} />
      <polyline
        points={cone.map((item) => `${x(item.amps)},${y(item.volts)}`).join(' ')}
        style={{ stroke: 'var(--ink)', fill: 'none' }}
        strokeWidth={1.5}
      />
      {line.points.map((point, index) => (
        <circle
          key={index}
          cx={x(point.amps)}
          cy={y(point.volts)}
          r={4.5}
          style={{ fill: point.estimated ? 'var(--sheet)' : 'var(--ink)', stroke: 'var(--ink)' }}
          strokeWidth={2}
        />
      ))}
      <line
        x1={x(planned.amps)}
        x2={x(planned.amps)}
        y1={8}
        y2={height - bottom}
        style={{ stroke: colour }}
        strokeWidth={1}
        strokeDasharray="4 3"
      />
      <line
        x1={x(planned.amps)}
        x2={x(planned.amps)}
        y1={y(planned.interval.low)}
        y2={y(planned.interval.high)}
        style={{ stroke: colour }}
        strokeWidth={6}
      />
      <text
        x={x(planned.amps) - 6}
        y={height - bottom - 6}
        textAnchor="end"
        fontSize={12.5}
        fontWeight={600}
        strokeWidth={4}
        style={{ fill: colour, stroke: 'var(--sheet)', paintOrder: 'stroke' }}
      >
        planned {planned.amps.toFixed(0)} A
      </text>
    </svg>
  );
}
