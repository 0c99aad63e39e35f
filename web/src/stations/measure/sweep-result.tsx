import { Button } from 'antd';
import type { NetworkInstrument } from '@fairwatt/contract';
import { figureText, bareReading, sweepEndText, voltsText, type Phase } from '@fairwatt/core';
import { useAppDispatch } from '../../app/store.ts';
import { sweepActions, type WatchedSweep } from '../../app/sweep.ts';
import { Sheet } from '../../controls/sheet.tsx';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';

/** The steps that were read, how it ended, and the readings to be kept. */
export function SweepResult({
  sweep,
  meter,
  phase,
}: {
  readonly sweep: WatchedSweep;
  readonly meter: NetworkInstrument;
  readonly phase: Phase;
}) {
  const { act, locked } = useDesk();
  const dispatch = useAppDispatch();
  const { steps, end } = sweep;
  const least = Math.min(...steps.map(({ amps }) => amps));
  const take = ({ amps, volts }: (typeof steps)[number]) =>
    act({
      kind: 'take-reading',
      reading: {
        ...bareReading,
        id: crypto.randomUUID(),
        phase: sweep.phase ?? phase,
        subject: sweep.rail,
        condition: amps === least ? 'idle' : 'work',
        value: { kind: 'figure', figure: Number(volts.toFixed(4)) },
        instrumentId: meter.instrumentId ?? '',
        loadAmps: amps,
        note: 'load sweep',
      },
    });
  const keep = () => {
    if (steps.every((step) => take(step) === null)) dispatch(sweepActions.kept());
  };
  return (
    <>
      {steps.length > 0 && (
        <Sheet
          rows={steps}
          rowKey={(step) => step.at}
          columns={[
            { head: 'A', className: looks.num, cell: (step) => figureText(step.amps, 1) },
            { head: 'V', className: looks.num, cell: (step) => voltsText(step.volts, 3) },
            {
              head: '°C',
              className: looks.num,
              cell: (step) => (step.celsius === null ? '' : figureText(step.celsius)),
            },
          ]}
        />
      )}
      {end !== null && (
        <div className={looks.below}>
          <p role="status">
            {sweepEndText[end.word] ?? end.word} {end.loadOff ? 'The load is off.' : ''}
          </p>
          {!end.loadOff && (
            <p className={looks.errorText} role="alert">
              <strong>Nobody knows whether the load still draws: switch it off by hand, now.</strong>
            </p>
          )}
          {steps.length > 0 && (
            <Button disabled={locked || sweep.kept || meter.instrumentId === null} onClick={keep}>
              {sweep.kept ? 'Kept; see the load line' : `Keep ${steps.length} readings`}
            </Button>
          )}
        </div>
      )}
    </>
  );
}
