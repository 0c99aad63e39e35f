import {
  figureText,
  boundToBe,
  forecastAt,
  railBand,
  voltsText,
  type Forecast,
  type Guide,
  type LoadLine,
} from '@fairwatt/core';
import type { Palette } from '../app/palette.ts';
import { ChartFigure } from './chart-figure.tsx';
import type { Annotation, Point } from './chart-parts.ts';
import { faint, ground } from './grounds.ts';
import { useInk } from './use-ink.ts';

const steps = 24;

/** The cone over the amps up to somewhat more than what is planned or was read. */
function coneOf(line: LoadLine, planned: Forecast, guide: Guide): readonly Forecast[] {
  const mostAmps = Math.max(planned.amps, ...line.points.map((point) => point.amps)) * 1.12 || 1;
  return Array.from({ length: steps + 1 }, (_, index) => forecastAt(line, (mostAmps * index) / steps, guide));
}

/** The volts to draw: all that is there, at most one band beyond the band. */
function voltsSpan(
  line: LoadLine,
  cone: readonly Forecast[],
  band: { readonly lower: number; readonly upper: number },
) {
  const volts = [
    band.lower,
    band.upper,
    ...cone.flatMap((item) => [item.interval.low, item.interval.high]),
    ...line.points.map((point) => point.volts),
  ];
  const span = band.upper - band.lower;
  return {
    least: Math.max(Math.min(...volts), band.lower - span) - span * 0.05,
    most: Math.min(Math.max(...volts), band.upper + span) + span * 0.05,
  };
}

const inkOf = ({ word }: Forecast, ink: Palette): string =>
  word === 'will-pass' ? ink.pass : word === 'will-fail' ? ink.fail : ink.unknown;

/** The band, and where the planned load stands. */
function marksOf(
  band: { readonly lower: number; readonly nominal: number; readonly upper: number },
  planned: Forecast,
  ink: Palette,
): Record<string, Annotation> {
  const edge = (volts: number) => ({
    type: 'line' as const,
    yMin: volts,
    yMax: volts,
    borderWidth: 1,
    borderColor: ink.ink2,
  });
  return {
    band: {
      type: 'box',
      yMin: band.lower,
      yMax: band.upper,
      backgroundColor: ink.track,
      ...ground,
    },
    lower: edge(band.lower),
    upper: edge(band.upper),
    planned: {
      type: 'line',
      xMin: planned.amps,
      xMax: planned.amps,
      borderWidth: 1,
      borderDash: [4, 3],
      borderColor: inkOf(planned, ink),
      label: {
        display: true,
        content: `planned ${figureText(planned.amps)} A`,
        position: 'start',
        xAdjust: -48,
        padding: 2,
        color: inkOf(planned, ink),
        backgroundColor: faint(ink.sheet, 0.85),
        font: { weight: 600 },
      },
    },
  };
}

/** Volts over amps: the readings, their line with its cone, the band, and the planned load with its interval. */
export function LoadLineChart({
  line,
  planned,
  guide,
}: {
  readonly line: LoadLine;
  readonly planned: Forecast;
  readonly guide: Guide;
}) {
  const ink = useInk();
  const band = railBand(line.rail, guide);
  const cone = coneOf(line, planned, guide);
  const along = (volts: (item: Forecast) => number): Point[] => cone.map((item) => ({ x: item.amps, y: volts(item) }));
  const bare = { showLine: true, pointRadius: 0, pointHitRadius: 0 };
  const filled = line.points.map(({ estimated }) => (estimated ? ink.sheet : ink.ink));
  const interval = `${voltsText(planned.interval.low)} to ${voltsText(planned.interval.high)}`;
  return (
    <ChartFigure
      name={`Load line of ${line.rail} V`}
      sentence={
        `At ${figureText(planned.amps)} A expect ${interval} V, band ` +
        `${voltsText(band.lower)} to ${voltsText(band.upper)} V.`
      }
      saidBeside
      height={216}
      ink={ink}
      x={{ least: 0, most: boundToBe(cone.at(-1), 'end of the cone').amps, text: (amps) => `${figureText(amps)} A` }}
      y={{
        ...voltsSpan(line, cone, band),
        marks: [band.lower, band.nominal, band.upper],
        text: (volts) => figureText(volts, 2),
      }}
      annotations={marksOf(band, planned, ink)}
      tipOf={(series, index) => {
        const point = series === 3 ? line.points[index] : undefined;
        return point === undefined ? null : `${voltsText(point.volts)} V at ${figureText(point.amps, 1)} A`;
      }}
      series={[
        { ...bare, data: along(({ interval: { low } }) => low), borderWidth: 0 },
        {
          ...bare,
          data: along(({ interval: { high } }) => high),
          borderWidth: 0,
          fill: '-1',
          backgroundColor: faint(inkOf(planned, ink), 0.22),
        },
        { ...bare, data: along(({ volts }) => volts), borderColor: ink.ink, borderWidth: 1.5 },
        {
          data: line.points.map(({ amps, volts }) => ({ x: amps, y: volts })),
          pointRadius: 4.5,
          pointHoverRadius: 6,
          pointHitRadius: 8,
          pointBorderWidth: 2,
          pointBorderColor: ink.ink,
          pointBackgroundColor: filled,
        },
        {
          ...bare,
          data: [planned.interval.low, planned.interval.high].map((volts) => ({ x: planned.amps, y: volts })),
          borderWidth: 6,
          borderColor: inkOf(planned, ink),
        },
      ]}
      figures={{
        heads: ['Load', 'Volts', 'Amps'],
        rows: [
          ...line.points.map(({ amps, volts, estimated }) => [
            `${figureText(amps, 1)} A`,
            voltsText(volts, 3),
            estimated ? 'estimated from the parts' : 'read or set',
          ]),
          [`planned ${figureText(planned.amps, 1)} A`, interval, 'forecast'],
        ],
      }}
    />
  );
}
