import { useMemo } from 'react';
import { Button } from 'antd';
import { upgradeInWords, upgradeInWordsText } from '@fairwatt/core';
import { looks } from '../looks/looks.ts';
import { useDesk } from './job-context.ts';

/** What the client plans and nobody entered, with a way to enter it: whatever is judged is judged without it. */
export default function UpgradeInWords({
  act,
  onAct,
}: {
  readonly act: string;
  readonly onAct: (words: string) => void;
}) {
  const { job, locked } = useDesk();
  const words = useMemo(() => upgradeInWords(job), [job]);
  if (words === null || locked) return null;
  return (
    <div className={looks.caution} role="note" data-upgrade-in-words>
      <span>
        {upgradeInWordsText(words)}{' '}
        <Button type="link" onClick={() => onAct(words)}>
          {act}
        </Button>
      </span>
    </div>
  );
}
