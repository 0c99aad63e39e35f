import { useState } from 'react';
import { Button } from 'antd';
import { bareReading, type CableProbe, type Phase, type ProbeVerdict } from '@fairwatt/core';
import { SelectField } from '../../controls/fields.tsx';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';

/** The rails that a walk has read, taken among the job's readings with the meter that showed them. */
export function WalkReadings({
  probe,
  verdict,
  phase,
}: {
  readonly probe: CableProbe;
  readonly verdict: ProbeVerdict;
  readonly phase: Phase;
}) {
  const { act, locked, shop } = useDesk();
  const [instrumentId, setInstrument] = useState(
    () => shop.instruments.find((item) => item.kind === 'multimeter')?.id ?? '',
  );
  const [kept, setKept] = useState(false);
  const rails = verdict.pins.flatMap(({ pin, expects, value, finding }) =>
    expects.kind === 'rail' && value !== null && (finding === 'right' || finding === 'weak')
      ? [{ pin, rail: expects.rail, value }]
      : [],
  );
  if (rails.length === 0 || verdict.word === 'wrong') return null;
  const take = ({ pin, rail, value }: (typeof rails)[number]) =>
    act({
      kind: 'take-reading',
      reading: {
        ...bareReading,
        id: crypto.randomUUID(),
        phase,
        subject: rail,
        condition: 'off-load',
        value,
        instrumentId,
        pin: { plug: probe.plug, pin },
        note: probe.label,
      },
    });
  const keep = () => {
    if (rails.every((pin) => take(pin) === null)) setKept(true);
  };
  return (
    <div className={`${looks.rowActions} ${looks.wellBelow} ${looks.onFoot}`}>
      <SelectField
        label="Read with"
        value={instrumentId}
        options={shop.instruments.map((item) => ({ value: item.id, label: item.name }))}
        disabled={locked}
        onChange={setInstrument}
      />
      <Button disabled={locked || kept || instrumentId === ''} onClick={keep}>
        {kept ? 'Among the readings' : `${rails.length} rail pins as readings, off load`}
      </Button>
    </div>
  );
}
