import { useEffect, useEffectEvent, useRef, useState, type ReactNode } from 'react';
import { Button, Checkbox } from 'antd';
import { hearFigure, stillTouching, takesHeld, voltsText, type RailName } from '@fairwatt/core';
import type { LiveEvent, NetworkInstrument } from '@fairwatt/contract';
import { signs } from '../../controls/signs.tsx';
import { useVoice } from '../../controls/voice.ts';
import { looks } from '../../looks/looks.ts';
import { MeterTrouble } from './meter-trouble.tsx';
import { liveAddress, useLive } from './use-live.ts';
import styles from './hands-free.module.css';

export interface HandsFreePanelProps {
  readonly meter: NetworkInstrument;
  readonly job: string;
  /** What is touched now; another one begins anew. Null when all is read. */
  readonly touch: { readonly key: string; readonly rail: RailName } | null;
  /** The few words that can be read from two metres away. */
  readonly now: string;
  readonly what: string;
  /** The same for the ear. */
  readonly spoken: string;
  /** What the last one came to, for eye and ear. */
  readonly last: string | null;
  /** What is said in place of the next one when all is read. */
  readonly ended: string;
  readonly onTake: (held: Extract<LiveEvent, { kind: 'held' }>) => void;
  /** Measures the last one again; null when there is none. */
  readonly onAgain: (() => void) | null;
  readonly onStop: () => void;
  readonly children?: ReactNode;
}

/**
 * Both hands at the probes: each figure that comes to rest after the probe was lifted is taken, and the next one is
 * shown large and said.
 */
export function HandsFreePanel(props: HandsFreePanelProps) {
  const { meter, job, touch, now, what, spoken, last, ended, onTake, onAgain, onStop, children } = props;
  const voice = useVoice();
  const hands = useRef(stillTouching);
  const [lifted, setLifted] = useState(false);
  const key = touch?.key ?? '';
  useEffect(() => {
    hands.current = stillTouching;
    setLifted(false);
  }, [key]);
  const live = useLive(touch === null ? null : liveAddress(meter.id, touch.rail, job, true), key, (event) => {
    if (touch === null) return;
    if (event.kind === 'reading') {
      hands.current = hearFigure(hands.current, touch.rail, event.volts);
      setLifted(takesHeld(hands.current));
    } else if (event.kind === 'held' && takesHeld(hands.current)) {
      hands.current = stillTouching;
      onTake(event);
    }
  });
  const sayNow = useEffectEvent(() => {
    voice.say([last, touch === null ? ended : spoken].filter((text) => text !== null).join(' '));
  });
  useEffect(() => sayNow(), [key, last, voice.on]);
  return (
    <section
      className={styles['panel']}
      aria-label="Hands free"
      data-hands-free={touch === null ? 'done' : (live.trouble ?? (lifted ? 'waits' : 'lift'))}
      data-lifted={lifted ? 'yes' : 'no'}
    >
      <p className={styles['now']}>{touch === null ? ended : now}</p>
      {touch !== null && <p className={styles['what']}>{what}</p>}
      {touch !== null && (
        <>
          <p className={styles['figure']} aria-live="off">
            {live.volts === null ? '–.–––' : voltsText(live.volts, 3)} V
          </p>
          <p className={looks.quiet}>{lifted ? 'Taken once it stands still.' : 'Lift the probe, then touch.'}</p>
        </>
      )}
      <MeterTrouble trouble={live.trouble} />
      <p className={styles['last']} role="status">
        {last}
      </p>
      <div className={`${looks.rowActions} ${looks.midLine}`}>
        <Button
          autoFocus
          data-again
          data-primary
          onClick={() => {
            if (onAgain === null) voice.say(spoken);
            else onAgain();
          }}
        >
          {onAgain === null ? 'Say it again' : 'Measure the last one again'} <kbd aria-hidden="true">↵</kbd>
        </Button>
        {children}
        <Button icon={signs.stop} onClick={onStop}>
          Stop
        </Button>
        <Checkbox
          checked={voice.on}
          disabled={voice.missing}
          onChange={(event) => voice.switchTo(event.target.checked)}
        >
          {voice.missing ? 'this browser has no voice' : 'say it'}
        </Checkbox>
      </div>
      <p className={looks.quiet}>
        Enter or Space measures the last one again: a foot switch that sends either will do.
      </p>
    </section>
  );
}
