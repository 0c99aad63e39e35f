import { useState } from 'react';
import { Button } from 'antd';
import { familyText } from '@fairwatt/core';
import type { Pinout, SupplySummary } from '@fairwatt/contract';
import { useAppSelector } from '../app/store.ts';
import { Empty } from '../controls/empty.tsx';
import { looks } from '../looks/looks.ts';
import { PinoutForm } from './pinout-form.tsx';
import { signs } from '../controls/signs.tsx';
import styles from './bag-list.module.css';

const newPinout = (): Pinout => ({
  id: `back-${crypto.randomUUID().slice(0, 8)}`,
  version: 0,
  name: '',
  sockets: [],
  supplies: [],
});

const socketsText = ({ sockets }: Pinout): string =>
  sockets
    .map(
      ({ family, pins }) =>
        `${familyText[family]}: ${pins.length} pins${pins.includes(null) ? ', some not known' : ''}`,
    )
    .join('; ');

/**
 * What the sockets of a kind of supply give, pin by pin. No standard covers them: each is measured or read from its
 * maker.
 */
export function PinoutsPanel({
  pinouts,
  supplies,
}: {
  readonly pinouts: readonly Pinout[];
  readonly supplies: readonly SupplySummary[];
}) {
  const technician = useAppSelector((state) => state.session.technician);
  const [editing, setEditing] = useState<Pinout | null>(null);
  return (
    <div className={looks.columns}>
      <div>
        {pinouts.length === 0 && (
          <Empty title="No sockets are known yet">
            Measure a socket pin by pin, with nothing plugged in, and enter what each pin gives.
          </Empty>
        )}
        <ul className={styles.bagList}>
          {pinouts.map((pinout) => (
            <li key={pinout.id}>
              <Button
                type="text"
                className={looks.plain}
                aria-pressed={editing?.id === pinout.id}
                onClick={() => setEditing(pinout)}
              >
                <span className={looks.what}>
                  {pinout.name}
                  <span className={`${looks.quiet} ${looks.blockNote}`}>{socketsText(pinout)}</span>
                  <span className={`${looks.quiet} ${looks.blockNote}`}>
                    {pinout.supplies.length} {pinout.supplies.length === 1 ? 'supply' : 'supplies'}
                  </span>
                </span>
              </Button>
            </li>
          ))}
        </ul>
        <Button
          icon={signs.add}
          className={looks.below}
          disabled={technician === null}
          onClick={() => setEditing(newPinout())}
        >
          Enter another kind of supply
        </Button>
      </div>
      {editing !== null && (
        <PinoutForm key={editing.id} was={editing} supplies={supplies} onClose={() => setEditing(null)} />
      )}
    </div>
  );
}
