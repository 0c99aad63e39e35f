import { lossModel, lossWatts, type Grade, type PointOfWork } from '@fairwatt/core';

interface Curve {
  readonly name: string;
  readonly grade: Grade;
  readonly ratingWatts: number;
  readonly points: readonly PointOfWork[];
  readonly dashed?: boolean;
}

const pointText = ({ point, outputWatts, efficiency }: PointOfWork) =>
  `${point} ${Math.round(outputWatts)} W at ${Math.round(efficiency * 100)} %`;

/** Efficiency over the load in watts, with the machine's idle, typical and full load marked on each supply's curve. */
export function EfficiencyCurve({
  curves,
  mainsVolts,
}: {
  readonly curves: readonly Curve[];
  readonly mainsVolts: number;
}) {
  const most = Math.max(
    ...curves.map((curve) => Math.min(curve.ratingWatts, Math.max(curve.points[2]?.outputWatts ?? 0, 1) * 2.2)),
  );
  const low = 0.6;
  const box = { left: 46, right: 640, top: 12, bottom: 196 };
  const x = (watts: number) => box.left + (Math.min(watts, most) / most) * (box.right - box.left);
  const y = (share: number) => box.bottom - ((Math.max(low, share) - low) / (1 - low)) * (box.bottom - box.top);
  const step = [20, 50, 100, 200].find((size) => most / size <= 8) ?? 250;
  return (
    <svg
      viewBox="0 0 780 240"
      style={{ width: '100%', height: 'auto' }}
      role="img"
      aria-label={curves.map(({ name, points }) => `${name}: ${points.map(pointText).join(', ')}`).join('; ')}
    >
      {[0.6, 0.7, 0.8, 0.9, 1].map((share) => (
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
            {Math.round(share * 100)} %
          </text>
        </g>
      ))}
      {Array.from({ length: Math.floor(most / step) + 1 }, (_, index) => (
        <text
          key={index}
          className="fig"
          x={x(index * step)}
          y={box.bottom + 16}
          fontSize={11}
          textAnchor="middle"
          style={{ fill: 'var(--ink-2)' }}
        >
          {index * step}
        </text>
      ))}
      {curves.map((curve, index) => {
        const model = lossModel(curve.grade, curve.ratingWatts, mainsVolts);
        const end = Math.min(curve.ratingWatts, most);
        const path = Array.from({ length: 90 }, (_, step_) => {
          const watts = end * (0.012 + (0.988 * step_) / 89);
          const share = watts / (watts + lossWatts(model, watts, curve.ratingWatts));
          return `${step_ === 0 ? 'M' : 'L'}${x(watts).toFixed(1)} ${y(share).toFixed(1)}`;
        }).join('');
        const last = end / (end + lossWatts(model, end, curve.ratingWatts));
        return (
          <g key={curve.name}>
            <path
              d={path}
              fill="none"
              style={{ stroke: index === 0 ? 'var(--ink-2)' : 'var(--action)' }}
              strokeWidth={2.5}
              strokeDasharray={curve.dashed === true ? '6 4' : undefined}
            />
            {curve.points.map((point) => (
              <g key={point.point} transform={`translate(${x(point.outputWatts)} ${y(point.efficiency)})`}>
                {point.point === 'idle' ? (
                  <rect
                    x={-5}
                    y={-5}
                    width={10}
                    height={10}
                    style={{ fill: 'var(--sheet)', stroke: 'var(--ink)' }}
                    strokeWidth={2}
                  />
                ) : point.point === 'typical' ? (
                  <circle r={5.5} style={{ fill: 'var(--sheet)', stroke: 'var(--ink)' }} strokeWidth={2} />
                ) : (
                  <path d="M0 -7l7 12h-14z" style={{ fill: 'var(--ink)' }} />
                )}
              </g>
            ))}
            <text
              x={Math.min(x(end) + 8, box.right + 8)}
              y={y(last) + (index === 0 ? 14 : -4)}
              fontSize={12.5}
              fontWeight={600}
              style={{ fill: index === 0 ? 'var(--ink-2)' : 'var(--action)' }}
            >
              {curve.name.length > 20 ? `${curve.name.slice(0, 19)}…` : curve.name}
            </text>
          </g>
        );
      })}
      <text x={box.left} y={box.bottom + 30} fontSize={12.5} style={{ fill: 'var(--ink-2)' }}>
        □ idle ○ typical ▲ full; load in watts
      </text>
    </svg>
  );
}
