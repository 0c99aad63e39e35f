import { useState } from 'react';
import { Button, Input } from 'antd';
import { pointOfStage, type PathStage } from '@fairwatt/core';
import { clockTime } from '../../controls/clock.ts';
import { useDesk } from '../../job/job-context.ts';
import styles from './pass-stage.module.css';

const notDone: Readonly<Record<PathStage, string>> = {
  record: 'Not recorded',
  'take-out': 'Not ticked',
  refit: 'Not ticked',
};

/** A stage is passed by saying why; nothing where nothing is left of it. */
export function PassStage({ stage }: { readonly stage: PathStage }) {
  const { view, act, locked, personName, offerUndo } = useDesk();
  const [reason, setReason] = useState<string | null>(null);
  const [told, setTold] = useState(false);
  const point = pointOfStage(stage, view.openPoints);
  if (point === null) return null;
  const { key, signOff } = point;
  if (signOff !== null)
    return (
      <p className="quiet" data-passed={stage}>
        {notDone[stage]}, because: {signOff.reason} ({personName(signOff.by)}, {clockTime(signOff.at)}){' '}
        <Button type="link" disabled={locked} onClick={() => act({ kind: 'withdraw-sign-off', id: signOff.id })}>
          take back
        </Button>
      </p>
    );
  if (reason === null)
    return (
      <Button type="link" className={styles.pass ?? ''} disabled={locked} onClick={() => setReason('')}>
        {notDone[stage]}, because …
      </Button>
    );
  return (
    <form
      className={styles.because}
      onSubmit={(event) => {
        event.preventDefault();
        const said = reason.trim();
        if (said.length < 3) {
          setTold(true);
          return;
        }
        const id = crypto.randomUUID();
        if (act({ kind: 'sign-off', id, point: key, reason: said }) !== null) return;
        setReason(null);
        offerUndo('The stage is passed.', () => act({ kind: 'withdraw-sign-off', id }));
      }}
    >
      <Input
        autoFocus
        aria-label={`${notDone[stage]}, because`}
        placeholder="Why not?"
        maxLength={500}
        value={reason}
        onChange={(event) => {
          setReason(event.target.value);
          setTold(false);
        }}
        onKeyDown={(event) => {
          if (event.key === 'Escape' && reason === '') setReason(null);
        }}
      />
      <Button htmlType="submit">Pass it</Button>
      {told && (
        <span className="error-text" role="alert">
          Say why, in a few words.
        </span>
      )}
    </form>
  );
}
