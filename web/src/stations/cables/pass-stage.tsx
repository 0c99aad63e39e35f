import { useState } from 'react';
import { Button } from 'antd';
import { pointOfStage, type PathStage } from '@fairwatt/core';
import { clockTime } from '../../controls/clock.ts';
import { ReasonForm } from '../../controls/reason-form.tsx';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';
import { signs } from '../../controls/signs.tsx';
import styles from './pass-stage.module.css';

const notDone: Readonly<Record<PathStage, string>> = {
  record: 'Not recorded',
  'take-out': 'Not ticked',
  refit: 'Not ticked',
};

/** A stage is passed by saying why; nothing where nothing is left of it. */
export function PassStage({ stage }: { readonly stage: PathStage }) {
  const { view, act, locked, personName, offerUndo } = useDesk();
  const [asked, setAsked] = useState(false);
  const point = pointOfStage(stage, view.openPoints);
  if (point === null) return null;
  const { key, signOff } = point;
  if (signOff !== null)
    return (
      <p className={looks.quiet} data-passed={stage}>
        {notDone[stage]}, because: {signOff.reason} ({personName(signOff.by)}, {clockTime(signOff.at)}){' '}
        <Button
          icon={signs.undo}
          type="link"
          disabled={locked}
          onClick={() => act({ kind: 'withdraw-sign-off', id: signOff.id })}
        >
          take back
        </Button>
      </p>
    );
  if (!asked)
    return (
      <Button type="link" className={styles.pass ?? ''} disabled={locked} onClick={() => setAsked(true)}>
        {notDone[stage]}, because …
      </Button>
    );
  return (
    <ReasonForm
      label={`${notDone[stage]}, because`}
      placeholder="Why not?"
      act="Pass it"
      onCancel={() => setAsked(false)}
      onReason={(reason) => {
        if (act({ kind: 'sign-off', id: crypto.randomUUID(), point: key, reason }) !== null) return;
        setAsked(false);
        offerUndo('The stage is passed.');
      }}
    />
  );
}
