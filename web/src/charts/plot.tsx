import { useEffect, useRef } from 'react';
import type { Chart } from 'chart.js';
import { Scatter } from 'react-chartjs-2';
import { xyOptions, type Point, type Series, type XyOptions } from './chart-parts.ts';

/** The drawing of a chart alone: what draws it is large, and comes when the first one is drawn. */
export default function Plot({
  labelledBy,
  series,
  ...options
}: XyOptions & { readonly labelledBy: string; readonly series: readonly Series[] }) {
  const chart = useRef<Chart<'scatter', Point[]>>(null);
  // What was drawn before its face was there is drawn once more.
  useEffect(() => {
    void document.fonts.ready.then(() => chart.current?.update('none'));
  }, []);
  return (
    <Scatter
      ref={chart}
      aria-labelledby={labelledBy}
      data={{ datasets: [...series] }}
      options={xyOptions(options)}
      updateMode="none"
    />
  );
}
