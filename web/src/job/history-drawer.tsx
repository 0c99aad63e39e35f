import { useMemo, useState } from 'react';
import { Drawer, Select } from 'antd';
import { actText } from '@fairwatt/core';
import type { JobEvents } from '@fairwatt/contract';
import { problemOf, useJobEventsQuery } from '../app/api.ts';
import { dayAndTime } from '../controls/clock.ts';
import { Empty } from '../controls/empty.tsx';
import { fieldLabel, valueText } from '../controls/field-words.ts';
import { Sheet } from '../controls/sheet.tsx';
import { Waiting } from '../controls/waiting.tsx';
import { looks } from '../looks/looks.ts';
import { historyOf, type HistoryLine } from './history-lines.ts';
import { useDesk } from './job-context.ts';
import type { DrawerProps } from './use-drawer.ts';
import styles from './history-drawer.module.css';

/** What happened to a job beside the acts on it. */
const besides: Readonly<Record<string, string>> = {
  'new-job': 'The job was made',
  import: 'Taken in from a file',
  'add-photo': 'A picture added',
  'drop-photo': 'A picture taken out',
  'leave-out': 'Left out of the record',
  'count-again': 'Counted in the record again',
};

interface Line {
  readonly id: string;
  readonly by: string;
  readonly at: string;
  readonly text: string;
  readonly changes: HistoryLine['changes'];
}

/** Who did what to this job, and when, the latest first. */
export default function HistoryDrawer({ code, open, onClose }: DrawerProps) {
  return (
    <Drawer title={`History of ${code}`} size="min(640px, 100vw)" open={open} onClose={onClose} destroyOnHidden>
      <Past />
    </Drawer>
  );
}

function Past() {
  const { code } = useDesk();
  const events = useJobEventsQuery(code, { refetchOnMountOrArgChange: true });
  if (events.data === undefined)
    return events.isError ? <Empty title={problemOf(events.error).title} /> : <Waiting>Fetching the history …</Waiting>;
  return <Lines events={events.data.events} />;
}

function Lines({ events }: { readonly events: JobEvents['events'] }) {
  const { names, personName } = useDesk();
  const [who, setWho] = useState<string | null>(null);
  const lines = useMemo(() => {
    const acts = events.flatMap(({ id, by, at, act }) => (act === null ? [] : [{ id, by, at, act }])).reverse();
    const changed = new Map(historyOf(acts).map((line) => [line.id, line]));
    return events.map(({ id, by, at, kind }): Line => {
      const line = changed.get(id);
      return {
        id,
        by,
        at,
        text: line === undefined ? (besides[kind] ?? kind) : actText(line.act, names),
        changes: line?.changes ?? [],
      };
    });
  }, [events, names]);
  const people = [...new Set(events.map(({ by }) => by))];
  const shown = lines.filter(({ by }) => who === null || by === who);
  return (
    <>
      <Select
        aria-label="Whose acts"
        value={who}
        className={styles.whose ?? ''}
        onChange={(picked: string | null) => setWho(picked)}
        options={[{ value: null, label: 'Everybody' }, ...people.map((id) => ({ value: id, label: personName(id) }))]}
      />
      <Sheet
        label="History"
        rows={shown}
        rowKey={(line) => line.id}
        columns={[
          { head: 'When', width: 132, className: looks.quiet, cell: (line) => dayAndTime(line.at) },
          { head: 'Who', width: 96, cell: (line) => personName(line.by) },
          {
            head: 'What',
            cell: (line) => (
              <>
                {line.text}
                {line.changes.length > 0 && (
                  <ul className={looks.quiet}>
                    {line.changes.map(({ path, before, after }) => (
                      <li key={path}>
                        {fieldLabel(path)}: {before === undefined ? '' : `${valueText(before)} → `}
                        {valueText(after)}
                      </li>
                    ))}
                  </ul>
                )}
              </>
            ),
          },
        ]}
      />
      {events.length === 500 && <p className={looks.quiet}>Only the latest 500 are shown.</p>}
    </>
  );
}
