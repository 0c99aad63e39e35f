import { lossModel, lossWatts, percentText, wattsText, type Grade, type PointOfWork } from '@fairwatt/core';
import { ChartFigure } from './chart-figure.tsx';
import type { Point, Series } from './chart-parts.ts';
import { useInk } from './use-ink.ts';

export interface Curve {
  readonly name: string;
  readonly grade: Grade;
  readonly ratingWatts: number;
  readonly points: readonly PointOfWork[];
  readonly dashed?: boolean;
}

const pieces = 90;
const shapes: Readonly<Record<PointOfWork['point'], string>> = { idle: 'rect', typical: 'circle', full: 'triangle' };
const pointText = ({ point, outputWatts, efficiency }: PointOfWork) =>
  `${point} ${Math.round(outputWatts)} W at ${Math.round(efficiency * 100)} %`;

/** The efficiency of a supply from a hundredth of `most` watts on, or of its rating where that is less. */
function pointsOf({ grade, ratingWatts }: Curve, most: number, mainsVolts: number): Point[] {
  const model = lossModel(grade, ratingWatts, mainsVolts);
  const end = Math.min(ratingWatts, most);
  return Array.from({ length: pieces }, (_, piece) => {
    const watts = end * (0.012 + (0.988 * piece) / (pieces - 1));
    return { x: watts, y: watts / (watts + lossWatts(model, watts, ratingWatts)) };
  });
}

/** Efficiency over the load in watts, with the machine's idle, typical and full load marked on each supply's curve. */
export function EfficiencyChart({
  curves,
  mainsVolts,
}: {
  readonly curves: readonly Curve[];
  readonly mainsVolts: number;
}) {
  const ink = useInk();
  const most = Math.max(
    ...curves.map((curve) => Math.min(curve.ratingWatts, Math.max(curve.points[2]?.outputWatts ?? 0, 1) * 2.2)),
  );
  const series = curves.flatMap((curve, index): Series[] => [
    {
      label: curve.name,
      data: pointsOf(curve, most, mainsVolts),
      showLine: true,
      pointRadius: 0,
      pointHitRadius: 0,
      borderColor: index === 0 ? ink.ink2 : ink.action,
      borderWidth: 2.5,
      ...(curve.dashed === true && { borderDash: [6, 4] }),
    },
    {
      data: curve.points.map(({ outputWatts, efficiency }) => ({ x: outputWatts, y: efficiency })),
      pointStyle: curve.points.map(({ point }) => shapes[point]),
      pointRadius: 6,
      pointHoverRadius: 7,
      pointHitRadius: 10,
      pointBorderWidth: 2,
      pointBorderColor: ink.ink,
      pointBackgroundColor: curve.points.map(({ point }) => (point === 'full' ? ink.ink : ink.sheet)),
    },
  ]);
  // Of each curve its line, which tells nothing, then its points.
  const tipOf = (index: number, at: number) => {
    const curve = index % 2 === 0 ? undefined : curves[Math.floor(index / 2)];
    const point = curve?.points[at];
    return curve === undefined || point === undefined ? null : `${curve.name}: ${pointText(point)}`;
  };
  return (
    <ChartFigure
      name="Efficiency over the load"
      sentence={
        '□ idle ○ typical ▲ full. ' +
        curves.map(({ name, points }) => `${name}: ${points.map(pointText).join(', ')}`).join('; ')
      }
      height={248}
      ink={ink}
      x={{ least: 0, most, text: (watts) => `${watts} W` }}
      y={{ least: 0.6, most: 1, marks: [0.6, 0.7, 0.8, 0.9, 1], text: (share) => `${Math.round(share * 100)} %` }}
      named={(index) => index % 2 === 0}
      tipOf={tipOf}
      series={series}
      figures={{
        heads: ['Load', ...curves.flatMap(({ name }) => [`${name}: load`, 'efficiency'])],
        rows: (['idle', 'typical', 'full'] as const).map((load) => [
          load,
          ...curves.flatMap(({ points }) => {
            const point = points.find((item) => item.point === load);
            return point === undefined ? ['', ''] : [wattsText(point.outputWatts), percentText(point.efficiency)];
          }),
        ]),
      }}
    />
  );
}
