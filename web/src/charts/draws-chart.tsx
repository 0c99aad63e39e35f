import { boundToBe, percentText, wattsText, type LoadDraws } from '@fairwatt/core';
import type { Palette } from '../app/palette.ts';
import { ChartFigure } from './chart-figure.tsx';
import type { Annotation } from './chart-parts.ts';
import { ground } from './grounds.ts';
import { useInk } from './use-ink.ts';

const share = (value: number) => `${Math.round(value * 100)} %`;

/** The nine tenths in the middle, and the rating with its eighty per cent. */
function marksOf({ quantiles }: LoadDraws, ratingWatts: number | null, ink: Palette): Record<string, Annotation> {
  const rule = (watts: number, content: string, dashed: boolean) => ({
    type: 'line' as const,
    xMin: watts,
    xMax: watts,
    borderColor: ink.action,
    borderWidth: 2,
    ...(dashed && { borderDash: [5, 4] }),
    label: {
      display: true,
      content,
      position: 'end' as const,
      padding: 2,
      color: ink.action,
      backgroundColor: ink.sheet,
      font: { weight: 600 as const },
    },
  });
  return {
    middle: {
      type: 'box',
      xMin: quantiles.low,
      xMax: quantiles.high,
      backgroundColor: ink.side,
      ...ground,
    },
    ...(ratingWatts !== null && {
      most: rule(ratingWatts * 0.8, '80 %', true),
      rating: rule(ratingWatts, `rating ${Math.round(ratingWatts)} W`, false),
    }),
  };
}

/**
 * How likely the lasting load is to exceed each watt: a falling curve, with the rating and its eighty per cent as
 * lines.
 */
export function DrawsChart({ draws, ratingWatts }: { readonly draws: LoadDraws; readonly ratingWatts: number | null }) {
  const ink = useInk();
  const { watts, above } = draws.curve;
  const tipOf = (at: number) =>
    `above ${wattsText(boundToBe(watts[at], 'point'))} in ${percentText(boundToBe(above[at], 'share of draws'))}`;
  return (
    <ChartFigure
      name="Lasting load over the draws"
      sentence={
        'How often the lasting load is above each watt; the grey band holds nine of ten draws' +
        (ratingWatts === null ? '.' : `, the lines are the rating of ${wattsText(ratingWatts)} and 80 % of it.`)
      }
      height={236}
      ink={ink}
      x={{ least: watts[0], most: watts.at(-1), text: (value) => `${value} W` }}
      y={{ least: 0, most: 1, marks: [0, 0.25, 0.5, 0.75, 1], text: share }}
      annotations={marksOf(draws, ratingWatts, ink)}
      tipOf={(_series, index) => tipOf(index)}
      series={[
        {
          data: watts.map((value, index) => ({ x: value, y: boundToBe(above[index], 'share of draws') })),
          showLine: true,
          pointRadius: 0,
          pointHitRadius: 12,
          borderColor: ink.ink,
          borderWidth: 2.5,
        },
      ]}
      figures={{
        heads: ['Lasting load', 'Above it in'],
        rows: watts
          .map((value, index) => [wattsText(value), percentText(boundToBe(above[index], 'share of draws'))])
          .filter((_row, index) => index % 10 === 0),
      }}
    />
  );
}
