import { Button } from 'antd';
import {
  figureText,
  moneyText,
  paybackYears,
  percentText,
  presentCost,
  wattsText,
  type CandidateRow,
  type DayProfile,
  type RunningCost,
} from '@fairwatt/core';
import { EfficiencyChart, type Curve } from '../../charts/efficiency-chart.tsx';
import { FigureField } from '../../controls/fields.tsx';
import { SetFigureField } from '../../controls/set-figure-field.tsx';
import { Sheet } from '../../controls/sheet.tsx';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';
import styles from './running-view.module.css';

/** A supply whose running is reckoned: the present one, and the one chosen or best. */
interface Running {
  readonly curve: Curve;
  readonly cost: RunningCost;
}

/** The one chosen, else the best that fits; and the cheapest that fits. */
function useShown(): { readonly shown: CandidateRow | undefined; readonly cheapest: CandidateRow | undefined } {
  const { job, view, shop } = useDesk();
  const fitting = view.candidates.filter((candidate) => candidate.fits);
  return {
    shown: view.candidates.find((candidate) => candidate.model.id === job.choice?.modelId) ?? fitting[0],
    cheapest: fitting
      .filter((candidate) => candidate.model.price.currency === shop.settings.currency)
      .sort((a, b) => a.model.price.minor - b.model.price.minor)[0],
  };
}

function usePresent(): Running | null {
  const { job, view, shop } = useDesk();
  const cost = presentCost(job, view.load, shop);
  if (cost === null || job.supply === null) return null;
  const { name, label } = job.supply;
  return {
    cost,
    curve: {
      name: name === '' ? 'The present one' : name,
      grade: label.grade,
      ratingWatts: label.ratingWatts,
      points: cost.points,
      dashed: true,
    },
  };
}

const runningOf = ({ model, cost }: CandidateRow): Running => ({
  cost,
  curve: { name: model.name, grade: model.label.grade, ratingWatts: model.label.ratingWatts, points: cost.points },
});

/** Efficiency, energy and money over the machine's own day; what mains, lead, breaker and a UPS see of it. */
export function RunningView() {
  const { shop } = useDesk();
  const present = usePresent();
  const { shown, cheapest } = useShown();
  const supplies = [present, shown === undefined ? null : runningOf(shown)].filter((one) => one !== null);
  return (
    <section aria-label="Running cost">
      {supplies.length === 0 ? (
        <p className={looks.quiet}>Enter the supply's label, or let a supply fit, and its curve is drawn here.</p>
      ) : (
        <EfficiencyChart mainsVolts={shop.settings.mainsVolts} curves={supplies.map(({ curve }) => curve)} />
      )}
      <div className={`${looks.columns} ${styles.threeTwo} ${looks.below}`}>
        <RunningTable supplies={supplies} />
        <div>
          <DayFields />
          {shown !== undefined && cheapest !== undefined && shown !== cheapest && (
            <Payback shown={shown} cheapest={cheapest} />
          )}
        </div>
      </div>
    </section>
  );
}

function RunningTable({ supplies }: { readonly supplies: readonly Running[] }) {
  const { job, shop } = useDesk();
  const { choosing, currency } = shop.settings;
  const years = job.sheet.keepYears ?? choosing.keepYears;
  const rows: readonly (readonly [string, (cost: RunningCost) => string])[] = [
    [
      'Efficiency idle / typical / full',
      (cost) => cost.points.map((point) => Math.round(point.efficiency * 100)).join(' / ') + ' %',
    ],
    ['Energy a year', (cost) => `${Math.round(cost.kilowattHours)} kWh`],
    ['of it lost in the supply', (cost) => `${Math.round(cost.lostKilowattHours)} kWh`],
    ['Money a year', (cost) => moneyText(cost.minorAYear, currency)],
    [`over ${years} years`, (cost) => moneyText(cost.minorAYear * years, currency)],
    ['Heat into the room, typical', (cost) => wattsText(cost.heatWatts)],
    ['Mains current at most', (cost) => `${figureText(cost.inputAmps, 1)} A of ${cost.leadAmps} A`],
    [`of a ${choosing.breakerAmps} A breaker`, (cost) => percentText(cost.breakerShare)],
    ['A UPS must give', (cost) => `${wattsText(cost.upsWatts)}, ${Math.round(cost.upsVoltAmps)} VA`],
  ];
  return (
    <Sheet
      rows={rows}
      rowKey={([name]) => name}
      columns={[
        { head: <span className={looks.visuallyHidden}>Figure</span>, cell: ([name]) => name },
        ...supplies.map(({ curve, cost }) => ({
          head: curve.name,
          className: looks.num,
          cell: ([, of]: (typeof rows)[number]) => of(cost),
        })),
      ]}
    />
  );
}

const hours = [
  ['idleHours', 'Idle'],
  ['typicalHours', 'Typical'],
  ['fullHours', 'Full'],
] as const;

/** How the machine's day goes, and how long a supply is kept. */
function DayFields() {
  const { job, shop, act, locked } = useDesk();
  const { sheet } = job;
  const { choosing } = shop.settings;
  const day = sheet.day ?? choosing.day;
  const edit = (changes: Partial<typeof sheet>) => act({ kind: 'edit-sheet', changes, basedOn: sheet.version });
  const setDay = (changes: Partial<DayProfile>) => edit({ day: { ...day, ...changes } });
  const left = 24 - day.idleHours - day.typicalHours - day.fullHours;
  return (
    <>
      <span className={looks.label}>This machine's day</span>
      <div className={`${looks.fields} ${looks.justBelow}`}>
        {hours.map(([name, label]) => (
          <SetFigureField
            key={name}
            label={label}
            unit="h"
            most={Math.max(0, left + day[name])}
            value={day[name]}
            disabled={locked}
            onChange={(value) => setDay({ [name]: value })}
          />
        ))}
        <SetFigureField
          label="Typical lies at"
          unit="%"
          most={100}
          value={Math.round(day.typicalShare * 100)}
          disabled={locked}
          onChange={(value) => setDay({ typicalShare: value / 100 })}
        />
        <FigureField
          label="Kept for"
          unit="years"
          least={0.5}
          most={30}
          value={sheet.keepYears ?? choosing.keepYears}
          disabled={locked}
          onChange={(keepYears) => edit({ keepYears })}
        />
      </div>
      <p className={`${looks.quiet} ${looks.below}`}>
        Off for the other {figureText(left, left % 1 === 0 ? 0 : 1)} h.{' '}
        {sheet.day === null ? (
          "This is the shop's usual day."
        ) : (
          <Button type="link" disabled={locked} onClick={() => edit({ day: null })}>
            back to the shop's usual day
          </Button>
        )}
      </p>
    </>
  );
}

/** Whether what it costs more than the cheapest comes back. */
function Payback({ shown, cheapest }: { readonly shown: CandidateRow; readonly cheapest: CandidateRow }) {
  const of = ({ model, cost }: CandidateRow) => ({ price: model.price, minorAYear: cost.minorAYear });
  const years = paybackYears(of(shown), of(cheapest));
  return (
    <p className={looks.below}>
      {shown.model.name} beside {cheapest.model.name}, the cheapest that fits:{' '}
      {years === null
        ? 'its better grade never pays for itself here.'
        : years === 0
          ? 'it is not dearer.'
          : `paid back after ${figureText(years, 1)} years.`}
    </p>
  );
}
