import { Button, Grid } from 'antd';
import { boundToBe, moneyText, type CandidateRow } from '@fairwatt/core';
import type { Palette } from '../app/palette.ts';
import { ChartFigure } from './chart-figure.tsx';
import type { Annotation } from './chart-parts.ts';
import { useInk } from './use-ink.ts';

/** A candidate where it stands: its price in minor units over the other figure. */
export interface Placed {
  readonly candidate: CandidateRow;
  readonly price: number;
  readonly value: number;
}

const span = (values: readonly number[]) => {
  const low = Math.min(...values);
  const high = Math.max(...values);
  const room = (high - low || Math.abs(high) || 1) * 0.08;
  return { least: low - room, most: high + room };
};

/** The names of those that nothing beats where there is room for them, and of the one that is picked. */
function namesOf(
  placed: readonly Placed[],
  picked: string,
  { roomy, rightOf, ink }: { readonly roomy: boolean; readonly rightOf: number; readonly ink: Palette },
): Record<string, Annotation> {
  return Object.fromEntries(
    placed
      .filter(({ candidate }) => (roomy && candidate.beatenBy === null) || candidate.model.id === picked)
      .map(({ candidate: { model }, price, value }): [string, Annotation] => [
        model.id,
        {
          type: 'label',
          xValue: price,
          yValue: value,
          content: model.name,
          color: ink.ink,
          font: { size: 12.5, weight: model.id === picked ? 700 : 400 },
          position: { x: price > rightOf ? 'end' : 'start', y: 'center' },
          xAdjust: price > rightOf ? -12 : 12,
        },
      ]),
  );
}

/** What fits, as price over something else; what another beats in everything is drawn hollow. */
export function TradeOffChart({
  placed,
  against,
  picked,
  currency,
  text,
  shortText,
  onPick,
}: {
  readonly placed: readonly Placed[];
  /** What the other figure is. */
  readonly against: string;
  readonly picked: string;
  readonly currency: string;
  readonly text: (value: number) => string;
  /** As it stands at the axis. */
  readonly shortText: (value: number) => string;
  readonly onPick: (id: string) => void;
}) {
  const ink = useInk();
  const roomy = Grid.useBreakpoint().md === true;
  const prices = span(placed.map(({ price }) => price));
  const isPicked = ({ candidate }: Placed) => candidate.model.id === picked;
  const said = ({ candidate, price, value }: Placed) =>
    `${candidate.model.name}, ${moneyText(price, currency)}, ` +
    `${text(value)}${candidate.beatenBy === null ? '' : ', beaten'}`;
  const unbeaten = placed.filter(({ candidate }) => candidate.beatenBy === null).length;
  return (
    <ChartFigure
      name={`Price against ${against}`}
      sentence={
        `${placed.length} that fit, ${unbeaten} of them not beaten by another in everything. ` +
        'A point is picked by a click, or in the table.'
      }
      height={372}
      ink={ink}
      x={{ ...prices, text: (minor) => `${Math.round(minor / 100)} ${currency}`, title: 'price' }}
      y={{ ...span(placed.map(({ value }) => value)), text: shortText, title: against }}
      annotations={namesOf(placed, picked, { roomy, rightOf: prices.least + (prices.most - prices.least) * 0.65, ink })}
      tipOf={(_series, index) => said(boundToBe(placed[index], 'point'))}
      onPick={(_series, index) => onPick(boundToBe(placed[index], 'point').candidate.model.id)}
      series={[
        {
          data: placed.map(({ price, value }) => ({ x: price, y: value })),
          pointRadius: placed.map((item) => (isPicked(item) ? 9 : 6.5)),
          pointHoverRadius: 9,
          pointHitRadius: 10,
          pointBorderWidth: placed.map((item) => (isPicked(item) ? 4 : 2)),
          pointBorderColor: placed.map((item) => (isPicked(item) ? ink.action : ink.ink)),
          pointBackgroundColor: placed.map(({ candidate }) => (candidate.beatenBy === null ? ink.ink : ink.sheet)),
        },
      ]}
      figures={{
        heads: ['Supply', 'Price', against, 'Beaten'],
        rows: placed.map((item) => [
          <Button
            key="pick"
            type="link"
            aria-pressed={isPicked(item)}
            aria-label={said(item)}
            onClick={() => onPick(item.candidate.model.id)}
          >
            {item.candidate.model.name}
          </Button>,
          moneyText(item.price, currency),
          text(item.value),
          item.candidate.beatenBy === null ? 'no' : 'yes',
        ]),
      }}
    />
  );
}
