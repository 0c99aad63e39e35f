/* oxlint-disable typescript/no-non-null-assertion --
   values stand in rows of one length, gone through by number */
import { expose } from 'comlink';
import { Chart, Filler, LinearScale, LineController, LineElement, PointElement } from 'chart.js';
import { voltsText, writeAs } from '@fairwatt/core';
import textFace from '@fontsource-variable/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-wght-normal.woff2?url';
import { timeSpanText } from '../controls/clock.ts';

Chart.register(LineController, LineElement, PointElement, LinearScale, Filler);
Chart.defaults.font.family = 'Chart Text, sans-serif';

/** The page's colours, as its style has them. */
export interface ChartInk {
  readonly ink: string;
  readonly quiet: string;
  readonly line: string;
  readonly fail: string;
}
/** Size in CSS pixels, and device pixels for each. */
export interface ChartSize {
  readonly width: number;
  readonly height: number;
  readonly ratio: number;
}
/** One rail's lowest and highest in pieces of a span, in seconds and volts, with the limits of its band. */
export interface ChartCurve {
  readonly seconds: ArrayLike<number>;
  readonly low: ArrayLike<number>;
  readonly high: ArrayLike<number>;
  readonly from: number;
  readonly to: number;
  readonly lower: number;
  readonly upper: number;
}

interface Point {
  x: number;
  y: number;
}
let chart: Chart<'line', Point[]> | null = null;

// A worker knows none of the page's faces.
async function loadFace(): Promise<void> {
  const { fonts } = self as unknown as { readonly fonts: FontFaceSet };
  const face = new FontFace('Chart Text', `url(${textFace})`, { weight: '200 800' });
  fonts.add(await face.load());
}

const session = {
  /** Takes the canvas over. @throws when its text face cannot be loaded */
  async open(canvas: OffscreenCanvas, size: ChartSize, locale: string): Promise<void> {
    writeAs({ locale });
    await loadFace();
    canvas.width = size.width;
    canvas.height = size.height;
    // The library draws into either kind of canvas; its types name only the page's.
    chart = new Chart<'line', Point[]>(canvas as unknown as HTMLCanvasElement, {
      type: 'line',
      data: {
        datasets: [
          { data: [], borderWidth: 1, pointRadius: 0, fill: '+1' },
          { data: [], borderWidth: 1, pointRadius: 0 },
          { data: [], borderWidth: 1, borderDash: [5, 4], pointRadius: 0 },
          { data: [], borderWidth: 1, borderDash: [5, 4], pointRadius: 0 },
        ],
      },
      options: {
        animation: false,
        parsing: false,
        normalized: true,
        responsive: false,
        maintainAspectRatio: false,
        events: [],
        devicePixelRatio: size.ratio,
        scales: {
          x: { type: 'linear', ticks: { maxTicksLimit: 8, callback: (value) => timeSpanText(Number(value)) } },
          y: { ticks: { callback: (value) => voltsText(Number(value)) } },
        },
        plugins: { legend: { display: false }, tooltip: { enabled: false } },
      },
    });
  },

  resize(width: number, height: number): void {
    chart?.resize(width, height);
  },

  draw(curve: ChartCurve, { ink, quiet, line, fail }: ChartInk): void {
    if (chart === null) return;
    const points = (list: ArrayLike<number>): Point[] =>
      Array.from(list, (y, index) => ({ x: curve.seconds[index]!, y }));
    const [low, high, below, above] = chart.data.datasets;
    Object.assign(low!, { data: points(curve.low), borderColor: ink, backgroundColor: `${quiet}66` });
    Object.assign(high!, { data: points(curve.high), borderColor: ink });
    Object.assign(below!, {
      data: [
        { x: curve.from, y: curve.lower },
        { x: curve.to, y: curve.lower },
      ],
      borderColor: fail,
    });
    Object.assign(above!, {
      data: [
        { x: curve.from, y: curve.upper },
        { x: curve.to, y: curve.upper },
      ],
      borderColor: fail,
    });
    const { x, y } = chart.options.scales! as {
      x: { min?: number; max?: number; ticks: object; grid: object };
      y: { ticks: object; grid: object };
    };
    x.min = curve.from;
    x.max = curve.to;
    for (const axis of [x, y]) {
      Object.assign(axis.ticks, { color: quiet });
      Object.assign(axis.grid, { color: line });
    }
    chart.update('none');
  },
};

export type ChartSession = typeof session;
expose(session);
