import {
  Chart,
  Filler,
  Legend,
  LinearScale,
  LineElement,
  PointElement,
  ScatterController,
  Tooltip,
  type ChartDataset,
  type ChartOptions,
  type TooltipItem,
} from 'chart.js';
import annotations, { type AnnotationOptions } from 'chartjs-plugin-annotation';
import type { Palette } from '../app/palette.ts';

Chart.register(ScatterController, LinearScale, PointElement, LineElement, Filler, Legend, Tooltip, annotations);
Chart.defaults.font.family = "'Atkinson Hyperlegible Next Variable', system-ui, sans-serif";
Chart.defaults.font.size = 12;

export interface Point {
  readonly x: number;
  readonly y: number;
}
/** Points over a straight axis, joined or not. */
export type Series = ChartDataset<'scatter', Point[]>;
export type Annotation = AnnotationOptions;

export interface Axis {
  readonly least?: number | undefined;
  readonly most?: number | undefined;
  /** What a figure of the axis is called. */
  readonly text: (value: number) => string;
  /** Where it is marked; the chart finds round figures without. */
  readonly marks?: readonly number[];
  readonly title?: string;
  readonly hidden?: boolean;
}

export interface XyOptions {
  readonly ink: Palette;
  readonly x: Axis;
  readonly y: Axis;
  readonly annotations?: Readonly<Record<string, Annotation>>;
  /** Series whose names stand above the chart; none without. */
  readonly named?: (series: number) => boolean;
  /** What is said of a point that is pointed at; null says nothing. */
  readonly tipOf?: (series: number, index: number) => string | null;
  readonly onPick?: (series: number, index: number) => void;
}

function scale({ least, most, text, marks, title, hidden = false }: Axis, { ink2, line }: Palette, vertical: boolean) {
  return {
    type: 'linear' as const,
    display: !hidden,
    ...(least !== undefined && { min: least }),
    ...(most !== undefined && { max: most }),
    ...(marks !== undefined && {
      afterBuildTicks: (axis: { ticks: { value: number }[] }) => {
        axis.ticks = marks.map((value) => ({ value }));
      },
    }),
    ticks: {
      color: ink2,
      maxRotation: 0,
      autoSkip: marks === undefined,
      maxTicksLimit: 7,
      includeBounds: false,
      callback: (value: string | number) => text(Number(value)),
    },
    grid: { color: line, display: vertical },
    border: { color: line },
    title: { display: title !== undefined, text: title ?? '', color: ink2, align: 'end' as const },
  };
}

/** How a chart of points over a straight axis looks and answers here, in the palette that is on. */
export function xyOptions({
  ink,
  x,
  y,
  annotations: drawn = {},
  named,
  tipOf,
  onPick,
}: XyOptions): ChartOptions<'scatter'> {
  return {
    animation: false,
    responsive: true,
    maintainAspectRatio: false,
    interaction: { mode: 'nearest', intersect: onPick !== undefined },
    scales: { x: scale(x, ink, false), y: scale(y, ink, true) },
    ...(onPick !== undefined && {
      onClick: (_event, [hit]) => {
        if (hit !== undefined) onPick(hit.datasetIndex, hit.index);
      },
      onHover: ({ native }, hits) => {
        if (native?.target instanceof HTMLElement) native.target.style.cursor = hits.length > 0 ? 'pointer' : 'default';
      },
    }),
    plugins: {
      legend: {
        display: named !== undefined,
        align: 'start',
        onClick: () => undefined,
        labels: {
          color: ink.ink,
          usePointStyle: true,
          pointStyle: 'line',
          filter: ({ datasetIndex }) => datasetIndex !== undefined && named?.(datasetIndex) === true,
        },
      },
      tooltip: {
        enabled: tipOf !== undefined,
        displayColors: false,
        cornerRadius: 2,
        backgroundColor: ink.bar,
        bodyColor: ink.onBar,
        filter: ({ datasetIndex, dataIndex }) => tipOf?.(datasetIndex, dataIndex) != null,
        callbacks: {
          title: () => '',
          label: ({ datasetIndex, dataIndex }: TooltipItem<'scatter'>) => tipOf?.(datasetIndex, dataIndex) ?? '',
        },
      },
      annotation: { annotations: drawn },
    },
  };
}
