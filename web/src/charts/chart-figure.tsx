import { useId, type ReactNode } from 'react';
import { Collapse } from 'antd';
import { beside } from '../controls/beside.tsx';
import { Sheet } from '../controls/sheet.tsx';
import { Waiting } from '../controls/waiting.tsx';
import { looks } from '../looks/looks.ts';
import styles from './charts.module.css';
import type { Series, XyOptions } from './chart-parts.ts';

const Plot = beside(
  () => import('./plot.tsx'),
  () => <Waiting />,
);

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
  return (
    <figure className={styles['figure']} aria-label={name}>
      <div className={styles['canvas']} style={{ height }}>
        <Plot labelledBy={said} series={series} {...rest} />
      </div>
      <figcaption id={said} className={saidBeside ? looks.visuallyHidden : looks.quiet}>
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
                ...(column === 0 ? { names: true } : { className: looks.num }),
              }))}
            />
          ),
        },
      ]}
    />
  );
}
