import { Button } from 'antd';
import { conditionText, measuringBar, nextReadingText, subjectText, type Condition, type Phase } from '@fairwatt/core';
import { Primary } from '../../controls/fields.tsx';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';
import { nextReadingOf } from './next-reading.ts';

/**
 * The next reading, or where to go from here. Once a rail of the supply that came is out of its limits and nothing in
 * the search hangs on another reading, the search goes first, and the record of before and after waits beside it.
 */
export function WhatNext({
  phase,
  failing,
  onRead,
}: {
  readonly phase: Phase;
  /** A reading is out of its limits. */
  readonly failing: boolean;
  readonly onRead: (condition: Condition) => void;
}) {
  const { job, view, goTo } = useDesk();
  const barred = measuringBar(view.interlocks, phase);
  if (view.bareVerdict !== null && view.bareVerdict.word !== 'cannot-tell')
    return <Primary onClick={() => goTo('hand-over')}>Hand over</Primary>;
  const back = <Primary onClick={() => goTo('fault')}>Back to Find the fault</Primary>;
  if (barred !== null) return barred.madeSafe === null ? null : back;
  const next = nextReadingOf(job, view, phase);
  if (next === null) return phase === 'after' ? <Primary onClick={() => goTo('hand-over')}>Hand over</Primary> : back;
  const words = `${subjectText[next.subject]} ${conditionText[next.condition]}`;
  const waits = phase === 'before' && failing && next.why.kind === 'record';
  const read = () => onRead(next.condition);
  return (
    <>
      {waits ? back : <Primary onClick={read}>Next: {words}</Primary>}
      {waits && <Button onClick={read}>For the record: {words}</Button>}
      <p className={looks.quiet} data-next-reading={`${next.subject} ${next.condition}`}>
        {nextReadingText(next)}
      </p>
    </>
  );
}
