import { useCallback, useEffect, useRef, useState, type KeyboardEvent, type WheelEvent } from 'react';
import { Chart, Filler, LinearScale, LineController, LineElement, PointElement, Tooltip } from 'chart.js';
import { railBand, voltsText, type Guide, type RailName } from '@fairwatt/core';
import { timeSpanText } from '../../controls/clock.ts';

Chart.defaults.font.family = 'Atkinson Hyperlegible Next Variable, sans-serif';
Chart.register(LineController, LineElement, PointElement, LinearScale, Filler, Tooltip);

export interface CurvePieces { readonly seconds: ArrayLike<number>; readonly low: ArrayLike<number>; readonly high: ArrayLike<number> }
export interface Span { readonly from: number; readonly to: number }

const variable = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim();

/** One rail over time as a band from lowest to highest, with its limits. Wheel, keys and buttons zoom; the pieces come from `fetchPieces`. */
export function LogChart({ rail, guide, whole, span, onSpan, fetchPieces }: { readonly rail: RailName; readonly guide: Guide; readonly whole: Span; readonly span: Span; readonly onSpan: (span: Span) => void; readonly fetchPieces: (rail: RailName, span: Span) => Promise<CurvePieces | null> }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const chart = useRef<Chart<'line', { x: number; y: number }[]> | null>(null);
  const wanted = useRef(0);
  const [range, setRange] = useState('');
  const { lower, upper } = railBand(rail, guide);

  useEffect(() => {
    if (canvas.current === null) return undefined;
    const ink = variable('--ink');
    const made = new Chart<'line', { x: number; y: number }[]>(canvas.current, {
      type: 'line',
      data: { datasets: [
        { data: [], borderColor: ink, borderWidth: 1, pointRadius: 0, fill: '+1', backgroundColor: `${variable('--ink-2')}66` },
        { data: [], borderColor: ink, borderWidth: 1, pointRadius: 0 },
        { data: [], borderColor: variable('--fail'), borderWidth: 1, borderDash: [5, 4], pointRadius: 0 },
        { data: [], borderColor: variable('--fail'), borderWidth: 1, borderDash: [5, 4], pointRadius: 0 },
      ] },
      options: {
        animation: false, parsing: false, normalized: true, responsive: true, maintainAspectRatio: false, events: [],
        scales: {
          x: { type: 'linear', ticks: { color: variable('--ink-2'), maxTicksLimit: 8, callback: (value) => timeSpanText(Number(value)) }, grid: { color: variable('--line') } },
          y: { ticks: { color: variable('--ink-2'), callback: (value) => voltsText(Number(value)) }, grid: { color: variable('--line') } },
        },
        plugins: { legend: { display: false }, tooltip: { enabled: false } },
      },
    });
    chart.current = made;
    return () => { chart.current = null; made.destroy(); };
  }, []);

  useEffect(() => {
    const turn = ++wanted.current;
    void fetchPieces(rail, span).then((pieces) => {
      const shown = chart.current;
      // A newer wish has overtaken this answer.
      if (pieces === null || shown === null || turn !== wanted.current) return;
      const line = (list: ArrayLike<number>) => Array.from(list, (y, index) => ({ x: pieces.seconds[index]!, y }));
      const [low, high, below, above] = shown.data.datasets;
      low!.data = line(pieces.low);
      high!.data = line(pieces.high);
      below!.data = [{ x: span.from, y: lower }, { x: span.to, y: lower }];
      above!.data = [{ x: span.from, y: upper }, { x: span.to, y: upper }];
      const x = shown.options.scales!['x']!;
      x.min = span.from;
      x.max = span.to;
      shown.update('none');
      let least = Infinity;
      let most = -Infinity;
      for (let index = 0; index < pieces.low.length; index += 1) { least = Math.min(least, pieces.low[index]!); most = Math.max(most, pieces.high[index]!); }
      setRange(`${voltsText(least, 3)} to ${voltsText(most, 3)} V`);
    });
  }, [rail, span, lower, upper, fetchPieces]);

  const zoom = useCallback((factor: number, share = 0.5) => {
    const length = Math.min(whole.to - whole.from, Math.max((whole.to - whole.from) / 50_000, (span.to - span.from) * factor));
    const middle = span.from + (span.to - span.from) * share;
    const from = Math.min(whole.to - length, Math.max(whole.from, middle - length * share));
    onSpan({ from, to: from + length });
  }, [whole, span, onSpan]);
  const shift = useCallback((share: number) => {
    const length = span.to - span.from;
    const from = Math.min(whole.to - length, Math.max(whole.from, span.from + length * share));
    onSpan({ from, to: from + length });
  }, [whole, span, onSpan]);
  function onKey(event: KeyboardEvent): void {
    const done: Partial<Record<string, () => void>> = { '+': () => zoom(0.5), '=': () => zoom(0.5), '-': () => zoom(2), ArrowLeft: () => shift(-0.25), ArrowRight: () => shift(0.25), '0': () => onSpan(whole) };
    const run = done[event.key];
    if (run === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    run();
  }
  function onWheel(event: WheelEvent): void {
    const box = event.currentTarget.getBoundingClientRect();
    zoom(event.deltaY > 0 ? 1.35 : 0.74, Math.min(1, Math.max(0, (event.clientX - box.left - 50) / (box.width - 60))));
  }
  return (
    <div>
      <div className="row-actions" style={{ alignItems: 'center', marginBottom: 6 }}>
        <button type="button" className="secondary" onClick={() => zoom(0.5)}>Zoom in</button>
        <button type="button" className="secondary" onClick={() => zoom(2)}>Zoom out</button>
        <button type="button" className="secondary" aria-label="Earlier" onClick={() => shift(-0.5)}>←</button>
        <button type="button" className="secondary" aria-label="Later" onClick={() => shift(0.5)}>→</button>
        <button type="button" className="secondary" onClick={() => onSpan(whole)}>All</button>
        <span className="quiet fig">{timeSpanText(span.from)} to {timeSpanText(span.to)}: {range}</span>
      </div>
      <div className="log-chart" role="application" tabIndex={0} aria-label={`${rail} V over time, ${range}; plus and minus zoom, arrows move, 0 shows all`} onKeyDown={onKey} onWheel={onWheel}><canvas ref={canvas} /></div>
    </div>
  );
}
