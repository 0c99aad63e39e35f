import { figureText, forecastText, readingsOf, subjectText, voltsText, type Phase } from '@fairwatt/core';
import { LoadLineChart } from '../../charts/load-line-chart.tsx';
import { ReadingsChart } from '../../charts/readings-chart.tsx';
import { Empty } from '../../controls/empty.tsx';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';
import styles from './load-line-view.module.css';

type Line = ReturnType<typeof useDesk>['view']['lines'][Phase]['forecasts'][number]['line'];

/** What a load line says in figures. */
function LineFigures({ line }: { readonly line: Line }) {
  return (
    <dl className={looks.factsList}>
      <div>
        <dt>resistance</dt>
        <dd>{line.resistanceOhms < 0 ? 'rises with load' : `${figureText(line.resistanceOhms * 1000, 1)} mΩ`}</dd>
      </div>
      <div>
        <dt>at 95 %</dt>
        <dd>
          {line.resistanceInterval === null
            ? 'third load'
            : `${figureText(line.resistanceInterval.low * 1000, 1)} to ` +
              figureText(line.resistanceInterval.high * 1000, 1)}
        </dd>
      </div>
      <div>
        <dt>without load</dt>
        <dd>{voltsText(line.openVolts)} V</dd>
      </div>
      <div>
        <dt>readings</dt>
        <dd>{line.points.length}</dd>
      </div>
    </dl>
  );
}

/** What each rail will show at the planned load, and how the readings went over time. */
export function LoadLineView({ phase }: { readonly phase: Phase }) {
  const { job, view } = useDesk();
  const { forecasts, crossLoad } = view.lines[phase];
  const guide = view[phase].guide;
  const readings = readingsOf(job, phase);
  return (
    <>
      {forecasts.length === 0 ? (
        <Empty title="No load line yet">
          Read one rail at two loads with the same meter: idle and at work, or with the amps on the rail. Three loads or
          more give an interval.
        </Empty>
      ) : (
        forecasts.map(({ line, planned }) => (
          <section
            key={line.rail}
            className={`${looks.block} ${styles.loadLine}`}
            aria-label={`Load line of ${subjectText[line.rail]}`}
            data-forecast={planned.word}
          >
            <div>
              <h2>{subjectText[line.rail]}</h2>
              <p>{forecastText(planned)}</p>
              <LineFigures line={line} />
              {line.scatterVolts === null && (
                <p className={`${looks.quiet} ${looks.below}`}>
                  Two readings always lie on a line: how they scatter is taken for granted ({figureText(0.17, 2)} % of
                  nominal). A third load begins to tell it.
                </p>
              )}
              {line.bend !== null && (
                <p className={`${looks.quiet} ${looks.below}`}>
                  The rail bends away from a straight line, more than its readings scatter. Beyond the highest load that
                  was read nothing is said.
                </p>
              )}
              {line.estimated && (
                <p className={`${looks.quiet} ${looks.below}`}>
                  The amps are estimated from the parts. Enter them with the reading, or set them with a load, to be
                  sure.
                </p>
              )}
            </div>
            <LoadLineChart line={line} planned={planned} guide={guide} />
          </section>
        ))
      )}
      {crossLoad !== null && (
        <p className={looks.caution}>
          +5 V rises by {voltsText(crossLoad.fiveRisesVolts)} V while +12 V falls by{' '}
          {voltsText(crossLoad.twelveFallsVolts)} V: both are regulated together, and a heavy +12 V load pulls them
          apart.
        </p>
      )}
      {readings.length > 1 && (
        <section className={looks.block} aria-label="Readings over time">
          <span className={looks.label}>Readings over time, off nominal</span>
          <ReadingsChart readings={readings} guide={guide} />
        </section>
      )}
    </>
  );
}
