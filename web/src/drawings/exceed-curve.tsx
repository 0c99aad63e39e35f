import { percentText, wattsText, type LoadDraws } from '@fairwatt/core';

/**
 * How likely the lasting load is to exceed each watt: a falling curve, with the rating and its eighty per cent as
 * lines.
 */
export function ExceedCurve({
  draws,
  ratingWatts,
}: {
  readonly draws: LoadDraws;
  readonly ratingWatts: number | null;
}) {
  const { watts, above } = draws.curve;
  const [from, to] = [watts[0] ?? 0, watts.at(-1) ?? 1];
  const box = { left: 46, right: 760, top: 26, bottom: 196 };
  const x = (value: number) =>
    box.left + ((Math.min(to, Math.max(from, value)) - from) / (to - from)) * (box.right - box.left);
  const y = (share: number) => box.bottom - share * (box.bottom - box.top);
  const path = watts
    .map((value, index) => `${index === 0 ? 'M' : 'L'}${x(value).toFixed(1)} ${y(above[index] ?? 0).toFixed(1)}`)
    .join('');
  const step = [10, 20, 25, 50, 100, 200, 250, 500].find((size) => (to - from) / size <= 8) ?? 1000;
  const ticks = Array.from(
    { length: Math.floor(to / step) - Math.ceil(from / step) + 1 },
    (_, index) => (Math.ceil(from / step) + index) * step,
  );
  const over = draws.against?.lasting.share ?? 0;
  return (
    <svg
      viewBox="0 0 780 236"
      style={{ width: '100%', height: 'auto' }}
      role="img"
      aria-label={
        `Lasting load over the draws: nine of ten between ${wattsText(draws.quantiles.low)} and ` +
        wattsText(draws.quantiles.high) +
        (ratingWatts === null ? '' : `; over the rating of ${wattsText(ratingWatts)} in ${percentText(over)}`)
      }
    >
      <rect
        x={x(draws.quantiles.low)}
        y={box.top}
        width={x(draws.quantiles.high) - x(draws.quantiles.low)}
        height={box.bottom - box.top}
        style={{ fill: 'var(--side)' }}
      />
      {[0, 0.25, 0.5, 0.75, 1].map((share) => (
        <g key={share}>
          <line x1={box.left} x2={box.right} y1={y(share)} y2={y(share)} style={{ stroke: 'var(--line)' }} />
          <text
            className="fig"
            x={box.left - 6}
            y={y(share) + 4}
            fontSize={11}
            textAnchor="end"
            style={{ fill: 'var(--ink-2)' }}
          >
            {share * 100} %
          </text>
        </g>
      ))}
      {ticks.map((value) => (
        <text
          key={value}
          className="fig"
          x={x(value)}
          y={box.bottom + 16}
          fontSize={11}
          textAnchor="middle"
          style={{ fill: 'var(--ink-2)' }}
        >
          {value}
        </text>
      ))}
      <path d={path} fill="none" style={{ stroke: 'var(--ink)' }} strokeWidth={2.5} />
      {ratingWatts !== null &&
        [
          [ratingWatts * 0.8, '80 %', '5 4'],
          [ratingWatts, `rating ${Math.round(ratingWatts)} W`, ''],
        ].map(
          ([value, name, dash]) =>
            Number(value) >= from &&
            Number(value) <= to && (
              <g key={String(name)}>
                <line
                  x1={x(Number(value))}
                  x2={x(Number(value))}
                  y1={box.top - 4}
                  y2={box.bottom}
                  style={{ stroke: 'var(--action)' }}
                  strokeWidth={2}
                  strokeDasharray={String(dash)}
                />
                <text
                  x={x(Number(value))}
                  y={14}
                  fontSize={12.5}
                  fontWeight={600}
                  textAnchor="middle"
                  style={{ fill: 'var(--action)' }}
                >
                  {name}
                </text>
              </g>
            ),
        )}
      <text x={box.right} y={box.bottom + 30} fontSize={12.5} textAnchor="end" style={{ fill: 'var(--ink-2)' }}>
        lasting load in watts; the grey band holds nine of ten draws
      </text>
    </svg>
  );
}
