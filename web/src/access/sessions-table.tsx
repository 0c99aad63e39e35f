import { useState } from 'react';
import { Button } from 'antd';
import type { SessionShown } from '@fairwatt/contract';
import { problemOf } from '../app/api.ts';
import { looks } from '../looks/looks.ts';
import { useEndSessionMutation, useSessionsQuery } from './people-api.ts';
import { dayAndTime } from '../controls/clock.ts';
import { Sheet, type SheetColumn } from '../controls/sheet.tsx';
import { Waiting } from '../controls/waiting.tsx';
import styles from './access.module.css';

const placeOf = ({ device }: SessionShown): string => device ?? 'A browser that is not enrolled';

/** Where somebody is signed in, each to be ended by itself: one's own, or everybody's with their names. */
export function SessionsTable({ of }: { readonly of: 'me' | 'everybody' }) {
  const sessions = useSessionsQuery();
  const [end, { isLoading }] = useEndSessionMutation();
  const [told, setTold] = useState<string | null>(null);
  async function over({ id }: SessionShown): Promise<void> {
    const answer = await end(id);
    setTold(answer.error === undefined ? null : problemOf(answer.error).title);
  }
  if (sessions.data === undefined)
    return sessions.isError ? (
      <p className={looks.quiet}>{problemOf(sessions.error).title}</p>
    ) : (
      <Waiting>Fetching where somebody is signed in …</Waiting>
    );
  const mine = sessions.data.find(({ here }) => here)?.person;
  const shown = of === 'me' ? sessions.data.filter(({ person }) => person === mine) : sessions.data;
  const columns: readonly SheetColumn<SessionShown>[] = [
    ...(of === 'me' ? [] : [{ head: 'Person', names: true, cell: ({ person }: SessionShown) => person }]),
    { head: 'Where', names: of === 'me', cell: placeOf },
    { head: 'Since', cell: ({ begunAt }) => dayAndTime(begunAt) },
    { head: 'Ends by itself', cell: ({ endsAt }) => dayAndTime(endsAt) },
    {
      head: <span className={looks.visuallyHidden}>What to do</span>,
      cell: (session) => (
        <span className={styles['acts']}>
          {session.here ? (
            <span className={looks.quiet}>here</span>
          ) : (
            <Button disabled={isLoading} onClick={() => void over(session)}>
              End it
            </Button>
          )}
        </span>
      ),
    },
  ];
  return (
    <>
      <Sheet label="Sessions" rows={shown} rowKey={({ id }) => id} columns={columns} empty="Nobody is signed in." />
      {told !== null && (
        <div className={looks.errorText} role="alert">
          {told}
        </div>
      )}
    </>
  );
}
