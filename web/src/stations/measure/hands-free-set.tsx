import { useState } from 'react';
import { Button } from 'antd';
import {
  conditionText,
  isRail,
  railNames,
  readingsOf,
  spokenRail,
  spokenReading,
  subjectText,
  type Condition,
  type Phase,
  type RailName,
} from '@fairwatt/core';
import type { NetworkInstrument } from '@fairwatt/contract';
import { useDesk } from '../../job/job-context.ts';
import { HandsFreePanel } from './hands-free.tsx';
import { heldReading } from './held-reading.ts';
import { nextReadingOf } from './next-reading.ts';

/** The rails one after the other with both hands at the probes, that one first that is worth most. */
export function HandsFreeSet({
  meter,
  instrumentId,
  phase,
  condition,
  onStop,
}: {
  readonly meter: NetworkInstrument;
  readonly instrumentId: string;
  readonly phase: Phase;
  readonly condition: Condition;
  readonly onStop: () => void;
}) {
  const { job, view, act, locked, shop } = useDesk();
  const [left, setLeft] = useState<readonly RailName[]>([]);
  const [last, setLast] = useState<{ readonly id: string; readonly rail: RailName; readonly volts: number } | null>(
    null,
  );
  const read = readingsOf(job, phase)
    .filter((reading) => reading.condition === condition)
    .map((reading) => reading.subject);
  const open = railNames.filter((rail) => !read.includes(rail) && !left.includes(rail));
  const worth = nextReadingOf(job, view, phase);
  const first =
    worth !== null && worth.condition === condition ? open.find((rail) => rail === worth.subject) : undefined;
  const rail = locked ? undefined : (first ?? open[0]);
  const verdict = view[phase].verdicts.find((item) => item.subject === last?.rail && item.condition === condition);
  return (
    <HandsFreePanel
      meter={meter}
      job={job.code}
      touch={rail === undefined ? null : { key: `${rail} ${read.length}`, rail }}
      now={rail === undefined ? '' : subjectText[rail]}
      what={`${conditionText[condition]}, red on the rail, black on a ground pin`}
      spoken={rail === undefined ? '' : `${spokenRail[rail]}.`}
      last={
        last === null || verdict === undefined ? null : spokenReading(last.rail, condition, last.volts, verdict.word)
      }
      ended={`${read.filter(isRail).length} of ${railNames.length} rails read`}
      onTake={(held) => {
        if (rail === undefined) return;
        const reading = heldReading(held, { rail, phase, condition, instrumentId }, shop.instruments);
        if (act({ kind: 'take-reading', reading }) === null)
          setLast({ id: reading.id, rail, volts: reading.value.figure });
      }}
      onAgain={
        last === null
          ? null
          : () => {
              if (act({ kind: 'strike-reading', id: last.id }) === null) setLast(null);
            }
      }
      onStop={onStop}
    >
      {rail !== undefined && <Button onClick={() => setLeft([...left, rail])}>Leave it out</Button>}
    </HandsFreePanel>
  );
}
