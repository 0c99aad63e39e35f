import { Button } from 'antd';
import {
  moneyText,
  paybackYears,
  percentText,
  presentCost,
  wattsText,
  type CandidateRow,
  type DayProfile,
  type RunningCost,
} from '@fairwatt/core';
import { FigureField } from '../../controls/fields.tsx';
import { EfficiencyCurve } from '../../drawings/efficiency-curve.tsx';
import { useDesk } from '../../job/job-context.ts';
import { Sheet } from '../../controls/sheet.tsx';

/** Efficiency, energy and money over the machine's own day; what mains, lead, breaker and a UPS see of it. */
export function RunningView() {
  const { job, view, shop, act, locked } = useDesk();
  const { choosing, currency, mainsVolts } = shop.settings;
  const { sheet } = job;
  const day = sheet.day ?? choosing.day;
  const edit = (changes: Partial<typeof sheet>) => act({ kind: 'edit-sheet', changes, basedOn: sheet.version });
  const setDay = (changes: Partial<DayProfile>) => edit({ day: { ...day, ...changes } });
  const present = presentCost(job, view.load, shop);
  const fitting = view.candidates.filter((candidate) => candidate.fits);
  const shown: CandidateRow | undefined =
    view.candidates.find((candidate) => candidate.model.id === job.choice?.modelId) ?? fitting[0];
  const cheapest = [...fitting]
    .filter((candidate) => candidate.model.price.currency === currency)
    .sort((a, b) => a.model.price.minor - b.model.price.minor)[0];
  const years = sheet.keepYears ?? choosing.keepYears;
  const left = 24 - day.idleHours - day.typicalHours - day.fullHours;
  const most = (field: 'idleHours' | 'typicalHours' | 'fullHours') => Math.max(0, left + day[field]);
  const columns: readonly (readonly [string, RunningCost])[] = [
    ...(present === null
      ? []
      : [[job.supply?.name === '' || job.supply === null ? 'The present one' : job.supply.name, present] as const]),
    ...(shown === undefined ? [] : [[shown.model.name, shown.cost] as const]),
  ];
  const payback =
    shown === undefined || cheapest === undefined || shown === cheapest
      ? null
      : paybackYears(
          { price: shown.model.price, minorAYear: shown.cost.minorAYear },
          { price: cheapest.model.price, minorAYear: cheapest.cost.minorAYear },
        );
  return (
    <section aria-label="Running cost">
      {columns.length === 0 ? (
        <p className="quiet">Enter the supply's label, or let a supply fit, and its curve is drawn here.</p>
      ) : (
        <EfficiencyCurve
          mainsVolts={mainsVolts}
          curves={[
            ...(present === null || job.supply === null
              ? []
              : [
                  {
                    name: job.supply.name === '' ? 'The present one' : job.supply.name,
                    grade: job.supply.label.grade,
                    ratingWatts: job.supply.label.ratingWatts,
                    points: present.points,
                    dashed: true,
                  },
                ]),
            ...(shown === undefined
              ? []
              : [
                  {
                    name: shown.model.name,
                    grade: shown.model.label.grade,
                    ratingWatts: shown.model.label.ratingWatts,
                    points: shown.cost.points,
                  },
                ]),
          ]}
        />
      )}
      <div className="columns three-two" style={{ marginTop: 12 }}>
        <Sheet
          rows={
            [
              [
                'Efficiency idle / typical / full',
                (cost) => cost.points.map((point) => Math.round(point.efficiency * 100)).join(' / ') + ' %',
              ],
              ['Energy a year', (cost) => `${Math.round(cost.kilowattHours)} kWh`],
              ['of it lost in the supply', (cost) => `${Math.round(cost.lostKilowattHours)} kWh`],
              ['Money a year', (cost) => moneyText(cost.minorAYear, currency)],
              [`over ${years} years`, (cost) => moneyText(cost.minorAYear * years, currency)],
              ['Heat into the room, typical', (cost) => wattsText(cost.heatWatts)],
              ['Mains current at most', (cost) => `${cost.inputAmps.toFixed(1)} A of ${cost.leadAmps} A`],
              [`of a ${choosing.breakerAmps} A breaker`, (cost) => percentText(cost.breakerShare)],
              ['A UPS must give', (cost) => `${wattsText(cost.upsWatts)}, ${Math.round(cost.upsVoltAmps)} VA`],
            ] as readonly (readonly [string, (cost: RunningCost) => string])[]
          }
          rowKey={([name]) => name}
          columns={[
            { head: <span className="visually-hidden">Figure</span>, cell: ([name]) => name },
            ...columns.map(([column, cost]) => ({
              head: column,
              className: 'num',
              cell: ([, of]: readonly [string, (cost: RunningCost) => string]) => of(cost),
            })),
          ]}
        />
        <div>
          <span className="label">This machine's day</span>
          <div className="fields" style={{ marginTop: 6 }}>
            <FigureField
              label="Idle"
              unit="h"
              most={most('idleHours')}
              value={day.idleHours}
              disabled={locked}
              onChange={(idleHours) => {
                if (idleHours !== null) setDay({ idleHours });
              }}
            />
            <FigureField
              label="Typical"
              unit="h"
              most={most('typicalHours')}
              value={day.typicalHours}
              disabled={locked}
              onChange={(typicalHours) => {
                if (typicalHours !== null) setDay({ typicalHours });
              }}
            />
            <FigureField
              label="Full"
              unit="h"
              most={most('fullHours')}
              value={day.fullHours}
              disabled={locked}
              onChange={(fullHours) => {
                if (fullHours !== null) setDay({ fullHours });
              }}
            />
            <FigureField
              label="Typical lies at"
              unit="%"
              most={100}
              value={Math.round(day.typicalShare * 100)}
              disabled={locked}
              onChange={(value) => {
                if (value !== null) setDay({ typicalShare: value / 100 });
              }}
            />
            <FigureField
              label="Kept for"
              unit="years"
              least={0.5}
              most={30}
              value={years}
              disabled={locked}
              onChange={(keepYears) => edit({ keepYears })}
            />
          </div>
          <p className="quiet" style={{ marginTop: 8 }}>
            Off for the other {left.toFixed(left % 1 === 0 ? 0 : 1)} h.{' '}
            {sheet.day === null ? (
              "This is the shop's usual day."
            ) : (
              <Button type="link" disabled={locked} onClick={() => edit({ day: null })}>
                back to the shop's usual day
              </Button>
            )}
          </p>
          {shown !== undefined && cheapest !== undefined && shown !== cheapest && (
            <p style={{ marginTop: 8 }}>
              {shown.model.name} beside {cheapest.model.name}, the cheapest that fits:{' '}
              {payback === null
                ? 'its better grade never pays for itself here.'
                : payback === 0
                  ? 'it is not dearer.'
                  : `paid back after ${payback.toFixed(1)} years.`}
            </p>
          )}
        </div>
      </div>
    </section>
  );
}
