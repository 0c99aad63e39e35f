import { Button, Collapse } from 'antd';
import { choiceLines, choiceReason } from '@fairwatt/core';
import { signs } from '../../controls/signs.tsx';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';

/** What is chosen for the job, with what was known then; it can be taken back. */
export function ChosenBefore() {
  const { job, view, act, locked } = useDesk();
  const { choice } = job;
  if (choice === null) return null;
  return (
    <div className={looks.quiet} data-chosen-before>
      {choice.kind === 'keep'
        ? 'The present supply is kept.'
        : `Chosen: ${view.chosen?.name ?? choice.modelId}. ${choiceReason(choice)}`}{' '}
      <Button
        icon={signs.undo}
        type="link"
        disabled={locked}
        onClick={() => act({ kind: 'set-choice', choice: null, basedOn: choice.version })}
      >
        take back
      </Button>
      <KnownThen lines={choiceLines(choice)} />
    </div>
  );
}

function KnownThen({ lines }: { readonly lines: readonly string[] }) {
  if (lines.length === 0) return null;
  const list = (
    <ul>
      {lines.map((line) => (
        <li key={line}>{line}</li>
      ))}
    </ul>
  );
  return <Collapse ghost size="small" items={[{ key: 'known', label: 'What was known then', children: list }]} />;
}
