import { useEffect, useEffectEvent, useRef, useState } from 'react';
import type { RailName } from '@fairwatt/core';
import type { LiveEvent } from '@fairwatt/contract';

/** Readings kept for the drawing; older ones are let go, however long it runs. */
export const drawn = 240;

export interface Live {
  readonly volts: number | null;
  readonly trouble: string | null;
  readonly identity: string;
  readonly held: Extract<LiveEvent, { kind: 'held' }> | null;
  readonly trail: readonly number[];
}
const silent: Live = { volts: null, trouble: null, identity: '', held: null, trail: [] };

/** Where a meter's readings come from. @param moving the probe is on its way there */
export const liveAddress = (meterId: string, rail: RailName, job: string, moving = false): string =>
  `/api/instruments/${encodeURIComponent(meterId)}/live?` +
  new URLSearchParams({ rail, job, ...(moving ? { moving: 'yes' } : {}) }).toString();

/**
 * A meter's readings as they come; the screen is drawn anew at most once a frame.
 * @param touch another one begins anew, also at the same address
 * @param hear told each event as it comes
 */
export function useLive(address: string | null, touch = '', hear: (event: LiveEvent) => void = () => undefined): Live {
  const [live, setLive] = useState(silent);
  const latest = useRef<Live>(silent);
  const heard = useEffectEvent(hear);
  useEffect(() => {
    if (address === null) return undefined;
    latest.current = silent;
    let frame = 0;
    const draw = () => {
      frame ||= requestAnimationFrame(() => {
        frame = 0;
        setLive(latest.current);
      });
    };
    const source = new EventSource(address);
    source.onmessage = (message: MessageEvent<string>) => {
      const event = JSON.parse(message.data) as LiveEvent;
      const now = latest.current;
      switch (event.kind) {
        case 'identity':
          latest.current = { ...now, identity: event.text };
          break;
        case 'reading':
          latest.current = {
            ...now,
            volts: event.volts,
            trouble: null,
            trail: [...now.trail.slice(1 - drawn), event.volts],
          };
          break;
        case 'held':
          latest.current = { ...now, held: event };
          break;
        case 'trouble':
          latest.current = { ...now, volts: null, trouble: event.trouble };
          // Another screen has it: the browser shall not open the line again.
          if (event.trouble === 'taken') source.close();
      }
      heard(event);
      draw();
    };
    source.onerror = () => {
      latest.current = { ...latest.current, volts: null, trouble: 'server-away' };
      draw();
    };
    return () => {
      source.close();
      cancelAnimationFrame(frame);
      setLive(silent);
    };
  }, [address, touch]);
  return live;
}
