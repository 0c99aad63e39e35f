import { useEffect } from 'react';
import { Button } from 'antd';
import { Link, useLocation } from 'react-router';
import { sweepEndText } from '@fairwatt/core';
import type { SweepEvent, SweepsMessage } from '@fairwatt/contract';
import { signs } from '../controls/signs.tsx';
import { looks } from '../looks/looks.ts';
import { useLoadOffMutation, useStopSweepMutation, useSweepsQuery } from './api.ts';
import { useAppDispatch, useAppSelector } from './store.ts';
import { sweepActions, type WatchedSweep } from './sweep.ts';
import styles from './sweep-watch.module.css';

/** Hears what happens in a sweep until it ends; Escape stops it. */
function useSweepEvents(id: string | null, refetch: () => unknown, stop: (id: string) => unknown): void {
  const dispatch = useAppDispatch();
  useEffect(() => {
    if (id === null) return undefined;
    const source = new EventSource(`/api/instruments/sweeps/${id}/events`);
    source.onopen = () => dispatch(sweepActions.opened());
    source.onmessage = (message: MessageEvent<string>) => {
      const event = JSON.parse(message.data) as SweepEvent;
      dispatch(sweepActions.came(event));
      if (event.kind === 'ended') {
        source.close();
        void refetch();
      }
    };
    // A source that is closed got an answer that says there is no such sweep.
    source.onerror = () => {
      dispatch(source.readyState === EventSource.CLOSED ? sweepActions.forgotten() : sweepActions.lost());
      if (source.readyState === EventSource.CLOSED) void refetch();
    };
    const onKey = (event: KeyboardEvent) => {
      if (event.key === 'Escape') void stop(id);
    };
    document.addEventListener('keydown', onKey);
    return () => {
      source.close();
      document.removeEventListener('keydown', onKey);
    };
  }, [id, dispatch, stop, refetch]);
}

function UnsureLoad({ load }: { readonly load: SweepsMessage['unsure'][number] }) {
  const technician = useAppSelector((state) => state.session.technician);
  const [makeSure, making] = useLoadOffMutation();
  return (
    <div className={`${looks.notice} ${looks.bad}`} role="alert" data-unsure={load.loadId}>
      <span className={looks.mark}>{load.loadName}</span>
      <span>
        <strong>Nobody knows whether it still draws: switch it off by hand, now.</strong>
      </span>
      <Button
        disabled={technician === null || making.isLoading}
        onClick={() => void makeSure({ id: load.loadId, by: technician ?? '', byHand: false })}
      >
        {making.isLoading ? 'Trying …' : 'Try to switch it off'}
      </Button>
      <Button
        disabled={technician === null}
        onClick={() => void makeSure({ id: load.loadId, by: technician ?? '', byHand: true })}
      >
        I saw that it is off
      </Button>
    </div>
  );
}

function RunningSweep({
  sweep,
  home,
  onStop,
}: {
  readonly sweep: WatchedSweep;
  /** Where it is shown whole; null where that is in sight. */
  readonly home: string | null;
  readonly onStop: () => void;
}) {
  return (
    <div className={styles.sweepBar} role="status" data-sweep-bar>
      <Button type="text" icon={signs.stop} className={styles.stopButton ?? ''} onClick={onStop}>
        Stop
      </Button>
      <span>
        <strong>{sweep.job}</strong>, {sweep.loadName} on {sweep.rail} V:{' '}
        {sweep.lost
          ? 'the screen lost the server; the sweep goes on there and ends by itself.'
          : sweep.setting === null
            ? 'setting up …'
            : `${sweep.setting} A, ${sweep.steps.length} of ${sweep.wanted} read`}
      </span>
      {home !== null && <Link to={home}>Look at it</Link>}
      <span className={`${looks.quiet} ${looks.push}`}>
        <kbd>Esc</kbd> stops
      </span>
    </div>
  );
}

function EndedSweep({
  sweep,
  end,
  home,
}: {
  readonly sweep: WatchedSweep;
  readonly end: NonNullable<WatchedSweep['end']>;
  readonly home: string;
}) {
  const dispatch = useAppDispatch();
  return (
    <div className={looks.notice} role="status" data-sweep-ended>
      <span className={looks.mark}>{sweep.job}</span>
      <span>
        {sweepEndText[end.word] ?? end.word} {end.loadOff ? 'The load is off.' : ''}
      </span>
      <Link to={home}>Look at it</Link>
      <Button type="link" onClick={() => dispatch(sweepActions.left())}>
        Done with it
      </Button>
    </div>
  );
}

/**
 * Follows a running load sweep whatever screen is open: Stop stays in sight, Escape presses it, and a load that nobody
 * is sure of is named until somebody is.
 */
export function SweepWatch() {
  const dispatch = useAppDispatch();
  const location = useLocation();
  const sweep = useAppSelector((state) => state.sweep);
  // Also sweeps that another screen has started, or this one before it was loaded again.
  const known = useSweepsQuery(undefined, {
    pollingInterval: 20_000,
    skipPollingIfUnfocused: true,
    refetchOnFocus: true,
  });
  const [stop] = useStopSweepMutation();
  const { refetch } = known;
  const running = known.data?.running[0];
  useEffect(() => {
    if (running !== undefined) dispatch(sweepActions.watched({ sweep: running, phase: null }));
  }, [running, dispatch]);
  useSweepEvents(sweep !== null && sweep.end === null ? sweep.id : null, refetch, stop);

  const home = sweep === null ? '' : `/jobs/${sweep.job}/measure?way=live`;
  const atHome = `${location.pathname}${location.search}` === home;
  return (
    <footer aria-label="Load sweep">
      {(known.data?.unsure ?? []).map((load) => (
        <UnsureLoad key={load.loadId} load={load} />
      ))}
      {sweep !== null && sweep.end === null && (
        <RunningSweep sweep={sweep} home={atHome ? null : home} onStop={() => void stop(sweep.id)} />
      )}
      {sweep !== null && sweep.end !== null && !atHome && <EndedSweep sweep={sweep} end={sweep.end} home={home} />}
    </footer>
  );
}
