import { useEffect } from 'react';
import { Button } from 'antd';
import { Link, useLocation } from 'react-router';
import { sweepEndText } from '@fairwatt/core';
import type { SweepEvent } from '@fairwatt/contract';
import { useLoadOffMutation, useStopSweepMutation, useSweepsQuery } from './api.ts';
import { useAppDispatch, useAppSelector } from './store.ts';
import { sweepActions } from './sweep.ts';

/**
 * Follows a running load sweep whatever screen is open: Stop stays in sight, Escape presses it, and a load that nobody
 * is sure of is named until somebody is.
 */
export function SweepWatch() {
  const dispatch = useAppDispatch();
  const location = useLocation();
  const sweep = useAppSelector((state) => state.sweep);
  const technician = useAppSelector((state) => state.session.technician);
  // Also sweeps that another screen has started, or this one before it was loaded again.
  const known = useSweepsQuery(undefined, {
    pollingInterval: 20_000,
    skipPollingIfUnfocused: true,
    refetchOnFocus: true,
  });
  const [stop] = useStopSweepMutation();
  const [makeSure, making] = useLoadOffMutation();
  const running = known.data?.running[0];
  const unsure = known.data?.unsure ?? [];
  useEffect(() => {
    if (running !== undefined) dispatch(sweepActions.watched({ sweep: running, phase: null }));
  }, [running, dispatch]);

  const id = sweep !== null && sweep.end === null ? sweep.id : null;
  const { refetch } = known;
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

  const home = sweep === null ? '' : `/jobs/${sweep.job}/measure?way=live`;
  const atHome = `${location.pathname}${location.search}` === home;
  return (
    <footer aria-label="Load sweep">
      {unsure.map((load) => (
        <div key={load.loadId} className="notice bad" role="alert" data-unsure={load.loadId}>
          <span className="mark">{load.loadName}</span>
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
      ))}
      {sweep !== null && sweep.end === null && (
        <div className="sweep-bar" role="status" data-sweep-bar>
          <Button type="text" className="stop-button" onClick={() => void stop(sweep.id)}>
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
          {!atHome && (
            <Link className="link" to={home}>
              Look at it
            </Link>
          )}
          <span className="quiet push">
            <kbd>Esc</kbd> stops
          </span>
        </div>
      )}
      {sweep !== null && sweep.end !== null && !atHome && (
        <div className="notice" role="status" data-sweep-ended>
          <span className="mark">{sweep.job}</span>
          <span>
            {sweepEndText[sweep.end.word] ?? sweep.end.word} {sweep.end.loadOff ? 'The load is off.' : ''}
          </span>
          <Link className="link" to={home}>
            Look at it
          </Link>
          <Button type="link" onClick={() => dispatch(sweepActions.left())}>
            Done with it
          </Button>
        </div>
      )}
    </footer>
  );
}
