import { Checkbox } from 'antd';
import {
  figureText,
  durationText,
  inputWatts,
  loadFindingText,
  measuredText,
  routes,
  routeText,
  wattsText,
  worstOfEach,
  type Demand,
  type JobPart,
  type LoadAssessment,
  type LoadFinding,
} from '@fairwatt/core';
import { FigureField, SelectField } from '../../controls/fields.tsx';
import { useDesk } from '../../job/job-context.ts';
import { looks, verdictLook, type Mark } from '../../looks/looks.ts';
import { ConsumerDrawing } from './consumer-drawing.tsx';
import { Sheet } from '../../controls/sheet.tsx';
import styles from './consumers-view.module.css';

const findingMark: Record<LoadFinding['word'], Mark> = {
  covered: 'pass',
  tight: 'tight',
  beyond: 'fail',
  'not-promised': 'cannot-tell',
};
const findingWord: Record<LoadFinding['word'], string> = {
  covered: 'covered',
  tight: 'tight',
  beyond: 'beyond',
  'not-promised': 'not promised',
};

/** Each figure of the load beside the limit of the supply that came. */
function AgainstSupply({ assessment }: { readonly assessment: LoadAssessment | null }) {
  const { job } = useDesk();
  return (
    <section aria-label="Against the supply">
      <span className={looks.label}>
        Against{' '}
        {job.supply === null
          ? 'the supply (not entered)'
          : job.supply.name === ''
            ? 'the present supply'
            : job.supply.name}
      </span>
      {assessment === null ? (
        <p className={looks.quiet}>Enter the supply's label at Intake and every figure gets its limit.</p>
      ) : (
        <Sheet
          rows={worstOfEach(assessment.findings)}
          rowKey={(finding) => `${finding.code}-${finding.subject}`}
          columns={[
            { cell: (finding) => loadFindingText(finding) },
            {
              className: looks.num,
              cell: (finding) => `${Math.round(finding.ratio * 100)} %`,
            },
            {
              cell: (finding) => (
                <span className={verdictLook(findingMark[finding.word])}>{findingWord[finding.word]}</span>
              ),
            },
          ]}
        />
      )}
      {assessment?.spread != null && !assessment.spread.known && (
        <p className={`${looks.caution} ${looks.below}`}>
          <span>
            Nobody said which cables hang on which +12 V output. Reckoned is the kindest way
            {assessment.spread.worstRatio > 1
              ? '; in the unkindest one output would carry ' +
                `${Math.round(assessment.spread.worstRatio * 100)} % of its limit`
              : '; even the unkindest is covered'}
            . Say it at Intake, at the supply's outputs.
          </span>
        </p>
      )}
    </section>
  );
}

/** The lasting load by rail, and by the way it comes in. */
function RailsAndRoutes({ demand }: { readonly demand: Demand }) {
  return (
    <section aria-label="On each rail and way in">
      <Sheet
        rows={[
          ...(['+12', '+5', '+3.3'] as const).map((rail) => ({
            name: `${rail} V`,
            watts: wattsText(demand.rails[rail].watts),
            amps: figureText(demand.rails[rail].amps, 1),
          })),
          ...(demand.standbyWatts > 0
            ? [
                {
                  name: '+5 V standby, asleep',
                  watts: `${figureText(demand.standbyWatts, 1)} W`,
                  amps: figureText(demand.standbyWatts / 5, 2),
                },
              ]
            : []),
        ]}
        rowKey={(row) => row.name}
        columns={[
          { head: 'Lasting, on each rail', cell: (row) => row.name },
          { head: 'Watts', className: looks.num, cell: (row) => row.watts },
          { head: 'Amps', className: looks.num, cell: (row) => `${row.amps} A` },
        ]}
      />
      <div className={looks.below}>
        <Sheet
          rows={routes.filter((route) => demand.routes[route] > 0)}
          rowKey={(route) => route}
          columns={[
            { head: 'Comes in by', cell: (route) => routeText[route] },
            { head: 'Watts', className: looks.num, cell: (route) => wattsText(demand.routes[route]) },
          ]}
        />
      </div>
    </section>
  );
}

/** The machine as its consumers on the rails, and every figure beside its limit. */
export function ConsumersView({
  parts,
  demand,
  assessment,
}: {
  readonly parts: readonly JobPart[];
  readonly demand: Demand;
  readonly assessment: LoadAssessment | null;
}) {
  const { job } = useDesk();
  const rough = parts.filter((part) => part.figures.source === 'class').length;
  return (
    <>
      <ConsumerDrawing
        parts={parts.map((part) => ({
          id: part.id,
          name: part.quantity > 1 ? `${part.name} × ${part.quantity}` : part.name,
          change: part.change,
          watts: inputWatts(part, part.figures.likelyWatts),
          shortWatts: Math.max(inputWatts(part, part.figures.shortWatts), inputWatts(part, part.figures.likelyWatts)),
          figures: part.figures,
        }))}
      />
      <p className={`${looks.quiet} ${looks.justBelow}`}>
        {rough === 0
          ? "Every figure is a part's own."
          : `${rough} of ${parts.length} figures go by class; a label or a measurement makes them surer.`}{' '}
        Idle {wattsText(demand.idleWatts)}, drives starting {wattsText(demand.spinUpWatts)}
        {job.sheet.staggeredStart ? ' one after the other' : ''}. Peaks:{' '}
        {demand.peaks.map((peak) => `${durationText(peak.milliseconds)} ${wattsText(peak.watts)}`).join(', ')}.
      </p>
      <div className={`${looks.columns} ${looks.wellBelow}`}>
        <AgainstSupply assessment={assessment} />
        <RailsAndRoutes demand={demand} />
      </div>
      <Measured />
    </>
  );
}

/** What the machine was seen to draw, beside the estimate or in its place. */
function Measured() {
  const { job, view, act, locked } = useDesk();
  const { measuredLoad, staggeredStart } = job.sheet;
  const edit = (changes: Partial<typeof job.sheet>) => act({ kind: 'edit-sheet', changes, basedOn: job.sheet.version });
  const kind = measuredLoad?.kind ?? 'mains';
  return (
    <section className={`${looks.block} ${looks.wellBelow}`} aria-label="Measured load">
      <span className={looks.label}>Measured, under full work, as it came</span>
      <div className={styles.measuredFields}>
        <SelectField
          label="Where"
          value={kind}
          options={[
            { value: 'mains', label: 'at the mains, in watts' },
            { value: 'twelve', label: 'on +12 V, in amps' },
          ]}
          disabled={locked}
          onChange={(value) => {
            if (measuredLoad !== null) edit({ measuredLoad: { ...measuredLoad, kind: value } });
            else edit({ measuredLoad: { kind: value, figure: 0, used: false } });
          }}
        />
        <FigureField
          label="Figure"
          unit={kind === 'mains' ? 'W' : 'A'}
          optional
          most={5000}
          value={measuredLoad === null || measuredLoad.figure === 0 ? null : measuredLoad.figure}
          disabled={locked}
          onChange={(figure) =>
            edit({ measuredLoad: figure === null ? null : { kind, figure, used: measuredLoad?.used ?? false } })
          }
        />
        <Checkbox
          className={looks.tick}
          disabled={locked || measuredLoad === null}
          checked={measuredLoad?.used ?? false}
          onChange={(event) => {
            if (measuredLoad !== null) edit({ measuredLoad: { ...measuredLoad, used: event.target.checked } });
          }}
        >
          instead of the estimate
        </Checkbox>
        <Checkbox
          className={looks.tick}
          disabled={locked}
          checked={staggeredStart}
          onChange={(event) => edit({ staggeredStart: event.target.checked })}
        >
          drives start one by one
        </Checkbox>
      </div>
      <p className={`${looks.quiet} ${looks.justBelow}`} data-measured>
        {view.load.measured !== null
          ? measuredText(view.load.measured)
          : measuredLoad !== null && measuredLoad.figure > 0 && kind === 'mains' && job.supply === null
            ? 'From the mains only what the supply gives can be reckoned: its label is needed for its losses.'
            : 'A plug-in wattmeter at the lead, or a clamp around the +12 V wires. A measurement beats every class.'}
      </p>
    </section>
  );
}
