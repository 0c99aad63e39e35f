import { useState } from 'react';
import { moneyText, percentText, type CandidateRow } from '@fairwatt/core';
import { TradeOffChart } from '../../charts/trade-off-chart.tsx';
import { useDesk } from '../../job/job-context.ts';
import { Choice } from '../../controls/choice.tsx';
import { looks } from '../../looks/looks.ts';

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
  const short = (value: number) => (axis === 'running' ? `${Math.round(value / 100)} ${currency}` : text(value));
  return (
    <section aria-label="Trade-off">
      <div className={looks.loadHead}>
        <Choice
          label="Price against"
          value={axis}
          options={axes.map(([value, name]) => ({ value: value, label: name }))}
          onPick={(value) => setAxis(value)}
        />
        <span className={looks.quiet}>● not beaten, ○ another is at least as good in everything</span>
      </div>
      {placed.length === 0 ? (
        <p className={looks.quiet}>Nothing that fits has a figure to compare here.</p>
      ) : (
        <TradeOffChart
          placed={placed}
          against={axes.find(([value]) => value === axis)?.[1] ?? ''}
          picked={shown.model.id}
          currency={currency}
          text={text}
          shortText={short}
          onPick={onPick}
        />
      )}
    </section>
  );
}
