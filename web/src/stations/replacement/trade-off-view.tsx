import { useState } from 'react';
import { moneyText, percentText, type CandidateRow } from '@fairwatt/core';
import { useDesk } from '../../job/job-context.ts';
import { Choice } from '../../controls/choice.tsx';

const axes = [
  ['running', 'cost a year'],
  ['headroom', 'headroom left'],
  ['noise', 'noise'],
] as const;
type Axis = (typeof axes)[number][0];

function figure(candidate: CandidateRow, axis: Axis): number | null {
  switch (axis) {
    case 'running':
      return candidate.cost.minorAYear;
    case 'headroom':
      return 1 - (candidate.load.loadShare ?? 1);
    case 'noise':
      return candidate.model.noiseDecibels;
  }
}

/** What fits, as price over something else; what another beats in everything is drawn hollow. */
export function TradeOffView({
  candidates,
  shown,
  onPick,
}: {
  readonly candidates: readonly CandidateRow[];
  readonly shown: CandidateRow;
  readonly onPick: (id: string) => void;
}) {
  const { shop } = useDesk();
  const { currency } = shop.settings;
  const [axis, setAxis] = useState<Axis>('running');
  const placed = candidates.flatMap((candidate) => {
    const value = figure(candidate, axis);
    return value === null || candidate.model.price.currency !== currency
      ? []
      : [{ candidate, value, price: candidate.model.price.minor }];
  });
  const text = (value: number) =>
    axis === 'running'
      ? moneyText(value, currency)
      : axis === 'headroom'
        ? percentText(value)
        : `${Math.round(value)} dB`;
  const span = (values: readonly number[]) => {
    const low = Math.min(...values);
    const high = Math.max(...values);
    const room = (high - low || Math.abs(high) || 1) * 0.08;
    return { low: low - room, high: high + room };
  };
  const box = { left: 76, right: 700, top: 12, bottom: 330 };
  const xs = span(placed.map((item) => item.price));
  const ys = span(placed.map((item) => item.value));
  const x = (value: number) => box.left + ((value - xs.low) / (xs.high - xs.low)) * (box.right - box.left);
  const y = (value: number) => box.bottom - ((value - ys.low) / (ys.high - ys.low)) * (box.bottom - box.top);
  /** Round figures inside a span, three to six of them. */
  const ticks = (low: number, high: number) => {
    const rough = (high - low) / 5;
    const power = 10 ** Math.floor(Math.log10(rough));
    const step = [1, 2, 2.5, 5, 10].map((factor) => factor * power).find((size) => size >= rough) ?? rough;
    return Array.from(
      { length: Math.floor(high / step) - Math.ceil(low / step) + 1 },
      (_, index) => (Math.ceil(low / step) + index) * step,
    );
  };
  const short = (value: number) => (axis === 'running' ? `${Math.round(value / 100)} ${currency}` : text(value));
  return (
    <section aria-label="Trade-off">
      <div className="load-head">
        <Choice
          label="Price against"
          value={axis}
          options={axes.map(([value, name]) => ({ value: value, label: name }))}
          onPick={(value) => setAxis(value)}
        />
        <span className="quiet">● not beaten, ○ another is at least as good in everything</span>
      </div>
      {placed.length === 0 ? (
        <p className="quiet">Nothing that fits has a figure to compare here.</p>
      ) : (
        <svg
          viewBox="0 0 780 372"
          style={{ width: '100%', height: 'auto' }}
          role="group"
          aria-label="Price over the other figure"
        >
          {ticks(ys.low, ys.high).map((value) => (
            <g key={value}>
              <line x1={box.left} x2={box.right} y1={y(value)} y2={y(value)} style={{ stroke: 'var(--line)' }} />
              <text
                className="fig"
                x={box.left - 8}
                y={y(value) + 4}
                fontSize={11}
                textAnchor="end"
                style={{ fill: 'var(--ink-2)' }}
              >
                {short(value)}
              </text>
            </g>
          ))}
          {ticks(xs.low, xs.high).map((value) => (
            <text
              key={value}
              className="fig"
              x={x(value)}
              y={box.bottom + 18}
              fontSize={11}
              textAnchor="middle"
              style={{ fill: 'var(--ink-2)' }}
            >
              {Math.round(value / 100)} {currency}
            </text>
          ))}
          {placed.map(({ candidate, value, price }) => {
            const selected = candidate.model.id === shown.model.id;
            const name =
              `${candidate.model.name}, ${moneyText(price, currency)}, ` +
              `${text(value)}${candidate.beatenBy === null ? '' : ', beaten'}`;
            return (
              <g
                key={candidate.model.id}
                role="button"
                tabIndex={0}
                aria-label={name}
                aria-pressed={selected}
                className="dot"
                onClick={() => onPick(candidate.model.id)}
                onKeyDown={(event) => {
                  if (event.key === 'Enter' || event.key === ' ') {
                    event.preventDefault();
                    onPick(candidate.model.id);
                  }
                }}
              >
                <title>{name}</title>
                {selected && (
                  <circle
                    cx={x(price)}
                    cy={y(value)}
                    r={12}
                    fill="none"
                    style={{ stroke: 'var(--action)' }}
                    strokeWidth={2.5}
                  />
                )}
                <circle
                  cx={x(price)}
                  cy={y(value)}
                  r={6.5}
                  style={{ fill: candidate.beatenBy === null ? 'var(--ink)' : 'var(--sheet)', stroke: 'var(--ink)' }}
                  strokeWidth={2}
                />
                {(selected || candidate.beatenBy === null) && (
                  <text
                    x={x(price) + (x(price) > 560 ? -14 : 14)}
                    y={y(value) + 4}
                    fontSize={12.5}
                    textAnchor={x(price) > 560 ? 'end' : 'start'}
                    fontWeight={selected ? 700 : 400}
                  >
                    {candidate.model.name}
                  </text>
                )}
              </g>
            );
          })}
          <text x={box.right} y={box.bottom + 36} fontSize={12.5} textAnchor="end" style={{ fill: 'var(--ink-2)' }}>
            price
          </text>
        </svg>
      )}
    </section>
  );
}
