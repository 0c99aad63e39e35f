import { useMemo } from 'react';
import { Button } from 'antd';
import { upgradeInWords, upgradeInWordsText } from '@fairwatt/core';
import { useDesk } from './job-context.ts';

/** What the client plans and nobody entered: whatever is judged here is judged without it. */
export default function UpgradeInWords() {
  const { job, locked, goTo } = useDesk();
  const words = useMemo(() => upgradeInWords(job), [job]);
  if (words === null || locked) return null;
  return (
    <div className="caution" role="note" data-upgrade-in-words>
      <span>
        {upgradeInWordsText(words)}{' '}
        <Button type="link" onClick={() => goTo('intake', 'machine')}>
          Enter what comes
        </Button>
      </span>
    </div>
  );
}
