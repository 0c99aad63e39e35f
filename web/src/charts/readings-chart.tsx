import {
  figureText,
  isRail,
  railBand,
  railColour,
  subjectText,
  voltsText,
  type Guide,
  type RailName,
  type Reading,
} from '@fairwatt/core';
import { wire, type Palette } from '../app/palette.ts';
import { clockTime, dayAndTime } from '../controls/clock.ts';
import { ChartFigure } from './chart-figure.tsx';
import type { Annotation } from './chart-parts.ts';
import { timeMarks } from './time-marks.ts';
import { useInk } from './use-ink.ts';

interface Shown {
  readonly rail: RailName;
  readonly figure: number;
  readonly at: string;
  readonly x: number;
  /** Per cent off nominal. */
  readonly off: number;
  readonly outside: boolean;
}

function shownOf(readings: readonly Reading[], guide: Guide): readonly Shown[] {
  return readings
    .flatMap(({ subject, value, at }): Shown[] => {
      if (!isRail(subject) || value.kind !== 'figure') return [];
      const { lower, nominal, upper } = railBand(subject, guide);
      const { figure } = value;
      const off = (100 * (figure - nominal)) / Math.abs(nominal);
      return [{ rail: subject, figure, at, x: Date.parse(at), off, outside: figure < lower || figure > upper }];
    })
    .sort((a, b) => a.x - b.x);
}

/** A reading as a piece of its rail's wire with the volts on it, ringed where it is outside its band. */
function tagOf({ rail, x, off, outside }: Shown, most: number, ink: Palette): Annotation {
  const colour = wire[railColour[rail]];
  return {
    type: 'label',
    xValue: x,
    yValue: Math.max(-most, Math.min(most, off)),
    content: subjectText[rail].replace(' V', '').replace('+', '').replace(' standby', 's'),
    color: colour.text,
    backgroundColor: colour.fill,
    borderColor: outside ? ink.fail : 'transparent',
    borderWidth: 2.5,
    borderRadius: 2,
    padding: { top: 2, bottom: 2, left: 5, right: 5 },
    font: { size: 11 },
  };
}

/** Each rail's readings by time, in per cent off nominal; a figure outside its band is ringed. */
export function ReadingsChart({ readings, guide }: { readonly readings: readonly Reading[]; readonly guide: Guide }) {
  const ink = useInk();
  const shown = shownOf(readings, guide);
  const [first, last] = [shown[0], shown.at(-1)];
  if (first === undefined || last === undefined) return null;
  const room = Math.max(60_000, last.x - first.x) * 0.04;
  const [from, to] = [first.x - room, Math.max(last.x, first.x + 60_000) + room];
  const most = Math.min(15, Math.max(7, ...shown.map(({ off }) => Math.abs(off))));
  const rails = [...new Set(shown.map(({ rail }) => rail))];
  const outside = shown.filter((item) => item.outside).length;
  const percent = (value: number) => `${value > 0 ? '+' : ''}${figureText(value, value % 1 === 0 ? 0 : 1)} %`;
  return (
    <ChartFigure
      name="Readings over time"
      sentence={
        `${shown.length} readings from ${dayAndTime(first.at)} to ${dayAndTime(last.at)}, in per cent off nominal; ` +
        (outside === 0 ? 'all inside their bands.' : `${outside} outside the band, ringed.`)
      }
      height={190}
      ink={ink}
      x={{ least: from, most: to, marks: timeMarks(from, to), text: (at) => clockTime(new Date(at).toISOString()) }}
      y={{ least: -most, most, marks: [-5, 0, 5], text: percent }}
      annotations={Object.fromEntries(shown.map((item, index) => [`reading${index}`, tagOf(item, most, ink)]))}
      tipOf={(series, index) => {
        const item = shown.filter(({ rail }) => rail === rails[series])[index];
        return item === undefined
          ? null
          : `${subjectText[item.rail]}: ${voltsText(item.figure)} V, ${clockTime(item.at)}`;
      }}
      series={rails.map((rail) => ({
        data: shown.filter((item) => item.rail === rail).map(({ x, off }) => ({ x, y: off })),
        showLine: true,
        pointRadius: 0,
        pointHitRadius: 14,
        borderColor: ink.ink2,
        borderWidth: 1,
      }))}
      figures={{
        heads: ['Rail', 'Volts', 'Off nominal', 'When'],
        rows: shown.map((item) => [
          subjectText[item.rail],
          voltsText(item.figure),
          `${percent(item.off)}${item.outside ? ', outside' : ''}`,
          dayAndTime(item.at),
        ]),
      }}
    />
  );
}
