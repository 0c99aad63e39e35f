import { useState } from 'react';
import { Button } from 'antd';
import { bareReading, troubleText, type Phase } from '@fairwatt/core';
import type { NetworkInstrument } from '@fairwatt/contract';
import { problemOf, useTimePowerGoodMutation } from '../../app/api.ts';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';

/** Power-good timed by a meter that can: from the rails being good to the signal, at the next start of the supply. */
export function PowerGoodPanel({ meter, phase }: { readonly meter: NetworkInstrument; readonly phase: Phase }) {
  const { job, act, locked, shop } = useDesk();
  const [time, timing] = useTimePowerGoodMutation();
  const [kept, setKept] = useState(false);
  const instrument = shop.instruments.find((item) => item.id === meter.instrumentId);
  if (instrument === undefined || instrument.powerGoodErrorMilliseconds === null) return null;
  const { data } = timing;
  const keep = () => {
    if (data?.milliseconds == null) return;
    if (
      act({
        kind: 'take-reading',
        reading: {
          ...bareReading,
          id: crypto.randomUUID(),
          phase,
          subject: 'power-good',
          condition: 'off-load',
          value: { kind: 'figure', figure: Math.round(data.milliseconds) },
          instrumentId: instrument.id,
          note: 'timed by the meter',
        },
      }) === null
    )
      setKept(true);
  };
  return (
    <section aria-label="Power-good" className={looks.wellBelow}>
      <span className={looks.label}>Power-good</span>
      <p className={looks.quiet}>First input on +5 V, second on power-good (pin 8); then the supply is started.</p>
      <div className={`${looks.rowActions} ${looks.midLine}`}>
        <Button
          disabled={timing.isLoading}
          onClick={() => {
            setKept(false);
            void time({ id: meter.id, job: job.code });
          }}
        >
          {timing.isLoading ? 'Waiting for the start …' : 'Time power-good'}
        </Button>
        {data?.milliseconds != null && (
          <>
            <span className={`${looks.fig} ${looks.large}`} data-power-good>
              {Math.round(data.milliseconds)} ms
            </span>
            <Button disabled={locked || kept} onClick={keep}>
              {kept ? 'Kept' : 'Keep it'}
            </Button>
          </>
        )}
        {data?.trouble != null && (
          <span className={looks.errorText} role="alert">
            {data.trouble === 'out-of-range' ? 'No power-good came.' : (troubleText[data.trouble] ?? data.trouble)}
          </span>
        )}
        {timing.isError && (
          <span className={looks.errorText} role="alert">
            {problemOf(timing.error).title}
          </span>
        )}
      </div>
    </section>
  );
}
