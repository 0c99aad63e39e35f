import { useState } from 'react';
import { Button } from 'antd';
import type { Audit, AuditKind } from '@fairwatt/contract';
import { looks } from '../looks/looks.ts';
import { useAuditQuery } from './people-api.ts';
import { dayAndTime } from '../controls/clock.ts';
import { Sheet, type SheetColumn } from '../controls/sheet.tsx';
import { signs } from '../controls/signs.tsx';
import styles from './access.module.css';

const kindText: Readonly<Record<AuditKind, string>> = {
  'owner-made': 'made an owner',
  'signed-in': 'signed in',
  'sign-in-refused': 'was refused',
  locked: 'was locked',
  'signed-out': 'signed out',
  'sessions-ended': 'ended sessions',
  'second-signed': 'had a second person sign',
  'secret-changed': 'changed a secret',
  'person-added': 'added a person',
  'person-changed': 'changed a person',
  'device-asked': 'asked for a device',
  'device-enrolled': 'was enrolled',
  'device-ended': 'ended a device',
  'signing-changed': 'changed how people sign',
  'settings-changed': 'changed settings',
  'address-changed': 'changed an address',
  exported: 'took a file out',
  imported: 'brought a file in',
  deleted: 'took something out',
};

type Line = Audit['lines'][number];
const columns: readonly SheetColumn<Line>[] = [
  { head: 'When', cell: ({ at }) => dayAndTime(at) },
  { head: 'Who', cell: ({ by }) => by ?? <span className={looks.quiet}>nobody signed in</span> },
  { head: 'What', cell: ({ kind }) => kindText[kind] },
  { head: 'About', cell: ({ about }) => about },
  { head: 'Device', cell: ({ device }) => device ?? '' },
];

/** What was done about people, devices, settings and files; nothing of it is ever changed. */
export function AuditTable() {
  const [pages, setPages] = useState<readonly number[]>([]);
  const before = pages.at(-1) ?? null;
  const { data } = useAuditQuery(before, { refetchOnMountOrArgChange: true });
  const lines = data?.lines ?? [];
  const last = lines.at(-1);
  return (
    <section className={looks.block} aria-label="What was done">
      <span className={looks.label}>What was done</span>
      <p className={looks.quiet}>Sign-ins, roles, devices, settings, files out and in. Nobody changes a line of it.</p>
      <Sheet
        label="What was done"
        rows={lines}
        rowKey={({ id }) => id}
        columns={columns}
        empty="Nothing was done yet."
      />
      <div className={styles['row']}>
        <Button
          icon={signs.previous}
          disabled={data?.more !== true || last === undefined}
          onClick={() => setPages([...pages, ...(last === undefined ? [] : [last.id])])}
        >
          Earlier
        </Button>
        <Button icon={signs.next} disabled={pages.length === 0} onClick={() => setPages(pages.slice(0, -1))}>
          Later
        </Button>
      </div>
    </section>
  );
}
