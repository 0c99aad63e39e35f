import { useEffect, useId, useRef, type ReactNode } from 'react';
import { Collapse } from 'antd';
import type { Chart } from 'chart.js';
import { Scatter } from 'react-chartjs-2';
import { Sheet } from '../controls/sheet.tsx';
import styles from './charts.module.css';
import { xyOptions, type Point, type Series, type XyOptions } from './chart-parts.ts';

/** The figures that a chart draws, in rows. */
export interface Figures {
  readonly heads: readonly string[];
  readonly rows: readonly (readonly ReactNode[])[];
}

/** A chart with its name, a sentence that says what it shows, and its figures as a table. */
export function ChartFigure({
  name,
  sentence,
  saidBeside = false,
  height,
  series,
  figures,
  ...rest
}: XyOptions & {
  readonly name: string;
  readonly sentence: string;
  /** The sentence stands beside the chart already. */
  readonly saidBeside?: boolean;
  readonly height: number;
  readonly series: readonly Series[];
  /** Absent where it changes faster than anybody reads. */
  readonly figures?: Figures;
}) {
  const said = useId();
  const chart = useRef<Chart<'scatter', Point[]>>(null);
  // What was drawn before its face was there is drawn once more.
  useEffect(() => {
    void document.fonts.ready.then(() => chart.current?.update('none'));
  }, []);
  return (
    <figure className={styles['figure']} aria-label={name}>
      <div className={styles['canvas']} style={{ height }}>
        <Scatter
          ref={chart}
          aria-labelledby={said}
          data={{ datasets: [...series] }}
          options={xyOptions(rest)}
          updateMode="none"
        />
      </div>
      <figcaption id={said} className={saidBeside ? 'visually-hidden' : 'quiet'}>
        {sentence}
      </figcaption>
      {figures !== undefined && <FiguresTable name={name} figures={figures} />}
    </figure>
  );
}

function FiguresTable({ name, figures: { heads, rows } }: { readonly name: string; readonly figures: Figures }) {
  return (
    <Collapse
      ghost
      size="small"
      items={[
        {
          key: 'figures',
          label: 'Figures as a table',
          children: (
            <Sheet<readonly ReactNode[]>
              label={name}
              rows={rows}
              rowKey={(_row, index) => index}
              columns={heads.map((head, column) => ({
                head,
                cell: (row) => row[column],
                ...(column === 0 ? { names: true } : { className: 'num' }),
              }))}
            />
          ),
        },
      ]}
    />
  );
}
