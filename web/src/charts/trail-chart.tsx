import { figureText, railBand, type Guide, type RailName } from '@fairwatt/core';
import { ChartFigure } from './chart-figure.tsx';
import { ground } from './grounds.ts';
import { useInk } from './use-ink.ts';

/** The last readings of a meter against the rail's band. */
export function TrailChart({
  rail,
  values,
  most,
  guide,
}: {
  readonly rail: RailName;
  /** Volts, the last one at the end. */
  readonly values: readonly number[];
  /** So many are drawn at most. */
  readonly most: number;
  readonly guide: Guide;
}) {
  const ink = useInk();
  const { lower, upper } = railBand(rail, guide);
  const room = (upper - lower) * 0.1;
  return (
    <ChartFigure
      name="The last readings"
      sentence={`The last readings of ${rail} V against the band, ${figureText(lower, 2)} to ${figureText(upper, 2)} V.`}
      saidBeside
      height={120}
      ink={ink}
      x={{ least: 0, most: most - 1, text: String, hidden: true }}
      y={{
        least: Math.min(lower, ...values) - room,
        most: Math.max(upper, ...values) + room,
        marks: [lower, upper],
        text: (volts) => figureText(volts, 2),
      }}
      annotations={{
        band: {
          type: 'box',
          yMin: lower,
          yMax: upper,
          backgroundColor: ink.track,
          ...ground,
        },
      }}
      series={[
        {
          data: values.map((volts, index) => ({ x: index, y: volts })),
          showLine: true,
          pointRadius: 0,
          borderColor: ink.ink,
          borderWidth: 1.5,
        },
      ]}
    />
  );
}
